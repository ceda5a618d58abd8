<script setup lang="ts">
import { KEYWORDS } from '#core/expressions/parse'
import { FINISH, type QuestionType, type Route, type Check } from '#core/form/definition'
import { freeCode, takenCodes } from '#core/form/codes'
import { retyped } from '#core/form/create'
import { renameEdits } from '#core/form/rename'
import { TYPES } from '#core/form/types'
import type { Address, Place } from '#core/form/walk'

/** A row opened in place: everything that can be said of it. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ renamed: [address: Address] }>()
const draft = useDraft()
const first = useTemplateRef<HTMLInputElement | HTMLTextAreaElement>('first')
onMounted(() => first.value?.focus())

const question = computed(() => props.place.kind === 'question' ? props.place.node : null)
const labelKey = computed(() => ({ question: 'label', note: 'text', group: 'title', section: 'title' })[props.place.kind])
const label = computed(() => props.place.kind === 'question' ? props.place.node.label : props.place.kind === 'note' ? props.place.node.text : props.place.node.title)
const valueOf = (event: Event) => event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement || event.target instanceof HTMLSelectElement ? event.target.value : ''
const set = (values: Record<string, unknown>, merge: string | null = null) => draft.edit([{ do: 'change', what: props.place.address, set: values }], merge && `${props.place.address}:${merge}`)

/** Keys typed here are not the script's, but for undo, redo and Escape. */
function stay(event: KeyboardEvent) {
  if (event.key !== 'Escape' && !event.ctrlKey && !event.metaKey) event.stopPropagation()
}
const codeProblem = ref('')
function recode(event: Event) {
  const code = valueOf(event).trim()
  codeProblem.value = ''
  if (code === props.place.code || !draft.form) return
  if (!/^[a-z][a-z0-9_]{0,59}$/.test(code)) codeProblem.value = 'A code has small letters, digits and “_”, and begins with a letter.'
  else if (KEYWORDS.has(code)) codeProblem.value = `“${code}” belongs to the rule language; choose another code.`
  else if (takenCodes(draft.form, props.place.kind === 'section' ? 'section' : 'item').has(code)) codeProblem.value = `“${code}” is taken; “${freeCode(code, takenCodes(draft.form, 'item'))}” is free.`
  else if (draft.edit(renameEdits(draft.form, props.place.address, code))) emit('renamed', `${props.place.kind === 'section' ? 'section' : 'item'}/${code}`)
}
const isType = (value: string): value is QuestionType => value in TYPES
function retype(event: Event) {
  const type = valueOf(event)
  if (isType(type)) set(retyped(type))
}
const requiredMode = computed(() => !question.value?.required ? 'never' : question.value.required === true ? 'always' : 'when')
function setRequired(mode: string) {
  set({ required: mode === 'never' ? null : mode === 'always' ? true : requiredMode.value === 'when' ? question.value?.required : '' })
}
const checks = computed(() => question.value?.validWhen ?? [])
const setChecks = (next: Check[], merge: string | null = null) => set({ validWhen: next.length > 0 ? next : null }, merge)
const routes = computed(() => props.place.kind === 'section' ? props.place.node.routes ?? [] : [])
const setRoutes = (next: Route[]) => set({ routes: next.length > 0 ? next : null })
const laterSections = computed(() => draft.form?.sections.slice(props.place.section + 1) ?? [])

/** The limits of a type, as fields. */
const LIMIT_FIELDS: Record<QuestionType, { key: string, words: string, type: 'number' | 'date' | 'text' }[]> = {
  text: [{ key: 'minLength', words: 'least letters', type: 'number' }, { key: 'maxLength', words: 'most letters', type: 'number' }],
  integer: [{ key: 'min', words: 'least', type: 'number' }, { key: 'max', words: 'most', type: 'number' }, { key: 'unit', words: 'unit', type: 'text' }],
  decimal: [{ key: 'min', words: 'least', type: 'number' }, { key: 'max', words: 'most', type: 'number' }, { key: 'decimals', words: 'digits after the point', type: 'number' }, { key: 'unit', words: 'unit', type: 'text' }],
  yesNo: [], choice: [],
  date: [{ key: 'min', words: 'first day', type: 'date' }, { key: 'max', words: 'last day', type: 'date' }],
}
const limitOf = (key: string): string => {
  const value: unknown = question.value ? Reflect.get(question.value, key) : undefined
  return value === undefined ? '' : String(value)
}
function setLimit(key: string, type: string, text: string) {
  const value = text.trim() === '' ? null : type === 'number' ? Number(text) : text
  if (typeof value !== 'number' || Number.isFinite(value)) set({ [key]: value })
}
</script>

