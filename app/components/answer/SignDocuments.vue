<script setup lang="ts">
import type { DocumentContent } from '#core/documents/content'
import type { Sending } from '#shared/api/answering'
import type { DocumentToSign } from '#shared/api/documents'
import { callLink } from '~/api/callLink'
import DrawnField from './widgets/DrawnField.vue'
import { NOT_READ, type SigningState } from './signing'

/** The documents that are signed before a turn is handed on: to be read as they will be, and the signature below. */
const props = defineProps<{ token: string; sending: Sending; problem: string; refused: string }>()
const state = defineModel<SigningState>({ required: true })
const { refusal, busy, attempt } = useRefusable()
const documents = shallowRef<readonly (Omit<DocumentToSign, 'content'> & { content: DocumentContent })[]>([])
// Whoever goes back to change an answer has signed in the same way before.
const [before] = state.value.signatures ?? []
const own = reactive({
  name: before?.name ?? '',
  role: before?.role ?? '',
  place: before?.place ?? '',
  drawn: before?.drawn ?? '',
})
const mode = ref<'type' | 'draw'>(before?.drawn ? 'draw' : 'type')
const MODES = [
  { value: 'type', title: 'My name stands for it' },
  { value: 'draw', title: 'Draw' },
] as const

const read = () =>
  attempt(async () => {
    documents.value = []
    state.value = NOT_READ
    const body = props.sending
    const found = await callLink('readToSign', { params: { token: props.token }, body })
    documents.value = found.documents.map(d => ({ ...d, content: readContent(d.content) }))
    tell()
  })
onMounted(read)
// What the server has found changed is read again.
watch(
  () => props.refused,
  code => {
    if (REREAD.has(code)) void read()
  },
)
const REREAD: ReadonlySet<string> = new Set(['signed-other', 'not-signed', 'nothing-to-sign'])
watch([own, mode], tell)

/** What is missing of the signature; empty where nothing is. */
function missing(): string {
  if (own.name.trim() === '') return 'Write your name to sign.'
  return mode.value === 'draw' && own.drawn === ''
    ? 'Draw your signature, or let your name stand for it.'
    : ''
}
/** Tells what is signed so far. */
function tell() {
  const { name, role, place, drawn } = own
  const count = documents.value.length
  const open = count === 0 ? '' : missing()
  const drawing = mode.value === 'draw' ? { drawn } : {}
  const signatures = documents.value.map(({ code, basis }) => ({
    ...{ code, basis, name: name.trim(), role: role.trim(), place: place.trim() },
    ...drawing,
  }))
  state.value = { count, signatures: open === '' ? signatures : null, missing: open }
}

function readContent(json: string): DocumentContent {
  const content: DocumentContent = JSON.parse(json, (key, value: unknown) =>
    key === 'bytes' && typeof value === 'string'
      ? Uint8Array.from(atob(value), sign => sign.charCodeAt(0))
      : value,
  )
  return content
}
</script>

<template>
  <section
    v-if="busy || refusal || documents.length > 0"
    class="signing"
    aria-label="To be signed"
  >
    <p
      v-if="busy"
      class="quiet"
      role="status"
    >
      The document is being made …
    </p>
    <RefusalAlert :refusal="refusal" />
    <v-btn
      v-if="refusal"
      class="again"
      @click="read"
      >Try again</v-btn
    >
    <template
      v-for="d in documents"
      :key="d.code"
    >
      <h2>To be signed: {{ d.title }}</h2>
      <div
        class="page"
        role="region"
        tabindex="0"
        :aria-label="`“${d.title}”, as you sign it`"
      >
        <ContentBlocks :blocks="d.content.header" />
        <ContentBlocks :blocks="d.content.body" />
        <ContentBlocks :blocks="d.content.footer" />
      </div>
      <p
        v-for="(s, i) in d.signed"
        :key="i"
        class="small quiet"
      >
        Signed by {{ s.name }}<template v-if="s.role">, {{ s.role }}</template
        >, on {{ readableDay(s.at) }}
      </p>
    </template>
    <div
      v-if="documents.length > 0"
      class="fields"
    >
      <label for="signer-name">Your name</label>
      <v-text-field
        id="signer-name"
        v-model="own.name"
        maxlength="200"
        autocomplete="name"
        :error="problem !== '' && own.name.trim() === ''"
        :aria-describedby="problem ? 'signing-problem' : undefined"
      />
      <label for="signer-role">As what you sign <span class="quiet">optional</span></label>
      <v-text-field
        id="signer-role"
        v-model="own.role"
        maxlength="200"
        autocomplete="organization-title"
      />
      <label for="signer-place">Place <span class="quiet">optional</span></label>
      <v-text-field
        id="signer-place"
        v-model="own.place"
        maxlength="200"
      />
      <SegmentedChoice
        v-model="mode"
        class="modes"
        :options="MODES"
        name="How to sign"
      />
      <p
        v-if="mode === 'type'"
        class="typed"
        aria-hidden="true"
      >
        {{ own.name }}
      </p>
      <DrawnField
        v-else
        id="signer-drawn"
        :drawn="own.drawn"
        :invalid="problem !== '' && own.drawn === ''"
        @draw="path => (own.drawn = path ?? '')"
      />
      <p class="small quiet">
        What you sign is kept as it stands above, with your name and the time. It is not changed afterwards.
      </p>
    </div>
    <p
      v-if="problem"
      id="signing-problem"
      class="fault"
      role="alert"
    >
      {{ problem }}
    </p>
  </section>
</template>

<style scoped>
.signing {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
h2 {
  font-size: 17px;
  margin-top: 8px;
}
.page {
  max-height: 60vh;
  overflow: auto;
  padding: 18px 20px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper);
  font-size: 14px;
}
.fields {
  display: grid;
  gap: 6px;
}
.modes,
.again {
  justify-self: start;
}
.typed {
  min-height: 44px;
  font-style: italic;
  font-size: 24px;
  overflow-wrap: anywhere;
}
.fault {
  color: var(--madder);
}
</style>
