<script setup lang="ts">
import type { ResponseFilter } from '#shared/api/responses'
import { turnName } from '#core/parties/turns'

/** By what responses are filtered besides words: their state, their version, the days on which they were sent, and a condition over the answers. */
const props = defineProps<{ filter: ResponseFilter; hasTurns: boolean; isNarrowed: boolean }>()
const emit = defineEmits<{ set: [part: Partial<ResponseFilter>]; clear: [] }>()
const draft = useDraft()
const isOpen = ref(false)
const STATES = [
  { value: '', title: 'in any state', isOfTurns: false },
  { value: 'progress', title: 'in progress', isOfTurns: true },
  { value: 'unpaid', title: 'to be paid', isOfTurns: false },
  { value: 'late', title: 'late', isOfTurns: true },
  { value: 'done', title: 'done', isOfTurns: true },
  { value: 'corrected', title: 'corrected', isOfTurns: false },
  { value: 'withdrawn', title: 'withdrawn', isOfTurns: true },
] as const
/** What some version of the form can tell apart. */
const states = computed(() =>
  STATES.filter(s =>
    s.value === 'unpaid'
      ? draft.form?.payment !== undefined
      : props.hasTurns || !s.isOfTurns || hasPayment(s.value),
  ),
)
const hasPayment = (state: string) => state === 'done' && draft.form?.payment !== undefined
const turns = computed(() => [
  { value: '', title: 'whoever’s turn it is' },
  ...(draft.form?.turns ?? []).map(t => ({
    value: t.code,
    title: draft.form ? turnName(draft.form, t) : t.code,
  })),
])
const versions = computed(() => [
  { value: 0, title: 'of every version' },
  ...draft.releases.map(r => ({ value: r.number, title: `of version ${r.number}` })),
])
</script>

<template>
  <div class="row-flex">
    <v-select
      :model-value="filter.state"
      :items="states"
      aria-label="State"
      class="choice"
      @update:model-value="emit('set', { state: $event })"
    />
    <v-select
      v-if="turns.length > 2"
      :model-value="filter.turn"
      :items="turns"
      aria-label="Turn"
      class="choice"
      @update:model-value="emit('set', { turn: $event })"
    />
    <v-select
      v-if="draft.releases.length > 1"
      :model-value="filter.release"
      :items="versions"
      aria-label="Version"
      class="choice"
      @update:model-value="emit('set', { release: $event })"
    />
    <v-btn
      :aria-expanded="isOpen"
      @click="isOpen = !isOpen"
      >Filter …</v-btn
    >
    <v-btn
      v-if="isNarrowed"
      variant="text"
      @click="emit('clear')"
      >Show all</v-btn
    >
  </div>
  <div
    v-if="isOpen || filter.where || filter.since || filter.until"
    class="sheet more"
    role="group"
    aria-label="Filter"
  >
    <div class="row-flex days">
      <span>Sent from</span>
      <DayField
        :model-value="filter.since"
        name="Sent from"
        @update:model-value="emit('set', { since: $event })"
      />
      <span>to</span>
      <DayField
        :model-value="filter.until"
        name="Sent until"
        @update:model-value="emit('set', { until: $event })"
      />
    </div>
    <Suspense>
      <FilterCondition
        :where="filter.where"
        @set="emit('set', { where: $event })"
      />
    </Suspense>
  </div>
</template>

<style scoped>
.choice {
  flex: 0 1 190px;
}
.days > :deep(div) {
  flex: 0 1 220px;
}
.more {
  padding: 12px 16px;
  display: grid;
  gap: 10px;
}
</style>
