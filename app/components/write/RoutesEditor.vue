<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Route } from '#core/form/definition'
import { FINISH } from '#core/form/finish'
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
        <v-select
          :model-value="r.to"
          :aria-label="`Destination of route ${i + 1}`"
          :items="[
            ...(r.to !== FINISH && !later.some(s => s.code === r.to)
              ? [{ value: r.to, title: `${r.to} (not a later section)` }]
              : []),
            ...later.map(s => ({ value: s.code, title: s.title || s.code })),
            { value: FINISH, title: 'the finish' },
          ]"
          @update:model-value="change(i, { ...without(r), to: $event })"
        />
        <v-select
          v-if="r.to === FINISH && closings.length > 0"
          :model-value="r.closing ?? ''"
          :aria-label="`Closing of route ${i + 1}`"
          :items="[
            { value: '', title: 'with the usual closing' },
            ...closings.map(c => ({ value: c.code, title: `with “${c.title || c.code}”` })),
          ]"
          @update:model-value="change(i, $event ? { ...r, closing: $event } : without(r))"
        />
        <IconButton
          :icon="mdiClose"
          name="Remove"
          @click="put(routes.toSpliced(i, 1))"
        />
      </div>
      <RuleField
        words="Taken when"
        :text="r.when"
        :place="place"
        :part="String(i)"
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
      <v-btn
        variant="text"
        @click="put([...routes, { to: FINISH }])"
      >
        + route
      </v-btn>
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
