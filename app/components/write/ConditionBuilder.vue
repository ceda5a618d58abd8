<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import {
  firstTest,
  OPERATORS,
  type Condition,
  type ConditionTest,
  type Operator,
} from '#core/expressions/pointing'
import { numberFromText, numberText } from '#core/expressions/decimal'
import { dateTimeText, dayNumber, timeText } from '#core/expressions/dates'
import { print } from '#core/expressions/print'
import type { Expr } from '#core/expressions/tree'
import type { Pointable } from '#core/form/names'

const props = defineProps<{ condition: Condition; questions: Pointable[]; nested?: boolean }>()
const emit = defineEmits<{ change: [condition: Condition]; remove: [] }>()
const HERE = { from: 0, to: 0 }
const root = useTemplateRef<HTMLElement>('root')
const INPUTS: Partial<Record<Pointable['kind'], string>> = {
  time: 'time',
}

const questionOf = (code: string) => props.questions.find(q => q.code === code)
const isDay = (code: string) => ['date', 'dateTime'].includes(questionOf(code)?.kind ?? '')
const operatorsFor = (code: string) => {
  const kind = questionOf(code)?.kind
  return (Object.entries(OPERATORS) as [Operator, (typeof OPERATORS)[Operator]][])
    .filter(([, o]) => kind && o.kinds.includes(kind))
    .map(([key, o]) => ({
      key,
      words: kind === 'date' || kind === 'time' || kind === 'dateTime' ? (o.dateWords ?? o.words) : o.words,
    }))
}
/** Of a repeating group it can also be asked what holds in its entries. */
const comparisonsFor = (code: string) => [
  ...operatorsFor(code).map(o => ({ value: o.key, title: o.words })),
  ...((questionOf(code)?.members ?? []).length > 0 ? IN_ENTRIES : []),
]
const IN_ENTRIES = [
  { value: 'every', title: 'in every entry …' },
  { value: 'some', title: 'in some entry …' },
] as const

function setPart(i: number, part: Condition) {
  if (props.condition.kind === 'group')
    emit('change', { ...props.condition, parts: props.condition.parts.map((p, j) => (j === i ? part : p)) })
}
function removePart(i: number) {
  if (props.condition.kind !== 'group') return
  const parts = props.condition.parts.filter((_, j) => j !== i)
  if (parts.length === 0) emit('remove')
  else emit('change', { ...props.condition, parts })
}
/** A new part, and on with it. */
async function addPart(part: Condition) {
  if (props.condition.kind !== 'group') return
  emit('change', { ...props.condition, parts: [...props.condition.parts, part] })
  await nextTick()
  const pickers = root.value?.querySelectorAll<HTMLElement>('.picker input[role]')
  pickers?.[pickers.length - 1]?.focus()
}
function setMode(mode: string) {
  if (props.condition.kind === 'group' && (mode === 'all' || mode === 'any' || mode === 'none'))
    emit('change', { ...props.condition, mode })
}

const chooseQuestion = (code: string): ConditionTest => firstTest(questionOf(code))
function chooseOperator(test: ConditionTest, key: string): Condition {
  if (key === 'every' || key === 'some') {
    const satisfies: Condition = { kind: 'group', mode: 'all', parts: [firstTest()] }
    return { kind: 'entries', mode: key, group: test.question, variable: 'entry', satisfies }
  }
  const found = operatorsFor(test.question).find(o => o.key === key)
  if (!found) return test
  const wanted = OPERATORS[found.key].operands
  return {
    ...test,
    operator: found.key,
    operands: wanted === 'many' ? test.operands : test.operands.slice(0, wanted),
  }
}
const wantedOf = (test: ConditionTest) => {
  const { operands } = OPERATORS[test.operator]
  return operands === 'many' ? 0 : operands
}
const isChosen = (test: ConditionTest, code: string) =>
  test.operands.some(o => o.kind === 'text' && o.value === code)
function toggle(test: ConditionTest, code: string): ConditionTest {
  const choices = questionOf(test.question)?.choices.map(c => c.code) ?? []
  const chosen = choices.filter(c => (c === code) !== isChosen(test, c))
  return { ...test, operands: chosen.map((value): Expr => ({ kind: 'text', value, ...HERE })) }
}
const isToday = (operand: Expr | undefined) => operand?.kind === 'call' && operand.name === 'today'
function operandText(operand: Expr | undefined): string {
  if (!operand) return ''
  if (operand.kind === 'number') return numberText(operand.value)
  return 'value' in operand && typeof operand.value === 'string' ? operand.value : print(operand)
}
function setOperand(test: ConditionTest, i: number, text: string): ConditionTest {
  const kind = questionOf(test.question)?.kind
  let operand: Expr | null = null
  if (text === 'today()') operand = { kind: 'call', name: 'today', args: [], ...HERE }
  else if (kind === 'date') operand = dayNumber(text) === null ? null : { kind: 'date', value: text, ...HERE }
  else if (kind === 'time' || kind === 'dateTime') {
    const value = kind === 'time' ? timeText(text) : dateTimeText(text)
    operand = value === null ? null : { kind, value, ...HERE }
  } else if (kind === 'number' || kind === 'codes' || kind === 'entries') {
    const value = numberFromText(text.trim().replace(',', '.'))
    operand = value === null ? null : { kind: 'number', value, ...HERE }
  } else operand = text === '' ? null : { kind: 'text', value: text, ...HERE }
  const operands = [...test.operands]
  if (operand) operands[i] = operand
  else operands.splice(i)
  return { ...test, operands }
}
</script>

