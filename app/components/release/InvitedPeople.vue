<script setup lang="ts">
import { readPeople } from '#core/lists/readPeople'
import { API } from '#shared/api/endpoints'
import type { Way } from '#shared/api/ways'
import { callApi } from '~/api/callApi'
import type { Ways } from '~/composables/release/useWays'

/** People with a personal link: pasted or read from a file, written to, reminded; who has answered is told. */
const props = defineProps<{ ways: Ways }>()
const draft = useDraft()
const { say } = useSaid()
const { busy, params } = props.ways
const people = computed(() => props.ways.ways.value.filter(w => w.kind === 'person'))
const pasted = ref('')
const read = computed(() => readPeople(pasted.value))
const isNotPosted = (way: Way) => way.postedAt === null && !way.isClosed
const isUnanswered = (way: Way) => way.taken === 0 && !way.isClosed
const answered = computed(() => people.value.filter(w => w.taken > 0).length)
const posting = ref<'new' | 'unanswered' | null>(null)
const subject = ref('')
const text = ref('')

async function add() {
  const added = await props.ways.act(async () => {
    const body = { people: read.value.people }
    const { added: fresh, known } = await callApi(API.invitePeople, { params, body })
    say(`${counted(fresh, 'personal link')} made${known > 0 ? `; ${known} had one already` : ''}.`)
  })
  if (added) pasted.value = ''
}
async function takeFile(files: File | File[] | null) {
  const [file] = [files ?? []].flat()
  if (file) pasted.value = await file.text()
}
function write(to: 'new' | 'unanswered') {
  posting.value = to
  const title = draft.form?.title ?? ''
  subject.value = to === 'new' ? title : `Reminder: ${title}`
  text.value =
    to === 'new'
      ? `We would be glad of your answers to “${title}”.`
      : `You have not yet answered “${title}”. It would help us if you did.`
}
async function post() {
  const to = posting.value
  if (!to) return
  const posted = await props.ways.act(async () => {
    const body = { to, subject: subject.value, text: text.value }
    const answer = await callApi(API.postInvitations, { params, body })
    say(`${counted(answer.posted, 'letter')} posted.`)
  })
  if (posted) posting.value = null
}
async function copy(way: Way) {
  await navigator.clipboard.writeText(linkAddress(`/f/${way.token}`))
  say(`The link of ${way.name} is copied. Whoever opens it answers as ${way.name}.`)
}
const stateOf = ({ taken, isClosed, postedAt, remindedAt }: Way) => {
  if (taken > 0) return 'answered'
  if (isClosed) return 'closed'
  if (remindedAt) return `reminded ${readableDay(remindedAt)}`
  return postedAt ? `written to ${readableDay(postedAt)}` : 'not written to'
}
const PAGE = 10
const HEADERS = [
  { title: 'Name', key: 'name' },
  { title: 'Address', key: 'address' },
  { title: 'State', key: 'state', value: stateOf },
  { title: '', key: 'does', sortable: false, align: 'end' },
] as const
</script>

<template>
  <h3>Personal links</h3>
  <p class="quiet small">
    Each person gets a link of their own, so it is known who has answered.
    <template v-if="people.length > 0">{{ answered }} of {{ people.length }} have answered.</template>
  </p>
  <v-data-table
    v-if="people.length > 0"
    :headers="HEADERS"
    :items="people"
    :items-per-page="PAGE"
    :items-per-page-options="[PAGE, 50]"
    :hide-default-footer="people.length <= PAGE"
  >
    <template #[`item.does`]="{ item }">
      <v-btn
        variant="text"
        :aria-label="`Copy the link of ${item.name}`"
        @click="copy(item)"
      >
        Copy
      </v-btn>
      <v-btn
        variant="text"
        :disabled="busy"
        :aria-label="`${item.isClosed ? 'Open' : 'Close'} the link of ${item.name}`"
        @click="ways.change(item, { isClosed: !item.isClosed })"
      >
        {{ item.isClosed ? 'Open' : 'Close' }}
      </v-btn>
    </template>
  </v-data-table>
  <div
    v-if="people.length > 0"
    class="row-flex"
  >
    <v-btn
      :disabled="busy || !people.some(isNotPosted)"
      @click="write('new')"
    >
      Write to {{ people.filter(isNotPosted).length }} new
    </v-btn>
    <v-btn
      :disabled="busy || !people.some(isUnanswered)"
      @click="write('unanswered')"
    >
      Remind {{ people.filter(isUnanswered).length }} who have not answered
    </v-btn>
  </div>
  <FoldedPart title="Add people">
    <form
      class="adding"
      @submit.prevent="add"
    >
      <v-textarea
        v-model="pasted"
        rows="3"
        auto-grow
        max-rows="10"
        aria-label="People, one on each line"
        placeholder="Oda Fisher, oda@wherry.example&#10;Piet Brandt &lt;piet@wherry.example&gt;"
      />
      <div class="row-flex">
        <v-btn
          type="submit"
          variant="flat"
          color="primary"
          :disabled="busy || read.people.length === 0"
        >
          Add {{ read.people.length === 1 ? '1 person' : `${read.people.length} people` }}
        </v-btn>
        <v-file-input
          class="file"
          label="or read a CSV file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          hide-details
          @update:model-value="takeFile"
        />
      </div>
      <p
        v-if="read.unread.length > 0"
        role="status"
        class="risk small"
      >
        No address in {{ counted(read.unread.length, 'line') }}: {{ read.unread.slice(0, 8).join(', ') }}
      </p>
    </form>
  </FoldedPart>
  <PlainDialog
    v-if="posting"
    :title="posting === 'new' ? 'Write to those who are new' : 'Remind those who have not answered'"
    :width="560"
    @close="posting = null"
  >
    <RefusalAlert :refusal="ways.refusal.value" />
    <LabelledField
      v-model="subject"
      label="Subject"
    />
    <v-textarea
      v-model="text"
      aria-label="Text"
      rows="4"
      maxlength="10000"
    />
    <p class="small quiet">Each letter ends with the person’s own link.</p>
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="busy || subject.trim() === ''"
        @click="post"
      >
        Post {{ counted(people.filter(posting === 'new' ? isNotPosted : isUnanswered).length, 'letter') }}
      </v-btn>
      <v-btn
        variant="text"
        @click="posting = null"
      >
        Leave it
      </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
h3 {
  font-size: 15px;
  margin-top: 10px;
}
.adding {
  display: grid;
  gap: 10px;
}
.file {
  max-width: 300px;
}
</style>
