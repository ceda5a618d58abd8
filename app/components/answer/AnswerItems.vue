<script setup lang="ts">
import type { Answer, Answers } from '#core/fill/answers'
import type { Filled } from '#core/fill/fill'
import { isQuestion, type PlannedPlace, type PlannedQuestion } from '#core/fill/plan'
import type { Address } from '#core/form/walk'

/** What is in play in a section or group, in the order of the form. */
const props = defineProps<{ filled: Filled, section: number, parent: number, answers: Answers, tried: boolean, lit: Address | null, prefix: string }>()
const emit = defineEmits<{ answer: [code: string, value: Answer] }>()
const steps = computed(() => (props.filled.plan.sections[props.section]?.steps ?? [])
  .filter(s => s.parent === props.parent && props.filled.inPlay[s.place.order])
  .toSorted((a, b) => a.place.order - b.place.order))
const asQuestion = (step: PlannedPlace | PlannedQuestion) => isQuestion(step) ? step : null
</script>

<template>
  <template v-for="s in steps" :key="s.place.address">
    <AnswerQuestion v-if="asQuestion(s)" :question="asQuestion(s)!" :filled="filled" :answer="answers[s.place.code]" :tried="tried" :lit="lit === s.place.address" :prefix="prefix" @answer="emit('answer', s.place.code, $event)" />
    <p v-else-if="s.place.kind === 'note'" class="note-text" :class="{ lit: lit === s.place.address }">{{ s.place.node.text }}</p>
    <div v-else-if="s.place.kind === 'group'" class="group-box" role="group" :aria-label="s.place.node.title">
      <h3 v-if="s.place.node.title">{{ s.place.node.title }}</h3>
      <AnswerItems :filled="filled" :section="section" :parent="s.place.order" :answers="answers" :tried="tried" :lit="lit" :prefix="prefix" @answer="(code, value) => emit('answer', code, value)" />
    </div>
  </template>
</template>

<style scoped>
.note-text { background: var(--woad-wash); padding: 12px 16px; white-space: pre-line; font-size: 15px; }
.note-text.lit { outline: 2px dashed var(--verdigris); outline-offset: 4px; }
.group-box { display: grid; gap: 24px; border-top: 1px solid var(--line); border-bottom: 1px solid var(--line); padding: 18px 0; }
.group-box h3 { font-size: 17px; }
</style>
