<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js'
import type { ResponseTable } from '#shared/api/responses'

/** Which questions have a column, in which order, and how many of the first stay in sight. */
const props = defineProps<{ columns: ResponseTable['columns'] }>()
const collect = useCollect()
const isOpen = ref(false)
const known = computed(() => new Map(props.columns.map(c => [c.code, c])))
const chosen = computed(
  () => collect.columns?.filter(code => known.value.has(code)) ?? props.columns.map(c => c.code),
)
const others = computed(() => {
  const left = props.columns.filter(c => !chosen.value.includes(c.code))
  return [...new Set(left.map(c => c.section))].map(section => ({
    section,
    columns: left.filter(c => c.section === section),
  }))
})
const remove = (code: string) => (collect.columns = chosen.value.filter(c => c !== code))
const add = (codes: readonly string[]) => (collect.columns = [...chosen.value, ...codes])
function move(from: number, to: number) {
  if (to < 0 || to >= chosen.value.length) return
  const codes = [...chosen.value]
  codes.splice(to, 0, ...codes.splice(from, 1))
  collect.columns = codes
}
</script>

<template>
  <v-btn @click="isOpen = true">Columns …</v-btn>
  <PlainDialog
    v-if="isOpen"
    title="Columns"
    :width="760"
    @close="isOpen = false"
  >
    <div class="row-flex">
      <span>The first</span>
      <v-select
        v-model="collect.pinned"
        :items="[0, 1, 2, 3, 4, 5]"
        aria-label="How many columns stay in sight"
        class="pins"
      />
      <span>stay in sight.</span>
      <span class="spread" />
      <v-btn
        variant="text"
        @click="collect.columns = null"
        >All, as the form has them</v-btn
      >
      <v-btn
        variant="text"
        @click="collect.columns = []"
        >None</v-btn
      >
    </div>
    <div class="two">
      <section aria-label="Shown">
        <h3>Shown, in this order</h3>
        <p
          v-if="chosen.length === 0"
          class="quiet"
        >
          No question has a column. Add some from the right.
        </p>
        <div
          v-for="(code, i) in chosen"
          :key="code"
          class="row-flex one"
          data-moves
        >
          <DragHandle
            :name="`Move ${known.get(code)?.label}`"
            :at="i"
            among="columns"
            @move="move"
          />
          <span class="label">{{ known.get(code)?.label }}</span>
          <span class="spread" />
          <IconButton
            :icon="mdiClose"
            :name="`Without ${known.get(code)?.label}`"
            @click="remove(code)"
          />
        </div>
      </section>
      <section aria-label="Not shown">
        <h3>Not shown</h3>
        <p
          v-if="others.length === 0"
          class="quiet"
        >
          Every question has a column.
        </p>
        <template
          v-for="o in others"
          :key="o.section"
        >
          <div class="row-flex">
            <h4>{{ o.section }}</h4>
            <span class="spread" />
            <v-btn
              variant="text"
              @click="add(o.columns.map(c => c.code))"
              >Add all</v-btn
            >
          </div>
          <div
            v-for="c in o.columns"
            :key="c.code"
            class="row-flex one"
          >
            <IconButton
              :icon="mdiPlus"
              :name="`Show ${c.label}`"
              @click="add([c.code])"
            />
            <span class="label">{{ c.label }}</span>
          </div>
        </template>
      </section>
    </div>
  </PlainDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
}
.one {
  border-bottom: 1px dotted var(--line);
  flex-wrap: nowrap;
}
.label {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.pins {
  flex: 0 0 90px;
}
h3 {
  font-size: 15px;
}
h4 {
  color: var(--slate);
}
</style>