<template>
  <div
    v-if="condition.kind === 'group'"
    ref="root"
    class="group"
    :class="{ nested }"
    role="group"
    aria-label="Parts of the condition"
  >
    <div class="row-flex">
      <v-select
        class="mode"
        :model-value="condition.mode"
        aria-label="How the parts count"
        :items="[
          { value: 'all', title: 'all of' },
          { value: 'any', title: 'any of' },
          { value: 'none', title: 'none of' },
        ]"
        @update:model-value="setMode($event)"
      />
      <v-btn
        v-if="nested"
        variant="text"
        @click="emit('remove')"
      >
        Remove these
      </v-btn>
    </div>
    <ConditionBuilder
      v-for="(part, i) in condition.parts"
      :key="i"
      :condition="part"
      :questions="questions"
      nested
      @change="setPart(i, $event)"
      @remove="removePart(i)"
    />
    <div class="row-flex">
      <v-btn
        variant="text"
        @click="addPart(firstTest())"
      >
        + part
      </v-btn>
      <v-btn
        variant="text"
        @click="
          addPart({ kind: 'group', mode: condition.mode === 'any' ? 'all' : 'any', parts: [firstTest()] })
        "
      >
        + parts within
      </v-btn>
    </div>
  </div>
  <EntriesPart
    v-else-if="condition.kind === 'entries'"
    :condition="condition"
    :questions="questions"
    @change="emit('change', $event)"
    @remove="emit('remove')"
  />
  <div
    v-else-if="condition.kind === 'text'"
    class="row-flex part"
  >
    <code>{{ condition.text }}</code>
    <span class="small quiet">edit this part as text</span>
    <IconButton
      :icon="mdiClose"
      name="Remove this part"
      @click="emit('remove')"
    />
  </div>
  <div
    v-else
    class="row-flex part"
  >
    <QuestionPicker
      :value="condition.question"
      :questions="questions"
      @choose="emit('change', chooseQuestion($event))"
    />
    <template v-if="condition.question">
      <v-select
        class="comparison"
        :model-value="condition.operator"
        aria-label="Comparison"
        :items="comparisonsFor(condition.question)"
        @update:model-value="emit('change', chooseOperator(condition, $event))"
      />
      <template v-if="OPERATORS[condition.operator].operands === 'many'">
        <v-btn
          v-for="c in questionOf(condition.question)?.choices ?? []"
          :key="c.code"
          variant="plain"
          class="chip"
          :aria-pressed="isChosen(condition, c.code)"
          @click="emit('change', toggle(condition, c.code))"
        >
          {{ c.label || c.code }}
        </v-btn>
      </template>
      <template
        v-for="i in wantedOf(condition)"
        :key="i"
      >
        <span
          v-if="i === 2"
          class="small quiet"
          >and</span
        >
        <span
          v-if="isToday(condition.operands[i - 1])"
          class="chip"
          aria-label="Value"
          >today</span
        >
        <DayField
          v-else-if="isDay(condition.question)"
          :model-value="operandText(condition.operands[i - 1])"
          name="Value"
          :with-time="questionOf(condition.question)?.kind === 'dateTime'"
          @update:model-value="emit('change', setOperand(condition, i - 1, $event))"
        />
        <v-text-field
          v-else
          class="value"
          :type="INPUTS[questionOf(condition.question)?.kind ?? 'text'] ?? 'text'"
          :model-value="operandText(condition.operands[i - 1])"
          aria-label="Value"
          @change="emit('change', setOperand(condition, i - 1, inputText($event)))"
        />
        <v-btn
          v-if="questionOf(condition.question)?.kind === 'date'"
          variant="text"
          @click="
            emit('change', setOperand(condition, i - 1, isToday(condition.operands[i - 1]) ? '' : 'today()'))
          "
        >
          {{ isToday(condition.operands[i - 1]) ? 'a date' : 'today' }}
        </v-btn>
      </template>
    </template>
    <IconButton
      :icon="mdiClose"
      name="Remove this part"
      @click="emit('remove')"
    />
  </div>
</template>

<style scoped>
.group {
  display: grid;
  gap: 6px;
}
.nested.group {
  border-left: 1px solid var(--verdigris);
  padding-left: 10px;
}
.mode {
  flex: 0 1 110px;
}
.comparison {
  flex: 0 1 230px;
  min-width: 190px;
}
.value {
  flex: 0 1 150px;
}
.chip {
  border: 1px solid var(--line);
  background: var(--paper);
  border-radius: 2px;
  padding: 2px 8px;
  font-size: 13px;
  cursor: pointer;
  min-height: 26px;
}
.chip[aria-pressed='true'] {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  font-weight: 600;
  border-color: var(--verdigris);
}
.chip[aria-pressed='true']::before {
  content: '✓';
  margin-right: 5px;
}
</style>
