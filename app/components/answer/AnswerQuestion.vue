<script setup lang="ts">
import { EXPLAIN } from './keys'
import type { Answer } from '#core/form/answers'
import { problemOf, type Frame } from '#core/fill/fill'
import { keptAnswer } from '#core/fill/keep'
import { choicesWanted } from '#core/form/choicesWanted'
import { unitOf } from '#core/form/unitOf'
import { quotedText } from '#core/fill/quote'
import type { PlannedQuestion } from '#core/fill/planned'
import { LOCKED, widgetFor } from './widgets'
import { rowCount } from './widgets/widget'

/** One question as the respondent meets it. */
const props = defineProps<{
  question: PlannedQuestion
  frame: Frame
  answer: Answer | undefined
  tried: boolean
  lit: boolean
  id: string
}>()
const emit = defineEmits<{ answer: [value: Answer] }>()
/** In the rehearsal every question answers why it is as it is; a respondent is not shown that. */
const why = inject(EXPLAIN, null)
const slots = defineSlots<{ under?: (scope: { option: string }) => unknown }>()

const node = computed(() => props.question.place.node)
const locked = computed(() => props.frame.locked[props.question.place.order] === true)
const widget = computed(() =>
  locked.value && node.value.type !== 'hidden'
    ? LOCKED
    : widgetFor(node.value, rowCount(props.question, props.frame)),
)
const left = ref(false)
const afterPointer = useAfterPointer()
const leave = () =>
  afterPointer(() => {
    left.value = true
  })
const problem = computed(() => {
  const found = problemOf(props.frame, props.question)
  return found && (props.tried || (left.value && found.kind !== 'missing')) ? found.sentence : null
})
const required = computed(() => props.frame.required[props.question.slot] === true)
const value = computed<Answer>(() =>
  locked.value || props.answer === undefined ? keptAnswer(props.frame, props.question.slot) : props.answer,
)
const text = (t: string | undefined) => (t ? quotedText(props.frame, t, props.question.place) : '')
const label = computed(() => text(node.value.label) || node.value.code)
const help = computed(() => ('help' in node.value ? text(node.value.help) : ''))
const unit = computed(() => unitOf(node.value))
/** Said before somebody chooses too many. */
const wanted = computed(() =>
  node.value.type === 'choices' && !locked.value ? choicesWanted(node.value) : null,
)
const lost = computed(() =>
  (props.frame.lost.get(props.question.slot) ?? []).map(
    code => props.question.offer?.rows.get(code)?.label ?? code,
  ),
)
const isOutput = computed(() => node.value.type === 'value' || locked.value)
const labelTag = computed(() => {
  if (isOutput.value) return 'span'
  return widget.value?.group ? 'legend' : 'label'
})
const describedby = computed(
  () =>
    [
      help.value ? `${props.id}-help` : '',
      wanted.value ? `${props.id}-wanted` : '',
      lost.value.length > 0 ? `${props.id}-lost` : '',
      problem.value ? `${props.id}-wrong` : '',
    ]
      .filter(Boolean)
      .join(' ') || undefined,
)
const clearable = computed(
  () =>
    !required.value &&
    !isOutput.value &&
    value.value !== null &&
    lost.value.length === 0 &&
    ['yesNo', 'choice', 'scale', 'grid'].includes(node.value.type) &&
    widget.value?.group === true,
)
const role = computed(() =>
  ['choice', 'yesNo', 'scale'].includes(node.value.type) && !isOutput.value ? 'radiogroup' : 'group',
)
</script>

