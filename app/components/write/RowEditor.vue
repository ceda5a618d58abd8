<script setup lang="ts">
import { KEYWORDS } from '#core/expressions/parse'
import type { AnswerCheck } from '#core/form/fields'
import type { QuestionType } from '#core/form/questions'
import { freeCode, takenCodes } from '#core/form/codes'
import { retypeQuestion } from '#core/form/create'
import { renameEdits } from '#core/form/rename'
import { TYPES } from '#core/form/types'
import type { Address, Place } from '#core/form/walk'
import { TYPE_FIELDS } from './typeFields'

/** A row opened in place: everything that can be said of it. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ renamed: [address: Address]; move: [] }>()
const script = useScript()
const draft = useDraft()
const first = useTemplateRef<HTMLInputElement | HTMLTextAreaElement>('first')
const more = ref(false)
onMounted(() => first.value?.focus())

const question = computed(() => (props.place.kind === 'question' ? props.place.node : null))
const group = computed(() => (props.place.kind === 'group' ? props.place.node : null))
const labelKey = computed(
  () => ({ question: 'label', note: 'text', group: 'title', section: 'title' })[props.place.kind],
)
const label = computed(() =>
  props.place.kind === 'question'
    ? props.place.node.label
    : props.place.kind === 'note'
      ? props.place.node.text
      : props.place.node.title,
)
const valueOf = (event: Event) =>
  event.target instanceof HTMLInputElement ||
  event.target instanceof HTMLTextAreaElement ||
  event.target instanceof HTMLSelectElement
    ? event.target.value
    : ''
const set = (values: Record<string, unknown>, merge: string | null = null) =>
  draft.edit(
    [{ do: 'change', what: props.place.address, set: values }],
    merge && `${props.place.address}:${merge}`,
  )

/** Keys typed here are not the script's, but for undo, redo and Escape. */
function stay(event: KeyboardEvent) {
  if (event.key !== 'Escape' && !event.ctrlKey && !event.metaKey) event.stopPropagation()
}
const codeProblem = ref('')
function recode(event: Event) {
  const code = valueOf(event).trim()
  codeProblem.value = ''
  if (code === props.place.code || !draft.form) return
  if (!/^[a-z][a-z0-9_]{0,59}$/.test(code))
    codeProblem.value = 'A code has small letters, digits and “_”, and begins with a letter.'
  else if (KEYWORDS.has(code))
    codeProblem.value = `“${code}” belongs to the rule language; choose another code.`
  else if (takenCodes(draft.form, props.place.kind === 'section' ? 'section' : 'item').has(code))
    codeProblem.value = `“${code}” is taken; “${freeCode(code, takenCodes(draft.form, 'item'))}” is free.`
  else if (draft.edit(renameEdits(draft.form, props.place.address, code)))
    emit('renamed', `${props.place.kind === 'section' ? 'section' : 'item'}/${code}`)
}
const isType = (value: string): value is QuestionType => value in TYPES
function retype(event: Event) {
  const type = valueOf(event)
  if (isType(type) && question.value) set(retypeQuestion(question.value, type))
}
const isAsked = computed(
  () => question.value !== null && question.value.type !== 'value' && question.value.type !== 'hidden',
)
const required = computed(() =>
  question.value && 'required' in question.value ? question.value.required : undefined,
)
const checks = computed((): AnswerCheck[] =>
  'validWhen' in props.place.node ? (props.place.node.validWhen ?? []) : [],
)
const help = computed(() => (question.value && 'help' in question.value ? (question.value.help ?? '') : ''))
const choice = computed(() =>
  question.value?.type === 'choice' || question.value?.type === 'choices' ? question.value : null,
)
const withOptions = computed(
  () =>
    choice.value ??
    (question.value?.type === 'ranking' || question.value?.type === 'grid' ? question.value : null),
)
const tone = computed(() => (props.place.kind === 'note' ? (props.place.node.tone ?? 'advice') : ''))
const lists = computed(() => draft.form?.lists ?? [])
function setRepeat(key: 'min' | 'max' | 'heading' | 'add', text: string) {
  const { [key]: _, ...rest } = group.value?.repeat ?? {}
  const value = text.trim() === '' ? undefined : key === 'min' || key === 'max' ? Number(text) : text
  if (typeof value !== 'number' || Number.isInteger(value))
    set({ repeat: value === undefined ? rest : { ...rest, [key]: value } }, `repeat-${key}`)
}
</script>

