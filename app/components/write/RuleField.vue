<script setup lang="ts">
import { ExpressionError, parse } from '#core/expressions/parse'
import { expressionOf, firstTest, type Condition } from '#core/expressions/pointing'
import { conditionOf } from '#core/expressions/pointed'
import { oppositeCondition } from '#core/expressions/opposite'
import { print } from '#core/expressions/print'
import { pointableQuestions } from '#core/form/names'
import type { Place } from '#core/form/walk'
import { useBegunRule } from '~/composables/write/useBegunRule'

/** One rule, built by pointing or written as text; both show the same condition. */
const props = defineProps<{
  text: string | undefined
  words: string
  place: Place
  /** Tells rules of one kind at one place apart. */
  part?: string
  /** What the rule decides about, where that can't depend on itself or on what stands in it. */
  except?: Place | null
  /** The question that a new rule begins with. */
  about?: string
  /** Begins at once. */
  begins?: boolean
}>()
const emit = defineEmits<{ change: [text: string | null] }>()
const draft = useDraft()
const clip = useRuleClip()
const root = useTemplateRef('root')
const begun = useBegunRule(props, () => props.text)
const { condition: unfinished, isText } = begun
/** What the rule was before it was turned round. */
const turned = ref<{ before: string; now: string } | null>(null)

const questions = computed(() =>
  draft.form ? pointableQuestions(draft.form, draft.places, props.place, props.except) : [],
)
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
// What can't be read is text, and stays so while it is written, until somebody asks for pointing.
watchEffect(() => {
  if (props.text !== undefined && readable.value === null) isText.value = true
})

function set(next: Condition) {
  unfinished.value = next
  const built = expressionOf(next)
  if (built) emit('change', print(built))
}
/** Where a new rule goes on: at its question, or at how the question that it begins with is compared. */
async function begin() {
  const about = questions.value.find(q => q.code === props.about)
  unfinished.value = { kind: 'group', mode: 'all', parts: [firstTest(about)] }
  await nextTick()
  const field = about ? '.comparison input[role]' : '.picker input[role]'
  root.value?.querySelector<HTMLElement>(field)?.focus()
}
onMounted(() => {
  if (props.begins && props.text === undefined && !unfinished.value) void begin()
})
/** Emptied, it is no rule yet: only when the field is left so is the rule taken away. */
const isEmptied = ref(false)
function remove() {
  begun.forget()
  isEmptied.value = false
  emit('change', null)
}
function write(text: string) {
  unfinished.value = null
  isEmptied.value = text.trim() === ''
  if (!isEmptied.value) emit('change', text)
}
function leave() {
  if (isEmptied.value && props.text !== undefined) remove()
}
onBeforeUnmount(leave)
function turn() {
  if (!readable.value || props.text === undefined) return
  const now = print(oppositeCondition(readable.value))
  turned.value = { before: props.text, now }
  emit('change', now)
}
/** The exact complement: true of a blank too. */
const withBlank = computed(() => {
  const { value } = turned
  return value && value.now === props.text ? `not(${value.before})` : null
})
</script>

<template>
  <div
    ref="root"
    class="rule-field"
  >
    <div
      v-if="text === undefined && !unfinished && !isText"
      class="row-flex"
    >
      <slot name="none" />
      <v-btn
        variant="text"
        @click="begin()"
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
        v-if="!isText && condition"
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
        :is-emptied="isEmptied"
        @write="write"
        @focusout="leave"
      />
      <div class="row-flex">
        <v-btn
          variant="text"
          :disabled="isText && text !== undefined && readable === null"
          @click="isText = !isText"
        >
          {{ isText ? 'By pointing' : 'As text' }}
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
          v-if="!isText && text"
          class="quiet"
          >{{ text }}</code
        >
      </div>
      <p
        v-if="problem && !isText && !unfinished"
        class="small fault"
        role="alert"
      >
        ✕ Character {{ problem.from + 1 }}: {{ problem.sentence }}
      </p>
      <RuleSentence
        v-else-if="text && !problem && !isEmptied"
        :words="words"
        :text="text"
      />
      <p
        v-if="withBlank"
        class="small quiet"
        role="status"
      >
        Left blank, neither this holds nor what stood here before.
        <v-btn
          variant="text"
          @click="emit('change', withBlank)"
        >
          Let a blank count too
        </v-btn>
      </p>
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