<template>
  <div class="editor" @keydown="stay">
    <label :for="`label-${place.address}`">{{ place.kind === 'note' ? 'Text' : place.kind === 'question' ? 'Label' : 'Title' }}</label>
    <textarea v-if="place.kind === 'note'" :id="`label-${place.address}`" ref="first" class="field" rows="2" :value="label" @input="set({ [labelKey]: valueOf($event) }, 'label')" />
    <input v-else :id="`label-${place.address}`" ref="first" class="field" :value="label" maxlength="500" @input="set({ [labelKey]: valueOf($event) }, 'label')">

    <label :for="`code-${place.address}`">Code</label>
    <div class="row-flex">
      <input :id="`code-${place.address}`" class="field code" :value="place.code" maxlength="60" spellcheck="false" @change="recode">
      <template v-if="question">
        <label :for="`type-${place.address}`" class="small quiet">Type</label>
        <select :id="`type-${place.address}`" class="field" :value="question.type" @change="retype">
          <option v-for="(entry, key) in TYPES" :key="key" :value="key">{{ entry.words }}</option>
        </select>
      </template>
      <span v-if="codeProblem" class="small fault" role="alert">{{ codeProblem }}</span>
    </div>

    <template v-if="question?.type === 'choice'">
      <span class="left">Choices</span>
      <OptionsEditor :question="question" :address="place.address" />
    </template>
    <template v-if="question">
      <label :for="`help-${place.address}`">Help</label>
      <input :id="`help-${place.address}`" class="field" :value="question.help ?? ''" placeholder="A line under the label" @input="set({ help: valueOf($event) || null }, 'help')">
      <template v-if="LIMIT_FIELDS[question.type].length > 0">
        <span class="left">Limits</span>
        <div class="row-flex">
          <template v-for="l in LIMIT_FIELDS[question.type]" :key="l.key">
            <label class="small quiet">{{ l.words }} <input class="field limit" :type="l.type" step="any" :value="limitOf(l.key)" @change="setLimit(l.key, l.type, valueOf($event))"></label>
          </template>
        </div>
      </template>
    </template>

    <span class="left">Shown</span>
    <RuleField words="Shown when" :text="place.node.shownWhen" :section="place.section" :except="question?.code ?? null" @change="set({ shownWhen: $event }, 'shownWhen')">
      <template #none><span class="small quiet">always</span></template>
    </RuleField>

    <template v-if="question">
      <span class="left">Required</span>
      <div>
        <div class="modes" role="radiogroup" aria-label="Required">
          <button v-for="m in ['never', 'always', 'when']" :key="m" role="radio" :aria-checked="requiredMode === m" @click="setRequired(m)">{{ m === 'when' ? 'when …' : m }}</button>
        </div>
        <RuleField v-if="typeof question.required === 'string'" words="Required when" :text="question.required === '' ? undefined : question.required" :section="place.section" @change="set({ required: $event ?? null }, 'required')" />
      </div>
      <span class="left">Valid</span>
      <div class="checks">
        <div v-for="(c, i) in checks" :key="i" class="check">
          <RuleField words="Valid when" :text="c.rule === '' ? undefined : c.rule" :section="place.section" @change="setChecks($event === null ? checks.toSpliced(i, 1) : checks.toSpliced(i, 1, { ...c, rule: $event }), `check${i}`)" />
          <input class="field" :value="c.message" :aria-label="`Message of check ${i + 1}`" placeholder="What to say when it is not" @input="setChecks(checks.toSpliced(i, 1, { ...c, message: valueOf($event) }), `message${i}`)">
        </div>
        <button class="text-button" @click="setChecks([...checks, { rule: '', message: '' }])">+ check</button>
      </div>
    </template>

    <template v-if="place.kind === 'section'">
      <span class="left">Leads to</span>
      <div class="checks">
        <div v-for="(r, i) in routes" :key="i" class="check">
          <div class="row-flex">
            <span class="small quiet">{{ i + 1 }}. to</span>
            <select class="field" :value="r.to" :aria-label="`Destination of route ${i + 1}`" @change="setRoutes(routes.toSpliced(i, 1, { ...r, to: valueOf($event) }))">
              <option v-if="r.to !== FINISH && !laterSections.some(s => s.code === r.to)" :value="r.to">{{ r.to }} (not a later section)</option>
              <option v-for="s in laterSections" :key="s.code" :value="s.code">{{ s.title || s.code }}</option>
              <option :value="FINISH">the finish</option>
            </select>
            <button class="text-button" @click="setRoutes(routes.toSpliced(i, 1))">Remove</button>
          </div>
          <RuleField words="Taken when" :text="r.when" :section="place.section" @change="setRoutes(routes.toSpliced(i, 1, $event === null ? { to: r.to } : { when: $event, to: r.to }))">
            <template #none><span class="small quiet">always taken</span></template>
          </RuleField>
        </div>
        <div class="row-flex">
          <span v-if="routes.length === 0" class="small quiet">the next section</span>
          <button class="text-button" @click="setRoutes([...routes, { to: FINISH }])">+ route</button>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.editor { display: grid; grid-template-columns: 92px minmax(0, 1fr); gap: 8px 12px; padding: 10px 16px 14px 104px; background: var(--paper); border-bottom: 1px solid var(--verdigris); align-items: start; }
.editor > label, .left { color: var(--slate); font-size: 13px; padding-top: 5px; }
.limit { width: 96px; } .limit[type='date'] { width: 136px; }
.checks, .check { display: grid; gap: 6px; }
.check { border-left: 1px solid var(--line); padding-left: 10px; }
.modes { display: inline-flex; border: 1px solid var(--line); border-radius: 2px; margin-bottom: 4px; }
.modes button { border: 0; background: none; padding: 2px 12px; font-size: 13px; cursor: pointer; min-height: 28px; }
.modes button[aria-checked='true'] { background: var(--ink); color: var(--paper); }
</style>