<template>
  <div
    class="editor"
    @keydown="stay"
  >
    <label :for="`label-${place.address}`">{{
      place.kind === 'note' ? 'Text' : place.kind === 'question' ? 'Label' : 'Title'
    }}</label>
    <textarea
      v-if="place.kind === 'note'"
      :id="`label-${place.address}`"
      ref="first"
      class="field"
      rows="2"
      :value="label"
      @input="set({ [labelKey]: valueOf($event) }, 'label')"
    />
    <input
      v-else
      :id="`label-${place.address}`"
      ref="first"
      class="field"
      :value="label"
      maxlength="500"
      @input="set({ [labelKey]: valueOf($event) }, 'label')"
    />

    <label :for="`code-${place.address}`">Code</label>
    <div class="row-flex">
      <input
        :id="`code-${place.address}`"
        class="field code"
        :value="place.code"
        maxlength="60"
        spellcheck="false"
        @change="recode"
      />
      <template v-if="question">
        <label
          :for="`type-${place.address}`"
          class="small quiet"
          >Type</label
        >
        <select
          :id="`type-${place.address}`"
          class="field"
          :value="question.type"
          @change="retype"
        >
          <option
            v-for="(entry, key) in TYPES"
            :key="key"
            :value="key"
          >
            {{ entry.words }}
          </option>
        </select>
      </template>
      <label
        v-if="place.kind === 'note'"
        class="small quiet"
        >Tone
        <select
          class="field"
          :value="tone"
          @change="set({ tone: valueOf($event) === 'advice' ? null : valueOf($event) })"
        >
          <option value="plain">plain</option>
          <option value="advice">advice</option>
          <option value="warning">warning</option>
        </select></label
      >
      <span
        v-if="codeProblem"
        class="small fault"
        role="alert"
        >{{ codeProblem }}</span
      >
    </div>

    <template v-if="question?.type === 'grid'">
      <span class="left">Rows</span>
      <OptionsEditor
        :question="question"
        field="rows"
        :address="place.address"
        :place="place"
      />
    </template>
    <template v-if="withOptions">
      <span class="left">{{ question?.type === 'grid' ? 'Scale' : 'Choices' }}</span>
      <div class="stack">
        <label
          v-if="choice && lists.length > 0"
          class="small quiet"
          >from
          <select
            class="field"
            :value="choice.list ?? ''"
            aria-label="Where the choices come from"
            @change="
              set(
                valueOf($event)
                  ? { list: valueOf($event), options: null }
                  : { list: null, narrowedBy: null, options: [] },
              )
            "
          >
            <option value="">options of its own</option>
            <option
              v-for="l in lists"
              :key="l.code"
              :value="l.code"
            >
              the list {{ l.title || l.code }}
            </option>
          </select></label
        >
        <OptionsEditor
          :question="withOptions"
          field="options"
          :address="place.address"
          :place="place"
        />
        <NuxtLink
          v-if="choice?.list"
          class="small"
          :to="{ query: { view: 'lists', list: choice.list } }"
          >Open the list</NuxtLink
        >
        <label
          v-if="choice?.list"
          class="small"
          ><input
            type="checkbox"
            :checked="choice.onlyOne === true"
            @change="set({ onlyOne: choice.onlyOne ? null : true })"
          />
          the only one left is chosen unasked</label
        >
        <NarrowField
          v-if="choice?.list"
          :question="choice"
          :place="place"
          @change="set({ narrowedBy: $event }, 'narrowedBy')"
        />
      </div>
    </template>
    <template v-if="question?.type === 'value'">
      <span class="left">Value</span>
      <ExpressionField
        words="Is"
        :text="question.value"
        :place="place"
        :wanted="null"
        placeholder="if loa > 12 then 480 else 310"
        @change="set({ value: $event ?? '' }, 'value')"
      />
    </template>
    <template v-if="question && question.type !== 'hidden'">
      <label :for="`help-${place.address}`">Help</label>
      <input
        :id="`help-${place.address}`"
        class="field"
        :value="help"
        placeholder="A line under the label"
        @input="set({ help: valueOf($event) || null }, 'help')"
      />
    </template>
    <template v-if="question && TYPE_FIELDS[question.type].length > 0">
      <span class="left">Details</span>
      <TypeFields
        :question="question"
        @set="set"
      />
    </template>
    <template v-if="question?.type === 'text'">
      <span class="left">Pattern</span>
      <PatternField
        :pattern="question.pattern"
        :message="question.patternMessage"
        @set="set($event, 'pattern')"
      />
    </template>
    <template v-if="group">
      <span class="left">Repeats</span>
      <div class="row-flex">
        <label class="small"
          ><input
            type="checkbox"
            :checked="group.repeat !== undefined"
            @change="set({ repeat: group.repeat ? null : {} })"
          />
          in entries</label
        >
        <template v-if="group.repeat">
          <label class="small quiet"
            >least
            <input
              class="field number"
              :value="group.repeat.min ?? ''"
              inputmode="numeric"
              @change="setRepeat('min', valueOf($event))"
          /></label>
          <label class="small quiet"
            >most
            <input
              class="field number"
              :value="group.repeat.max ?? ''"
              inputmode="numeric"
              @change="setRepeat('max', valueOf($event))"
          /></label>
          <label class="small quiet"
            >heading
            <input
              class="field"
              :value="group.repeat.heading ?? ''"
              placeholder="may quote: {{ code }}"
              @change="setRepeat('heading', valueOf($event))"
          /></label>
          <label class="small quiet"
            >button
            <input
              class="field"
              :value="group.repeat.add ?? ''"
              placeholder="Add an engine"
              @change="setRepeat('add', valueOf($event))"
          /></label>
        </template>
      </div>
    </template>

    <span class="left">Shown</span>
    <RuleField
      words="Shown when"
      :text="place.node.shownWhen"
      :place="place"
      :except="question?.code ?? null"
      @change="set({ shownWhen: $event }, 'shownWhen')"
    >
      <template #none><span class="small quiet">always</span></template>
    </RuleField>

    <template v-if="isAsked">
      <span class="left">Required</span>
      <WhenField
        name="Required"
        words="Required when"
        :always="place.node.shownWhen === undefined ? 'always' : 'when shown'"
        :value="required"
        :place="place"
        @change="set({ required: $event }, 'required')"
      />
    </template>
    <template v-if="isAsked || group || place.kind === 'section'">
      <span class="left">Valid</span>
      <ChecksEditor
        :checks="checks"
        :place="place"
        @change="(next, merge) => set({ validWhen: next.length > 0 ? next : null }, merge)"
      />
    </template>
    <template v-if="place.kind === 'section'">
      <span class="left">Leads to</span>
      <RoutesEditor
        :place="place"
        @change="set({ routes: $event })"
      />
    </template>

    <span class="left" />
    <button
      class="text-button"
      :aria-expanded="more"
      @click="more = !more"
    >
      {{ more ? 'Less' : 'More: default, read-only, hint, place' }}
    </button>
    <MoreFields
      v-if="more"
      :place="place"
      @set="set"
    />
    <span class="left" />
    <div class="row-flex acts">
      <button
        class="text-button"
        @click="script.duplicate()"
      >
        Duplicate
      </button>
      <button
        v-if="place.kind === 'section' && place.section > 0"
        class="text-button"
        @click="script.merge()"
      >
        Merge with the section above
      </button>
      <button
        v-if="place.kind !== 'section' && place.groups.length === 0"
        class="text-button"
        @click="script.split()"
      >
        Begin a new section here
      </button>
      <button
        class="text-button"
        @click="emit('move')"
      >
        Move to…
      </button>
      <button
        class="text-button"
        @click="script.remove([place.address])"
      >
        Delete
      </button>
    </div>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 8px 12px;
  padding: 10px 16px 14px 104px;
  background: var(--paper);
  border-bottom: 1px solid var(--verdigris);
  align-items: start;
}
.editor > label,
.editor :deep(.left) {
  color: var(--slate);
  font-size: 13px;
  padding-top: 5px;
}
.stack {
  display: grid;
  gap: 6px;
}
.number {
  width: 56px;
}
.acts {
  border-top: 1px dotted var(--line);
  padding-top: 6px;
  gap: 4px 14px;
}
</style>
