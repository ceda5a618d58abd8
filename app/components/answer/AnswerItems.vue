<script setup lang="ts">
import { EXPLAIN, HEADING_BELOW, PARTY_ACCESS } from './keys'
import { drawnFrom } from './drawnFrom'
import { besideEachOther, laidOut } from './layout'
import type { Answer, Answers } from '#core/form/answers'
import { widgetFor } from './widgets'
import { rowCount } from './widgets/widget'
import type { Frame } from '#core/fill/fill'
import { isQuestion, isRepeating } from '#core/fill/steps'
import type { Step } from '#core/fill/planned'
import { quotedText } from '#core/fill/quote'
import type { Address } from '#core/form/walk'

/** What is in play in a section, group or entry, in the order of the form. `only`: the places that the page shows; null for all. */
const props = defineProps<{
  frame: Frame
  steps: readonly Step[]
  parent: number
  only: ReadonlySet<number> | null
  answers: Answers
  tried: boolean
  lit: Address | null
  prefix: string
  under?: string
}>()
const emit = defineEmits<{ answer: [code: string, value: Answer] }>()

const inPlay = computed(() =>
  props.steps
    .filter(s => props.frame.inPlay[s.place.order] && (props.only === null || props.only.has(s.place.order)))
    .toSorted((a, b) => a.place.order - b.place.order),
)
const heading = inject(HEADING_BELOW, ref('h3'))
const underOf = (step: Step) =>
  step.place.kind !== 'section' && 'under' in step.place.node ? step.place.node.under : undefined
/** The choices of this page whose options stand open, so that something can stand under one. */
const open = computed(
  () =>
    new Set(
      inPlay.value
        .filter(
          s => isQuestion(s) && widgetFor(s.place.node, rowCount(s, props.frame))?.group && s.offer !== null,
        )
        .map(s => s.place.code),
    ),
)
const key = (question: string, option: string) => `${question}/${option}`
const isUnder = (step: Step) => {
  const under = underOf(step)
  return under !== undefined && open.value.has(under.question)
}
const shown = computed(() =>
  inPlay.value.filter(s => {
    const under = underOf(s)
    if (props.under !== undefined)
      return under !== undefined && key(under.question, under.option) === props.under
    return s.parent === props.parent && !isUnder(s)
  }),
)
const follows = computed(() => new Set(inPlay.value.filter(isUnder).map(s => underOf(s)?.question)))
/** What this party only reads, by code; everything is filled where nobody says otherwise. */
const access = inject(PARTY_ACCESS, ref<Record<string, 'reads' | 'fills'>>({}))
const isRead = (step: Step) =>
  access.value[step.place.code] === 'reads' && (isQuestion(step) || isRepeating(step))
/** The rehearsal answers why a question is as it is, from all of the answers as they are now. */
const why = inject(EXPLAIN, null)
/** What something is drawn from; whatever is no plain question is drawn from all of the answers. */
function memoOf(step: Step): unknown[] {
  const isPlain = isQuestion(step) && why === null && !isRead(step) && !follows.value.has(step.place.code)
  const own = [props.answers[step.place.code], props.tried, props.lit === step.place.address, idOf(step)]
  return [...own, ...(isPlain ? drawnFrom(step, props.frame) : [props.frame])]
}
const idOf = (step: Step) => `${props.prefix}-${step.place.code}`
</script>

<template>
  <template
    v-for="s in shown"
    :key="s.place.address"
    v-memo="memoOf(s)"
  >
    <LazyAnswerRead
      v-if="isRead(s)"
      v-bind="laidOut(s)"
      :step="s"
      :frame="frame"
    />
    <AnswerQuestion
      v-else-if="isQuestion(s)"
      :id="idOf(s)"
      v-bind="laidOut(s)"
      :question="s"
      :frame="frame"
      :answer="answers[s.place.code]"
      :tried="tried"
      :lit="lit === s.place.address"
      @answer="emit('answer', s.place.code, $event)"
    >
      <template
        v-if="follows.has(s.place.code)"
        #under="{ option }"
      >
        <AnswerItems
          :frame="frame"
          :steps="steps"
          :parent="parent"
          :only="only"
          :answers="answers"
          :tried="tried"
          :lit="lit"
          :prefix="prefix"
          :under="key(s.place.code, option)"
          @answer="(code, value) => emit('answer', code, value)"
        />
      </template>
    </AnswerQuestion>
    <AnswerNote
      v-else-if="s.place.kind === 'note'"
      v-bind="laidOut(s)"
      :place="s.place"
      :frame="frame"
      :lit="lit === s.place.address"
    />
    <LazyAnswerEntries
      v-else-if="isRepeating(s)"
      :id="idOf(s)"
      v-bind="laidOut(s)"
      :group="s"
      :frame="frame"
      :answer="answers[s.place.code]"
      :tried="tried"
      :lit="lit"
      @answer="emit('answer', s.place.code, $event)"
    />
    <div
      v-else-if="s.place.kind === 'group'"
      :id="`${idOf(s)}-box`"
      v-bind="laidOut(s)"
      class="group-box"
      role="group"
      :aria-label="quotedText(frame, s.place.node.title, s.place)"
    >
      <component
        :is="heading"
        v-if="s.place.node.title"
        class="group-title"
        >{{ quotedText(frame, s.place.node.title, s.place) }}</component
      >
      <div v-bind="besideEachOther(s.place.node.columns)">
        <AnswerItems
          :frame="frame"
          :steps="steps"
          :parent="s.place.order"
          :only="only"
          :answers="answers"
          :tried="tried"
          :lit="lit"
          :prefix="prefix"
          @answer="(code, value) => emit('answer', code, value)"
        />
      </div>
    </div>
  </template>
</template>

<style src="./layout.css"></style>
<style scoped>
.group-box {
  display: grid;
  gap: 24px;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 18px 0;
}
.group-title {
  font-size: 17px;
}
</style>
