<script setup lang="ts">
/** How the form stands, and what of the findings is looked at. */
const wanted = defineModel<string>('wanted', { required: true })
const grouped = defineModel<'place' | 'kind'>('grouped', { required: true })
defineProps<{ found: number }>()
const findings = useFindings()
const inWords = (count: number, noun: string) => (count === 1 ? `one ${noun}` : counted(count, noun))
const head = computed(() => {
  const found = findings.verdict?.findings.length ?? 0
  if (!findings.isWhole) return found > 0 ? `Proving … ${found} found so far` : 'Proving …'
  const { faults, risks } = findings
  if (faults.length > 0) return `Not ready: ${inWords(faults.length, 'fault')}`
  if (risks.length > 0) return `No fault; ${inWords(risks.length, 'risk')} to accept`
  return 'Every rule holds together'
})
/** Only what is decided is said to be. */
const about = computed(() => {
  const open = findings.verdict?.tally.undecided ?? 0
  const decided =
    open === 0
      ? 'Every rule is decided for all possible answers.'
      : `${counted(open, 'question')} about the rules ${open === 1 ? 'is' : 'are'} not decided; all else is, for all possible answers.`
  return `${decided} A fault stops the release; a risk can be accepted with a reason.`
})
const GROUPINGS = [
  { value: 'place', title: 'by place' },
  { value: 'kind', title: 'by kind' },
] as const
</script>

<template>
  <div class="head">
    <h2>{{ head }}</h2>
    <p
      v-if="findings.isWhole"
      class="quiet"
    >
      {{ about }}
    </p>
    <RefusalAlert :refusal="findings.broken" />
    <div
      v-if="found > 0"
      class="row-flex tools"
    >
      <v-text-field
        v-model="wanted"
        type="search"
        placeholder="Filter by words, code or kind"
        aria-label="Filter the findings"
      />
      <SegmentedChoice
        v-model="grouped"
        :options="GROUPINGS"
        name="Group the findings"
      />
      <span class="spread" /><span class="small quiet keys-line"
        >↑ ↓ travel · Enter shows · M mends · A accepts</span
      >
    </div>
  </div>
</template>

<style scoped>
.head {
  padding: 18px 24px;
  display: grid;
  gap: 4px;
  border-bottom: 1px solid var(--line);
}
.tools {
  margin-top: 8px;
}
.tools .v-text-field {
  width: 250px;
}
</style>
