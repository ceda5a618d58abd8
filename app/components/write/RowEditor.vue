<script setup lang="ts">
import { hasOptions } from '#core/form/questions'
import type { AnswerCheck } from '#core/form/fields'
import { nodeText, type Address, type Place } from '#core/form/walk'
import { TYPE_FIELDS } from './typeFields'

/** A row opened in place: everything that can be said of it. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ renamed: [address: Address]; move: [] }>()
const draft = useDraft()
const first = useTemplateRef('first')
const more = ref(false)
onMounted(() => first.value?.focus())

const question = computed(() => (props.place.kind === 'question' ? props.place.node : null))
const group = computed(() => (props.place.kind === 'group' ? props.place.node : null))
const labelKey = computed(() => nodeText(props.place.node).key)
const LABEL_WORDS = { text: 'Text', label: 'Label', title: 'Title' } as const
const label = computed(() => nodeText(props.place.node).text)
const set = (values: Record<string, unknown>, merge: string | null = null) =>
  draft.edit(
    [{ do: 'change', what: props.place.address, set: values }],
    merge && `${props.place.address}:${merge}`,
  )

/** Keys typed here are not the script's, but for undo, redo and Escape. */
function stay(event: KeyboardEvent) {
  if (event.key !== 'Escape' && !event.ctrlKey && !event.metaKey) event.stopPropagation()
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
const withOptions = computed(() => (question.value && hasOptions(question.value) ? question.value : null))
</script>

<template>
  <div
    class="editor"
    @keydown="stay"
  >
    <label :for="`label-${place.address}`">{{ LABEL_WORDS[labelKey] }}</label>
    <QuotableField
      :id="`label-${place.address}`"
      ref="first"
      :model-value="label"
      :place="place"
      :except="place"
      :multiline="place.kind === 'note'"
      :rows="place.kind === 'note' ? 2 : undefined"
      :maxlength="place.kind === 'note' ? undefined : 500"
      @write="set({ [labelKey]: $event }, 'label')"
    />

    <RowIdentity
      :place="place"
      @set="set"
      @renamed="emit('renamed', $event)"
    />
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
      <ChoicesField
        :question="withOptions"
        :place="place"
        @set="set"
      />
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
      <QuotableField
        :id="`help-${place.address}`"
        :model-value="help"
        :place="place"
        :except="place"
        placeholder="A line under the label"
        @write="set({ help: $event || null }, 'help')"
      />
    </template>
    <template v-if="question && TYPE_FIELDS[question.type].length > 0">
      <span class="left">Details</span>
      <TypeFields
        :question="question"
        @set="set"
      />
    </template>
    <BoundsFields
      v-if="place.kind === 'question'"
      :place="place"
      @set="set"
    />
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
      <RepeatFields
        :group="group"
        @set="set"
      />
    </template>

    <span class="left">Shown</span>
    <RuleField
      words="Shown when"
      :text="place.node.shownWhen"
      :place="place"
      :except="place"
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
    <template v-if="place.kind === 'question' && isAsked">
      <span class="left">Goes on</span>
      <SkipsEditor
        :place="place"
        @change="set({ skips: $event })"
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
    <v-btn
      v-if="draft.canEdit"
      variant="text"
      :aria-expanded="more"
      @click="more = !more"
    >
      {{ more ? 'Less' : 'More: default, read-only, hint, messages, personal, place' }}
    </v-btn>
    <MoreFields
      v-if="more || !draft.canEdit"
      :place="place"
      @set="set"
    />
    <span class="left" />
    <RowActs
      :place="place"
      @move="emit('move')"
    />
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
</style>