<template>
  <component
    :is="widget.group && !isOutput ? 'fieldset' : 'div'"
    v-if="widget"
    :id="`${id}-box`"
    class="question"
    :class="{ lit, output: isOutput }"
    :role="widget.group ? role : undefined"
    :aria-describedby="widget.group ? describedby : undefined"
    :aria-invalid="widget.group && role === 'radiogroup' && problem ? true : undefined"
    :aria-required="widget.group && role === 'radiogroup' && required ? true : undefined"
  >
    <component
      :is="labelTag"
      :id="`${id}-label`"
      class="label"
      :for="widget.group ? undefined : id"
      >{{ label
      }}<span
        v-if="unit && !widget.group"
        class="hidden-words"
        >, in {{ unit }}</span
      >{{ ' '
      }}<span
        v-if="!required && !isOutput"
        class="optional"
        >optional</span
      ></component
    >
    <v-btn
      v-if="why"
      variant="text"
      class="why"
      :aria-describedby="`${id}-label`"
      @click="why(question.place.address, frame)"
    >
      Why?
    </v-btn>
    <p
      v-if="help"
      :id="`${id}-help`"
      class="help"
    >
      {{ help }}
    </p>
    <p
      v-if="wanted"
      :id="`${id}-wanted`"
      class="help"
    >
      {{ wanted }}
    </p>
    <p
      v-if="lost.length > 0"
      :id="`${id}-lost`"
      class="lost"
      role="status"
    >
      {{ lost.map(l => `“${l}”`).join(', ') }} {{ lost.length === 1 ? 'is' : 'are' }} no longer on offer after
      your other answers, and {{ lost.length === 1 ? 'was' : 'were' }} taken out.
    </p>
    <component
      :is="widget.component"
      :id="id"
      class="widget"
      :question="node"
      :step="question"
      :frame="frame"
      :value="value"
      :describedby="describedby"
      :labelledby="`${id}-label`"
      :invalid="!!problem"
      :required="required"
      @answer="(v: Answer) => emit('answer', v)"
      @left="leave"
    >
      <template
        v-if="slots.under"
        #under="{ option }: { option: string }"
        ><slot
          name="under"
          :option="option"
      /></template>
    </component>
    <p
      v-if="locked"
      class="small quiet"
    >
      This can’t be changed here.
    </p>
    <v-btn
      v-if="clearable"
      variant="text"
      class="clear"
      @click="emit('answer', null)"
    >
      Clear the answer
    </v-btn>
    <p
      v-if="problem"
      :id="`${id}-wrong`"
      class="wrong"
    >
      {{ problem }}
    </p>
  </component>
</template>

<style scoped>
.why {
  position: absolute;
  top: 0;
  inset-inline-end: 0;
}
.question {
  position: relative;
  min-width: 0;
  scroll-margin-top: 24px;
}
.question.lit {
  outline: 2px dashed var(--verdigris);
  outline-offset: 8px;
}
.label {
  font-weight: 600;
  font-size: 16px;
  display: block;
  padding: 0;
}
/* In the rehearsal what is asked leaves room for its “Why?”. */
.question:has(> .why) > .label {
  padding-inline-end: 48px;
}
.optional {
  font-weight: 400;
  font-size: 13px;
  color: var(--slate);
  margin-inline-start: 4px;
}
/* A floated legend stands in the flow like any other line. */
fieldset.question > .label {
  float: inline-start;
  width: 100%;
  padding-bottom: 8px;
}
fieldset.question > .help {
  margin: -6px 0 8px;
}
fieldset.question > :not(.label, .why) {
  clear: both;
}
.help {
  color: var(--slate);
  font-size: 14px;
  margin-top: 2px;
  white-space: pre-line;
}
.lost {
  background: var(--weld-wash);
  padding: 8px 12px;
  font-size: 14px;
  margin-top: 6px;
}
.widget {
  margin-top: 8px;
}
.output {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 16px;
  align-items: baseline;
  border-bottom: 1px dotted var(--line);
  padding-bottom: 6px;
}
.output > .help,
.output > .small,
.output > .wrong {
  grid-column: 1 / -1;
}
.output > .why {
  position: static;
  grid-column: 1 / -1;
}
.output > .widget {
  grid-area: 1 / 2;
  margin: 0;
  text-align: end;
}
.wrong {
  color: var(--madder);
  font-weight: 600;
  font-size: 14px;
  margin-top: 6px;
}
.clear {
  min-height: 28px;
}
</style>
