<script setup lang="ts">
import type { Weight } from '~/composables/prove/useFindingsView'
import { SEVERITY_MARKS } from '~/theme/severityMarks'

/** How many findings there are of each weight and in each section; a press shows only those. */
const weight = defineModel<Weight | 'all'>('weight', { required: true })
const section = defineModel<number | 'all'>('section', { required: true })
defineProps<{ bySection: readonly { i: number; title: string; count: number }[] }>()
const findings = useFindings()
const weights = computed(() => {
  const own = [
    { key: 'fault' as const, mark: SEVERITY_MARKS.fault, words: 'Faults', count: findings.faults.length },
    { key: 'risk' as const, mark: SEVERITY_MARKS.risk, words: 'Risks', count: findings.risks.length },
    { key: 'advice' as const, mark: SEVERITY_MARKS.advice, words: 'Advice', count: findings.advice.length },
  ]
  const accepted = { key: 'accepted' as const, mark: '✓', words: 'Accepted', count: findings.accepted.size }
  return accepted.count > 0 ? [...own, accepted] : own
})
</script>

<template>
  <h2>By weight</h2>
  <v-btn
    v-for="w in weights"
    :key="w.key"
    variant="plain"
    class="pick"
    :aria-pressed="weight === w.key"
    @click="weight = weight === w.key ? 'all' : w.key"
  >
    <span :class="w.key">{{ w.mark }} {{ w.words }}</span
    ><b class="num">{{ w.count }}</b>
  </v-btn>
  <h2>By place</h2>
  <v-btn
    v-for="s in bySection"
    :key="s.i"
    variant="plain"
    class="pick"
    :aria-pressed="section === s.i"
    @click="section = section === s.i ? 'all' : s.i"
  >
    <span>{{ s.i + 1 }} {{ s.title }}</span
    ><b class="num">{{ s.count }}</b>
  </v-btn>
</template>
