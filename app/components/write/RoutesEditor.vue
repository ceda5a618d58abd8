<script setup lang="ts">
import { FINISH, type Route } from '#core/form/definition'
import type { PlaceOf } from '#core/form/walk'

const props = defineProps<{ place: PlaceOf<'section'> }>()
const emit = defineEmits<{ change: [routes: Route[] | null] }>()
const draft = useDraft()
const routes = computed(() => props.place.node.routes ?? [])
const put = (next: Route[]) => emit('change', next.length > 0 ? next : null)
const change = (i: number, route: Route) => put(routes.value.toSpliced(i, 1, route))
const later = computed(() => draft.form?.sections.slice(props.place.section + 1) ?? [])
const closings = computed(() => draft.form?.closings ?? [])
const without = ({ closing: _, ...rest }: Route): Route => rest
/** A route with another condition, or with none. */
function setWhen(i: number, when: string | null) {
  const route = routes.value[i]
  if (!route) return
  const { when: _before, ...rest } = route
  change(i, when === null ? rest : { ...route, when })
}
</script>

<template>
  <div class="checks">
    <div
      v-for="(r, i) in routes"
      :key="i"
      class="check"
    >
      <div class="row-flex">
        <span class="small quiet">{{ i + 1 }}. to</span>
        <select
          class="field"
          :value="r.to"
          :aria-label="`Destination of route ${i + 1}`"
          @change="change(i, { ...without(r), to: inputText($event) })"
        >
          <option
            v-if="r.to !== FINISH && !later.some(s => s.code === r.to)"
            :value="r.to"
          >
            {{ r.to }} (not a later section)
          </option>
          <option
            v-for="s in later"
            :key="s.code"
            :value="s.code"
          >
            {{ s.title || s.code }}
          </option>
          <option :value="FINISH">the finish</option>
        </select>
        <select
          v-if="r.to === FINISH && closings.length > 0"
          class="field"
          :value="r.closing ?? ''"
          :aria-label="`Closing of route ${i + 1}`"
          @change="change(i, inputText($event) ? { ...r, closing: inputText($event) } : without(r))"
        >
          <option value="">with the usual closing</option>
          <option
            v-for="c in closings"
            :key="c.code"
            :value="c.code"
          >
            with “{{ c.title || c.code }}”
          </option>
        </select>
        <button
          class="text-button"
          @click="put(routes.toSpliced(i, 1))"
        >
          Remove
        </button>
      </div>
      <RuleField
        words="Taken when"
        :text="r.when"
        :place="place"
        @change="setWhen(i, $event)"
      >
        <template #none><span class="small quiet">always taken</span></template>
      </RuleField>
    </div>
    <div class="row-flex">
      <span
        v-if="routes.length === 0"
        class="small quiet"
        >the next section</span
      >
      <button
        class="text-button"
        @click="put([...routes, { to: FINISH }])"
      >
        + route
      </button>
    </div>
  </div>
</template>

<style scoped>
.checks,
.check {
  display: grid;
  gap: 6px;
}
.check {
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
</style>
