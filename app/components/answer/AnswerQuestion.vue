<script setup lang="ts">
import type { Answer } from '#core/fill/answers'
import type { Filled } from '#core/fill/fill'
import { problemOf } from '#core/fill/fill'
import type { PlannedQuestion } from '#core/fill/plan'
import { rowsOf } from '#core/form/walk'

/** One question as the respondent meets it. */
const props = defineProps<{ question: PlannedQuestion, filled: Filled, answer: Answer | undefined, tried: boolean, lit: boolean, prefix: string }>()
const emit = defineEmits<{ answer: [value: Answer] }>()
const MOST_RADIOS = 8

const node = computed(() => props.question.place.node)
const left = ref(false)
const afterPointer = useAfterPointer()
const leave = () => afterPointer(() => { left.value = true })
const problem = computed(() => {
  const found = problemOf(props.filled, props.question)
  return found && (props.tried || (left.value && found.kind !== 'missing')) ? found.sentence : null
})
const required = computed(() => props.filled.required[props.question.slot] === true)
const id = computed(() => `${props.prefix}-${node.value.code}`)
const value = computed<Answer>(() => props.answer ?? null)
const rows = computed(() => node.value.type === 'choice' ? rowsOf(props.filled.plan.form, node.value) ?? [] : [])
const radios = computed(() => node.value.type === 'yesNo' ? [{ value: true, label: 'Yes' }, { value: false, label: 'No' }] : rows.value.map(r => ({ value: r.code, label: r.label })))
const asRadios = computed(() => node.value.type === 'yesNo' || (node.value.type === 'choice' && rows.value.length <= MOST_RADIOS))
const describedby = computed(() => [node.value.help ? `${id.value}-help` : '', problem.value ? `${id.value}-wrong` : ''].filter(Boolean).join(' ') || undefined)
const unit = computed(() => 'unit' in node.value ? node.value.unit : undefined)
const textOf = (event: Event) => event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement || event.target instanceof HTMLTextAreaElement ? event.target.value : ''
</script>

<template>
  <fieldset v-if="asRadios" :id="`${id}-box`" class="question" :class="{ lit, two: node.type === 'yesNo' }" :aria-describedby="describedby" :aria-invalid="problem ? true : undefined" role="radiogroup" :aria-required="required || undefined">
    <legend>{{ node.label }} <span v-if="!required" class="optional">optional</span></legend>
    <p v-if="node.help" :id="`${id}-help`" class="help">{{ node.help }}</p>
    <div class="radios">
      <label v-for="(r, i) in radios" :key="String(r.value)" :class="{ chosen: value === r.value }">
        <input :id="i === 0 ? id : undefined" type="radio" :name="id" :checked="value === r.value" @change="left = true; emit('answer', r.value)">
        <span>{{ r.label }}</span>
      </label>
    </div>
    <button v-if="!required && value !== null" type="button" class="text-button" @click="emit('answer', null)">Clear the answer</button>
    <p v-if="problem" :id="`${id}-wrong`" class="wrong">{{ problem }}</p>
  </fieldset>
  <div v-else :id="`${id}-box`" class="question" :class="{ lit }">
    <label :for="id">{{ node.label }} <span v-if="!required" class="optional">optional</span><span v-if="unit" class="hidden-words">, in {{ unit }}</span></label>
    <p v-if="node.help" :id="`${id}-help`" class="help">{{ node.help }}</p>
    <AnswerNumber v-if="node.type === 'integer' || node.type === 'decimal'" :id="id" :value="value" :unit="unit" :describedby="describedby" :invalid="!!problem" :required="required" @answer="emit('answer', $event)" @left="leave" />
    <select v-else-if="node.type === 'choice'" :id="id" class="box" :class="{ invalid: problem }" :value="value ?? ''" :aria-describedby="describedby" :aria-invalid="problem ? true : undefined" :aria-required="required || undefined" @change="emit('answer', textOf($event) || null)" @blur="leave">
      <option value="">Choose …</option>
      <option v-for="r in rows" :key="r.code" :value="r.code">{{ r.label }}</option>
    </select>
    <input v-else :id="id" class="box" :class="{ invalid: problem, day: node.type === 'date' }" :type="node.type === 'date' ? 'date' : 'text'" :value="value ?? ''" :placeholder="node.placeholder" :aria-describedby="describedby" :aria-invalid="problem ? true : undefined" :aria-required="required || undefined" @input="emit('answer', textOf($event) || null)" @blur="leave">
    <p v-if="problem" :id="`${id}-wrong`" class="wrong">{{ problem }}</p>
  </div>
</template>

<style scoped>
.question { min-width: 0; scroll-margin-top: 24px; }
.question.lit { outline: 2px dashed var(--verdigris); outline-offset: 8px; }
label, legend { font-weight: 600; font-size: 16px; display: block; padding: 0; }
.optional { font-weight: 400; font-size: 13px; color: var(--slate); margin-left: 4px; }
.help { color: var(--slate); font-size: 14px; margin-top: 2px; }
.box, .number-box, .radios { margin-top: 8px; }
.box { display: block; width: 100%; box-sizing: border-box; min-height: 44px; padding: 10px 14px; border: 1px solid var(--control-line); border-radius: 2px; background: var(--paper); }
.box.day { width: 220px; max-width: 100%; }
.box.invalid { border: 2px solid var(--madder); }
.radios { display: grid; }
.radios label { display: flex; gap: 12px; align-items: center; font-weight: 400; font-size: 15px; min-height: 44px; padding: 4px 14px; border: 1px solid var(--control-line); margin-top: -1px; background: var(--paper); cursor: pointer; box-sizing: border-box; }
.radios label.chosen { background: var(--verdigris-wash); border-color: var(--verdigris); position: relative; z-index: 1; }
.radios label:has(:focus-visible) { outline: 2px solid var(--woad); outline-offset: 1px; z-index: 2; position: relative; }
.radios input { width: 18px; height: 18px; accent-color: var(--verdigris); margin: 0; flex: none; }
.radios input:focus-visible { outline: none; }
.two .radios { grid-template-columns: 1fr 1fr; max-width: 360px; }
.two .radios label + label { margin-left: -1px; }
.wrong { color: var(--madder); font-weight: 600; font-size: 14px; margin-top: 6px; }
</style>
