<script setup lang="ts">
import { ExpressionError, parse } from '#core/expressions/parse'
import { expressionOf, type Condition } from '#core/expressions/pointing'
import { conditionOf } from '#core/expressions/pointed'
import { oppositeCondition } from '#core/expressions/opposite'
import { print } from '#core/expressions/print'
import { pointableQuestions } from '#core/form/names'
import type { Place } from '#core/form/walk'

/** One rule, built by pointing or written as text; both show the same condition. */
const props = defineProps<{ text: string | undefined; words: string; place: Place; except?: string | null }>()
const emit = defineEmits<{ change: [text: string | null] }>()
const draft = useDraft()
const clip = useRuleClip()
const isText = ref(false)
/** A condition that is not finished yet, and so not in the draft. */
const unfinished = ref<Condition | null>(null)

const questions = computed(() =>
  draft.form ? pointableQuestions(draft.form, draft.places, props.place, props.except) : [],
)
const firstTest = (): Condition => ({ kind: 'test', question: '', operator: 'isAnswered', operands: [] })
const asGroup = (c: Condition): Condition =>
  c.kind === 'group' ? c : { kind: 'group', mode: 'all', parts: [c] }
const kindOf = (code: string, group?: string) => {
  const known = group ? questions.value.find(q => q.code === group)?.members : questions.value
  return known?.find(q => q.code === code)?.kind
}

const problem = computed(() => {
  if (props.text === undefined || !draft.names) return null
  const { syntax, problems } = draft.names.read(props.text, props.place)
  return syntax
    ? { from: syntax.from, to: syntax.to, sentence: syntax.message, instead: syntax.instead }
    : (problems[0] ?? null)
})
const readable = computed(() => {
  if (props.text === undefined) return null
  try {
    return parse(props.text)
  } catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
})
const condition = computed(
  () => unfinished.value ?? (readable.value ? asGroup(conditionOf(readable.value, kindOf)) : null),
)
watch(
  () => props.text,
  now => {
    const built = unfinished.value && expressionOf(unfinished.value)
    if (!built || print(built) !== now) unfinished.value = null
  },
)

function set(next: Condition) {
  unfinished.value = next
  const built = expressionOf(next)
  if (built) emit('change', print(built))
}
function begin() {
  unfinished.value = { kind: 'group', mode: 'all', parts: [firstTest()] }
}
function remove() {
  unfinished.value = null
  isText.value = false
  if (props.text !== undefined) emit('change', null)
}
function write(text: string) {
  unfinished.value = null
  emit('change', text)
}
function turn() {
  const { names } = draft
  if (readable.value && names)
    emit('change', print(oppositeCondition(readable.value, name => names.typeOf(name))))
}
const showText = computed(() => isText.value || (props.text !== undefined && readable.value === null))
</script>

<template>
  <div class="rule-field">
    <div
      v-if="text === undefined && !unfinished && !isText"
      class="row-flex"
    >
      <slot name="none" />
      <v-btn
        variant="text"
        @click="begin"
      >
        + {{ words.toLowerCase() }} …
      </v-btn>
      <v-btn
        v-if="clip.text !== null"
        variant="text"
        @click="emit('change', clip.text)"
      >
        Paste rule
      </v-btn>
    </div>
    <template v-else>
      <ConditionBuilder
        v-if="!showText && condition"
        :condition="condition"
        :questions="questions"
        @change="set"
        @remove="remove"
      />
      <ExpressionInput
        v-else
        :text="text ?? ''"
        :label="`${words}, as text`"
        :place="place"
        :wanted="undefined"
        @write="write"
      />
      <div class="row-flex">
        <v-btn
          variant="text"
          :disabled="showText && text !== undefined && readable === null"
          @click="isText = !showText"
        >
          {{ showText ? 'By pointing' : 'As text' }}
        </v-btn>
        <v-btn
          v-if="text"
          variant="text"
          @click="clip.text = text"
        >
          Copy rule
        </v-btn>
        <v-btn
          v-if="clip.text !== null && clip.text !== text"
          variant="text"
          @click="emit('change', clip.text)"
        >
          Paste rule
        </v-btn>
        <v-btn
          v-if="readable"
          variant="text"
          @click="turn"
        >
          The opposite
        </v-btn>
        <v-btn
          variant="text"
          @click="remove"
        >
          Take the rule away
        </v-btn>
        <code
          v-if="!showText && text"
          class="quiet"
          >{{ text }}</code
        >
      </div>
      <p
        v-if="problem && !showText && !unfinished"
        class="small fault"
        role="alert"
      >
        ✕ Character {{ problem.from + 1 }}: {{ problem.sentence }}
      </p>
      <RuleSentence
        v-else-if="text && !problem"
        :words="words"
        :text="text"
      />
    </template>
  </div>
</template>

<style scoped>
.rule-field {
  display: grid;
  gap: 4px;
  min-width: 0;
}
</style>
