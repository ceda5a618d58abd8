<script setup lang="ts">
import type { ATTACHED, DeliveryAct } from '#core/form/deliveries'
import type { Place } from '#core/form/walk'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { withNamed } from './deliveryWords'

/** What is done, in its parts. */
const props = defineProps<{
  act: DeliveryAct
  place: Place
  emails: readonly { value: string; title: string }[]
  number: number
}>()
const emit = defineEmits<{ change: [act: DeliveryAct, merge: string] }>()
const put = (part: object, merge: string) => {
  const whole: DeliveryAct = Object.assign({}, props.act, part)
  emit('change', whole, merge)
}
const name = (part: string) => `Number ${props.number}: ${part}`
const message = computed(() => (props.act.do === 'message' ? props.act : null))
const hook = computed(() => (props.act.do === 'hook' ? props.act : null))
const tray = computed(() => (props.act.do === 'tray' ? props.act : null))
const next = computed(() => (props.act.do === 'nextForm' ? props.act : null))
const draft = useDraft()
/** The other forms that somebody sees, and the trays of this one, where they may see those. */
const { data: listed } = useLazyAsyncData('forms-to-go-on-with', () => callApi(API.listForms), {
  server: false,
})
const forms = computed(() => (listed.value ?? []).map(f => ({ value: f.code, title: f.title || f.code })))
const { data: workbench } = useLazyAsyncData(
  `trays-of-${draft.id}`,
  async () => (draft.may('responses') ? callApi(API.loadWorkbench, { params: { id: draft.id } }) : null),
  { server: false },
)
const trays = computed(() => (workbench.value?.trays ?? []).map(t => ({ value: t.name, title: t.name })))
const ATTACHABLE = [
  { what: 'copy', words: 'the answers attached as a PDF' },
  { what: 'files', words: 'the files that were given attached' },
  { what: 'documents', words: 'its documents attached as PDF files' },
] as const
function attach(what: (typeof ATTACHED)[number], isMeant: boolean) {
  const others = (message.value?.attached ?? []).filter(other => other !== what)
  const attached = isMeant ? [...others, what] : others
  put({ attached: attached.length > 0 ? attached : undefined }, 'attached')
}
/** Answers that are carried over, a line each: `into = from`. */
const carried = computed(() =>
  Object.entries(next.value?.carry ?? {})
    .map(([into, from]) => `${into} = ${from}`)
    .join('\n'),
)
const LINE = /^\s*([a-z][a-z0-9_]*)\s*=\s*([a-z][a-z0-9_]*)\s*$/
function setCarried(text: string) {
  const pairs = text.split('\n').flatMap(line => {
    const [, into, from] = LINE.exec(line) ?? []
    return into && from ? [[into, from] as const] : []
  })
  put({ carry: pairs.length > 0 ? Object.fromEntries(pairs) : undefined }, 'carry')
}
</script>

<template>
  <RecipientField
    v-if="'to' in act"
    :to="act.to"
    :emails="emails"
    :number="number"
    @change="put({ to: $event }, 'to')"
  />
  <template v-if="message">
    <label class="wide"
      >Subject
      <QuotableField
        :place="place"
        :model-value="message.subject"
        :aria-label="name('subject')"
        @write="put({ subject: $event }, 'subject')"
    /></label>
    <label class="wide"
      >Text
      <QuotableField
        multiline
        :place="place"
        rows="4"
        :model-value="message.text"
        :aria-label="name('text')"
        @write="put({ text: $event }, 'text')"
    /></label>
    <v-checkbox
      :model-value="message.copy === true"
      label="with a copy of the answers below"
      @update:model-value="put({ copy: $event ? true : undefined }, 'copy')"
    />
    <v-checkbox
      v-for="{ what, words } in ATTACHABLE"
      :key="what"
      :model-value="message.attached?.includes(what) ?? false"
      :label="words"
      @update:model-value="attach(what, $event === true)"
    />
  </template>
  <template v-else-if="hook">
    <label class="wide"
      >Address
      <v-text-field
        :model-value="hook?.address"
        placeholder="https://receiver.example/jobs"
        :aria-label="name('address')"
        maxlength="500"
        @change="put({ address: inputText($event) }, 'address')"
    /></label>
    <label class="wide"
      >JSON; without it, the answers as they are stored
      <QuotableField
        multiline
        :place="place"
        rows="3"
        :model-value="hook?.body ?? ''"
        :aria-label="name('JSON')"
        @write="put({ body: $event === '' ? undefined : $event }, 'body')"
    /></label>
  </template>
  <label v-else-if="tray"
    >Into which tray
    <v-select
      v-if="trays.length > 0"
      :model-value="tray.tray"
      :items="withNamed(trays, tray.tray)"
      :aria-label="name('into which tray')"
      @update:model-value="put({ tray: $event }, 'tray')" />
    <v-text-field
      v-else
      :model-value="tray.tray"
      :aria-label="name('into which tray')"
      maxlength="80"
      @change="put({ tray: inputText($event) }, 'tray')"
  /></label>
  <template v-else-if="next">
    <label
      >Which form
      <v-select
        :model-value="next.form"
        :items="withNamed(forms, next.form)"
        :aria-label="name('which form')"
        @update:model-value="put({ form: $event }, 'form')"
    /></label>
    <label class="wide"
      >Text
      <QuotableField
        multiline
        :place="place"
        rows="3"
        :model-value="next.text"
        :aria-label="name('text')"
        @write="put({ text: $event }, 'text')"
    /></label>
    <label class="wide"
      >Carried over: a line for each hidden question there, as “berth = berth_no”
      <v-textarea
        :model-value="carried"
        rows="2"
        :aria-label="name('carried over')"
        @change="setCarried(inputText($event))"
    /></label>
  </template>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
  font-size: 13px;
}
.wide {
  grid-column: 1 / -1;
}
</style>
