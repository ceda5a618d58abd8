<script setup lang="ts">
import { MESSAGE_KINDS } from '#core/form/messageKinds'
import type { Place } from '#core/form/walk'

/** What is needed more rarely: placeholder, default, read-only, own messages, a place under a choice, the layout. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge: string | null] }>()
const draft = useDraft()
const node = computed(() => props.place.node)
const question = computed(() => (props.place.kind === 'question' ? props.place.node : null))
const isAsked = computed(
  () => question.value !== null && question.value.type !== 'value' && question.value.type !== 'hidden',
)
const kinds = computed(() => (question.value ? MESSAGE_KINDS[question.value.type] : []))
const LOOKED_UP: ReadonlySet<string> = new Set(['text', 'email', 'phone', 'url'])
const isLookedUp = computed(() => LOOKED_UP.has(question.value?.type ?? ''))
const hasDefault = computed(() => question.value !== null && question.value.type !== 'value')
const defaultText = computed(() =>
  question.value && 'default' in question.value ? question.value.default : undefined,
)
const wanted = computed(() => draft.names?.typeOf(props.place.code) ?? null)
const under = computed(() => ('under' in node.value ? node.value.under : undefined))
/** Choices of earlier questions in the same group that something can stand under. */
const spots = computed(() =>
  draft.places.flatMap(p => {
    if (
      p.kind !== 'question' ||
      p.order >= props.place.order ||
      p.section !== props.place.section ||
      p.groups.at(-1)?.order !== props.place.groups.at(-1)?.order
    )
      return []
    if (p.node.type !== 'choice' && p.node.type !== 'choices') return []
    return (p.node.options ?? []).map(o => ({
      question: p.code,
      option: o.code,
      words: `${p.number} ${p.node.label}: ${o.label}`,
    }))
  }),
)
const text = (key: string): string => {
  const value: unknown = Reflect.get(node.value, key)
  return typeof value === 'string' ? value : ''
}
function setUnder(at: number) {
  const spot = spots.value[at]
  emit('set', { under: spot ? { question: spot.question, option: spot.option } : null }, null)
}
const parties = computed(() => draft.form?.parties ?? [])
const seenBy = computed(() => {
  if (question.value?.officeOnly) return 'office'
  return question.value?.privateTo ? `party:${question.value.privateTo}` : ''
})
const setSeenBy = (value: string) =>
  emit(
    'set',
    {
      officeOnly: value === 'office' ? true : null,
      privateTo: value.startsWith('party:') ? value.slice(6) : null,
    },
    null,
  )
const readOnly = computed(() => ('readOnly' in node.value ? node.value.readOnly : undefined))
const canLock = computed(
  () => isAsked.value || props.place.kind === 'group' || props.place.kind === 'section',
)
</script>

<template>
  <template v-if="isAsked && question">
    <span class="left">Hint</span>
    <v-text-field
      :model-value="text('placeholder')"
      placeholder="shown in the empty field"
      aria-label="Placeholder"
      @input="emit('set', { placeholder: inputText($event) || null }, 'placeholder')"
    />
    <span class="left">If missing</span>
    <v-text-field
      :model-value="text('requiredMessage')"
      placeholder="This needs an answer."
      aria-label="Message when the answer is missing"
      @input="emit('set', { requiredMessage: inputText($event) || null }, 'requiredMessage')"
    />
  </template>
  <template v-if="question && kinds.length > 0">
    <span class="left">If wrong</span>
    <MessagesFields
      :kinds="kinds"
      :messages="'messages' in question ? question.messages : undefined"
      @change="(messages, merge) => emit('set', { messages }, merge)"
    />
  </template>
  <template v-if="question && isLookedUp">
    <span class="left">Looked up</span>
    <TableField
      :question="question"
      @change="(table, merge) => emit('set', { table }, merge)"
    />
  </template>
  <template v-if="hasDefault">
    <span class="left">Default</span>
    <ExpressionField
      words="Begins with"
      :text="defaultText"
      :place="place"
      :wanted="wanted"
      placeholder='a value or a calculation, such as "wood", 12 or today()'
      @change="emit('set', { default: $event }, 'default')"
    />
  </template>
  <template v-if="canLock">
    <span class="left">Read-only</span>
    <WhenField
      name="Read-only"
      words="Read-only when"
      :value="readOnly"
      :place="place"
      @change="emit('set', { readOnly: $event }, 'readOnly')"
    />
  </template>
  <template v-if="question && (parties.length > 0 || seenBy)">
    <span class="left">Seen by</span>
    <v-select
      aria-label="Seen by"
      :model-value="seenBy"
      :items="[
        { value: '', title: 'every party whose turn sees the section' },
        { value: 'office', title: 'the office only' },
        ...parties.map(p => ({ value: `party:${p.code}`, title: `${p.name || p.code} only` })),
      ]"
      @update:model-value="setSeenBy($event)"
    />
  </template>
  <template v-if="question">
    <span class="left">Personal</span>
    <v-checkbox
      :model-value="question.personal ?? false"
      label="tells of a person: can be taken out after some months, at Collect"
      @update:model-value="emit('set', { personal: $event ? true : null }, null)"
    />
  </template>
  <template v-if="place.kind !== 'section' && question?.type !== 'hidden' && (spots.length > 0 || under)">
    <span class="left">Stands</span>
    <v-select
      aria-label="Where it stands"
      :model-value="
        under ? spots.findIndex(s => s.question === under?.question && s.option === under?.option) : -1
      "
      :items="[
        { value: -1, title: 'in its place in the order' },
        ...spots.map((s, i) => ({ value: i, title: `right under ${s.words}` })),
      ]"
      @update:model-value="setUnder"
    />
  </template>
  <LayoutFields
    v-if="place.kind !== 'section' && question?.type !== 'hidden'"
    :place="place"
    @set="(values, merge) => emit('set', values, merge)"
  />
</template>
