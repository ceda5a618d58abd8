<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Skip } from '#core/form/fields'
import { FINISH } from '#core/form/finish'
import { skipTarget } from '#core/form/skips'
import { placeName, type Place, type PlaceOf } from '#core/form/walk'

/** Where a question leads on, past what lies between. */
const props = defineProps<{ place: PlaceOf<'question'> }>()
const emit = defineEmits<{ change: [skips: Skip[] | null] }>()
const draft = useDraft()
const skips = computed((): Skip[] => ('skips' in props.place.node ? (props.place.node.skips ?? []) : []))
const put = (next: Skip[]) => emit('change', next.length > 0 ? next : null)
const change = (i: number, skip: Skip) => put(skips.value.toSpliced(i, 1, skip))
const leadsOn = (to: string) => typeof skipTarget(draft.places, props.place, { to }) !== 'string'
const nameOf = (place: Place) => `${place.number} ${placeName(place)}`.trim()
/** What stands behind the question, and the finish where it can be led to. */
const targets = computed(() => [
  ...draft.places
    .filter(p => p.order > props.place.order + 1 && leadsOn(p.address))
    .map(p => ({ value: p.address, title: nameOf(p) })),
  ...(leadsOn(FINISH) ? [{ value: FINISH, title: 'the finish' }] : []),
])
/** The targets of a skip, with the one that it has, where that is none any more. */
function targetsOf({ to }: Skip) {
  if (targets.value.some(t => t.value === to)) return targets.value
  const place = draft.places.find(p => p.address === to)
  return [{ value: to, title: place ? nameOf(place) : `${to} (not there)` }, ...targets.value]
}
/** A skip with another condition, or with none. */
function setWhen(i: number, when: string | null) {
  const skip = skips.value[i]
  if (skip) change(i, when === null ? { to: skip.to } : { ...skip, when })
}
const add = () => {
  const [first] = targets.value
  if (first) put([...skips.value, { to: first.value }])
}
</script>

<template>
  <div class="skips">
    <div
      v-for="(s, i) in skips"
      :key="i"
      class="skip"
    >
      <div class="row-flex">
        <span class="small quiet">{{ i + 1 }}. at</span>
        <v-autocomplete
          :model-value="s.to"
          :aria-label="`Where skip ${i + 1} goes on`"
          :items="targetsOf(s)"
          auto-select-first
          @update:model-value="$event && change(i, { ...s, to: $event })"
        />
        <IconButton
          :icon="mdiClose"
          name="Remove"
          @click="put(skips.toSpliced(i, 1))"
        />
      </div>
      <RuleField
        words="Goes on when"
        :text="s.when"
        :place="place"
        :part="`skip${i}`"
        @change="setWhen(i, $event)"
      >
        <template #none><span class="small quiet">always, once this question is asked</span></template>
      </RuleField>
    </div>
    <div class="row-flex">
      <span
        v-if="skips.length === 0"
        class="small quiet"
        >at what follows</span
      >
      <v-btn
        v-if="targets.length > 0"
        variant="text"
        @click="add"
      >
        + skip
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.skips,
.skip {
  display: grid;
  gap: 6px;
}
.skip {
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
</style>
