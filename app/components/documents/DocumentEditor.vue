<script setup lang="ts">
import { mdiClose, mdiDownloadOutline } from '@mdi/js'
import type { FormDocument } from '#core/form/documents'
import { tagsOf } from '#core/documents/templateTags'
import { deliveredText, holds } from '#core/parties/deliveries'
import { turnName } from '#core/parties/turns'

/** One document: its template, when it is made, and what its file is called. */
const props = defineProps<{ document: FormDocument; number: number }>()
const emit = defineEmits<{ change: [document: FormDocument, merge: string]; remove: [] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const turns = computed(() => draft.form?.turns ?? [])
const SIGNED = '#signed'
/** When it is made: at the end, when one of the turns is handed on, or when it is signed. */
const moments = computed(() => [
  { value: '', title: 'the response is done' },
  { value: SIGNED, title: 'it is signed' },
  ...turns.value.map(t => ({
    value: t.code,
    title: `“${draft.form ? turnName(draft.form, t) : t.code}” is handed on`,
  })),
])
const moment = computed(() => {
  if (props.document.on === 'signed') return SIGNED
  return props.document.on === 'done' ? '' : (props.document.turn ?? '')
})
/** A part that is empty goes out. */
function put(part: { [K in keyof FormDocument]?: FormDocument[K] | undefined }, merge: string) {
  const { turn, signedBy, when, offered, ...needed } = { ...props.document, ...part }
  const whole: FormDocument = Object.assign({}, props.document, needed)
  for (const key of ['turn', 'signedBy', 'when', 'offered']) Reflect.deleteProperty(whole, key)
  const more = {
    ...(turn ? { turn } : {}),
    ...(signedBy?.length ? { signedBy } : {}),
    ...(when ? { when } : {}),
    ...(offered ? { offered } : {}),
  }
  emit('change', { ...whole, ...more }, merge)
}
/** The parties that it can be offered to; none in a form without turns. */
const parties = computed(() =>
  turns.value.length === 0
    ? []
    : (draft.form?.parties ?? []).map(p => ({ value: p.code, title: p.name || p.code })),
)
const offeredTo = computed(() => {
  const { offered } = props.document
  return offered === true ? parties.value.map(p => p.value) : (offered ?? [])
})
const offer = (codes: readonly string[]) =>
  put({ offered: codes.length > 0 ? [...codes] : undefined }, 'offered')
function setMoment(code: string) {
  const none = { turn: undefined, signedBy: undefined }
  if (code === SIGNED)
    put({ ...none, on: 'signed', signedBy: turns.value.slice(0, 1).map(t => t.code) }, 'on')
  else put(code === '' ? { ...none, on: 'done' } : { ...none, on: 'handedOn', turn: code }, 'on')
}
/** The turns that can sign it. */
const signers = computed(() =>
  turns.value.map(t => ({ value: t.code, title: draft.form ? turnName(draft.form, t) : t.code })),
)
/** They sign in the order of the turns: the first of them makes it. */
const setSigners = (codes: readonly string[]) =>
  put({ signedBy: turns.value.map(t => t.code).filter(code => codes.includes(code)) }, 'signedBy')
/** The file that was brought in; null where the template was written here. */
const file = computed(() => ('written' in props.document.template ? null : props.document.template))
const counts = computed(() => {
  const tags = tagsOf(props.document.template)
  const quotes = counted(tags.filter(t => t.is === 'quote').length, 'quote')
  const clauses = counted(tags.filter(t => t.is === 'when').length, 'clause')
  return `${quotes}, ${clauses}, ${counted(tags.filter(t => t.is === 'each').length, 'loop')}`
})
const said = computed(() => {
  const { filled } = rehearsal
  if (!filled) return ''
  if (!holds(filled, props.document)) return 'With the practice answers it is not made.'
  return `With the practice answers: ${deliveredText(filled, props.document.fileName)}.docx`
})
</script>

<template>
  <div class="sheet document">
    <div class="row-flex">
      <div>
        <strong>{{ document.title || document.code }}</strong>
        <p class="small quiet">{{ file ? file.name : 'Written here' }}: {{ counts }}</p>
      </div>
      <span class="spread" />
      <IconButton
        v-if="file"
        :icon="mdiDownloadOutline"
        :name="`Download the template of number ${number}`"
        :href="`/api/forms/${draft.id}/templates/${file.file}?document=${document.code}`"
      />
      <IconButton
        :icon="mdiClose"
        :name="`Remove document ${number}`"
        @click="emit('remove')"
      />
    </div>
    <template v-if="last">
      <div class="fields">
        <label
          >Called
          <v-text-field
            :model-value="document.title"
            :aria-label="`Document ${number}: what it is called`"
            maxlength="500"
            @input="put({ title: inputText($event) }, 'title')"
        /></label>
        <label
          >Made when
          <v-select
            :model-value="moment"
            :items="moments"
            :aria-label="`Document ${number}: when`"
            @update:model-value="setMoment"
        /></label>
        <label
          v-if="document.on === 'signed' && signers.length > 0"
          class="whole"
          >Signed in
          <v-select
            multiple
            chips
            :model-value="document.signedBy ?? []"
            :items="signers"
            :aria-label="`Document ${number}: in which turns it is signed`"
            @update:model-value="setSigners"
          /><span class="small quiet"
            >It is made as the first of them signs, and stays as it was signed. A last page tells who signed,
            when, and by what the file is known again.</span
          ></label
        >
        <label v-if="parties.length > 0"
          >Offered as a PDF to
          <v-select
            multiple
            chips
            :model-value="offeredTo"
            :items="parties"
            placeholder="nobody"
            :aria-label="`Document ${number}: whom it is offered to`"
            @update:model-value="offer"
        /></label>
        <v-checkbox
          v-else
          :model-value="document.offered === true"
          label="Offered as a PDF to whoever answers"
          :aria-label="`Document ${number}: offered to whoever answers`"
          @update:model-value="put({ offered: $event === true ? true : undefined }, 'offered')"
        />
        <label class="whole"
          >Its file is called
          <QuotableField
            :model-value="document.fileName"
            :place="last"
            :aria-label="`Document ${number}: what its file is called`"
            maxlength="500"
            @write="put({ fileName: $event }, 'fileName')"
        /></label>
      </div>
      <RuleField
        words="Only when"
        :text="document.when"
        :place="last"
        :part="document.code"
        @change="put({ when: $event ?? undefined }, 'when')"
        ><template #none><span class="small quiet">always</span></template></RuleField
      >
      <p class="small quiet">{{ said }}</p>
      <FoldedPart title="With the practice answers">
        <DocumentPreview :document="document" />
      </FoldedPart>
      <WrittenEditor
        v-if="'written' in document.template"
        :written="document.template.written"
        :name="`Document ${number}`"
        @change="(written, merge) => put({ template: { written } }, merge)"
      />
      <template v-else>
        <TemplateUpload
          words="Bring a newer template in"
          @brought="put({ template: $event }, 'template')"
        />
        <FoldedPart title="Files brought in before">
          <KeptTemplates :current="file?.file ?? ''" />
        </FoldedPart>
      </template>
    </template>
  </div>
</template>

<style scoped>
.document {
  display: grid;
  gap: 12px;
  padding: 14px 18px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.whole {
  grid-column: 1 / -1;
}
</style>
