<script setup lang="ts">
import { readableDate } from '#core/expressions/dates'
import type { Answers } from '#core/form/answers'
import { describeResponse, type ResponseLine } from '#core/fill/describeResponse'
import { planOf } from '#core/fill/plan'
import { turnName, turnOf } from '#core/parties/turns'
import type { Form } from '#core/form/definition'

interface Response {
  id: string
  sentAt: string
  begunOn: string
  answers: Answers
  turn: string | null
  release: number
}
interface TurnTaken {
  turn: string
  token: string
  to: string[]
  openedAt: string
  handedOffAt: string | null
  remark: string | null
}
interface Details {
  turns: TurnTaken[]
  messages: { to: string; subject: string; text: string; at: string }[]
}
const draft = useDraft()
const chosen = ref<string | null>(null)
const search = ref('')
const { data, error } = await useAsyncData(
  `responses-${draft.id}`,
  () =>
    $fetch<{ responses: Response[]; definitions: Record<string, Form> }>(`/api/forms/${draft.id}/responses`),
  { server: false },
)

const plans = computed(
  () =>
    new Map(
      Object.entries(data.value?.definitions ?? {}).map(([n, form]) => [Number(n), planOf(form)] as const),
    ),
)
const told = computed(() =>
  (data.value?.responses ?? []).flatMap(r => {
    const plan = plans.value.get(r.release)
    return plan ? [{ ...r, lines: describeResponse(plan, r.answers, r.begunOn) }] : []
  }),
)
const columns = computed(() => {
  const latest = [...plans.value].sort(([a], [b]) => b - a)[0]?.[1]
  return (
    latest?.questions.map(q => ({
      code: q.place.code,
      label: q.place.node.label.replaceAll(/\{\{[^}]*\}\}/g, '…'),
    })) ?? []
  )
})
const hasTurns = computed(() =>
  Object.values(data.value?.definitions ?? {}).some(form => (form.turns ?? []).length > 0),
)
const nameOfTurn = (release: number, code: string) => {
  const form = data.value?.definitions[release]
  const turn = form && turnOf(form, code)
  return form && turn ? turnName(form, turn) : code
}
const headers = computed(() => [
  { title: 'Sent', key: 'sentAt' },
  { title: 'Version', key: 'release' },
  ...(hasTurns.value ? [{ title: 'Turn', key: 'turn' }] : []),
  ...columns.value.map(c => ({ title: c.label, key: c.code })),
])
const rows = computed(() =>
  told.value.map(r => ({
    id: r.id,
    sentAt: r.sentAt,
    release: r.release,
    turn: r.turn === null ? 'done' : nameOfTurn(r.release, r.turn),
    ...cells(r.lines),
  })),
)
/** One cell for each question; what was asked once per entry stands in one cell, entry by entry. */
function cells(lines: readonly ResponseLine[]): Record<string, string> {
  const byCode: Record<string, string> = {}
  for (const l of lines) {
    const text = l.state === 'answered' ? l.text : l.state === 'blank' ? '' : '·'
    const before = byCode[l.code]
    byCode[l.code] = before ? [before, text].filter(Boolean).join(' | ') : text
  }
  return byCode
}
const open = computed(() => told.value.find(r => r.id === chosen.value) ?? null)
const { data: details } = await useAsyncData(
  `response-${draft.id}`,
  () =>
    open.value && hasTurns.value
      ? $fetch<Details, string>(`/api/responses/${open.value.id}`)
      : Promise.resolve(null),
  { server: false, watch: [open] },
)
const dayOf = (at: string) => readableDate(at.slice(0, 10))
const choose = (_: unknown, { item }: { item: { id: string } }) => {
  chosen.value = item.id
}
</script>

<template>
  <div
    class="collect"
    :class="{ split: open }"
  >
    <section
      class="table"
      aria-label="Responses"
    >
      <div class="row-flex head">
        <h2>{{ told.length }} {{ told.length === 1 ? 'response' : 'responses' }}</h2>
        <span class="quiet small">“·” was not asked</span>
        <span class="spread" />
        <input
          v-model="search"
          class="field"
          placeholder="Search"
          aria-label="Search the responses"
        />
      </div>
      <p
        v-if="error"
        class="fault"
        role="alert"
      >
        The responses could not be fetched: {{ refusalOf(error).sentence }}
      </p>
      <v-data-table
        v-if="told.length > 0"
        :headers="headers"
        :items="rows"
        :search="search"
        density="compact"
        hover
        fixed-header
        :items-per-page="25"
        class="sheet"
        @click:row="choose"
      >
        <template #[`item.sentAt`]="{ item }"
          ><button
            class="text-button"
            @click.stop="chosen = item.id"
          >
            {{ dayOf(item.sentAt) }}
          </button></template
        >
      </v-data-table>
      <div
        v-else-if="data"
        class="sheet none"
      >
        <p>No responses yet.</p>
        <p
          v-if="draft.releases[0]"
          class="quiet"
        >
          Send out the link of version {{ draft.releases[0].number }}:
          <a
            :href="`/f/${draft.releases[0].token}`"
            target="_blank"
            >open the form</a
          >.
        </p>
        <p
          v-else
          class="quiet"
        >
          <NuxtLink :to="`/forms/${draft.id}/release`">Release the form</NuxtLink> to get a link for
          respondents.
        </p>
      </div>
    </section>
    <aside
      v-if="open"
      class="one"
      aria-label="One response"
    >
      <div class="row-flex">
        <h2>Sent {{ dayOf(open.sentAt) }}</h2>
        <span class="spread" /><button
          class="plain-button"
          @click="chosen = null"
        >
          Close
        </button>
      </div>
      <p class="quiet small">Version {{ open.release }}, begun {{ dayOf(open.begunOn) }}</p>
      <div
        v-if="details && details.turns.length > 0"
        class="turns"
      >
        <h3>Turns</h3>
        <ol>
          <li
            v-for="t in details.turns"
            :key="t.token"
            class="small"
          >
            <strong>{{ nameOfTurn(open.release, t.turn) }}</strong>{{ ' ' }}
            <span
              v-if="t.handedOffAt"
              class="quiet"
              >handed on {{ dayOf(t.handedOffAt) }}</span
            >
            <template v-else
              ><span class="quiet"
                >open since {{ dayOf(t.openedAt)
                }}{{ t.to.length > 0 ? `, waits for ${t.to.join(', ')}` : '' }}</span
              >
              <a
                :href="`/f/${t.token}`"
                target="_blank"
                >open its page</a
              ></template
            >
            <em v-if="t.remark"> given back: {{ t.remark }}</em>
          </li>
        </ol>
        <details
          v-if="details.messages.length > 0"
          class="small"
        >
          <summary>
            {{ details.messages.length }} {{ details.messages.length === 1 ? 'message' : 'messages' }} (kept
            here, not sent: there is no mail server)
          </summary>
          <p
            v-for="(m, i) in details.messages"
            :key="i"
          >
            {{ dayOf(m.at) }} to {{ m.to }}: {{ m.subject }}
          </p>
        </details>
      </div>
      <dl>
        <template
          v-for="l in open.lines"
          :key="l.path"
        >
          <h3 v-if="l.heading">{{ l.heading }}</h3>
          <h4 v-if="l.entry">{{ l.entry }}</h4>
          <div :class="l.state">
            <dt>{{ l.label }}</dt>
            <dd>
              <template v-if="l.files.length > 0"
                ><a
                  v-for="f in l.files"
                  :key="f.file"
                  :href="`/api/files/${f.file}`"
                  download
                  >{{ f.name }}</a
                ></template
              >
              <svg
                v-else-if="l.drawn"
                viewBox="0 0 600 200"
                class="drawn"
                role="img"
                aria-label="Signature"
              >
                <path
                  :d="l.drawn"
                  fill="none"
                  stroke="currentColor"
                  stroke-width="3"
                />
              </svg>
              <template v-else>{{
                l.state === 'answered' ? l.text : l.state === 'blank' ? 'left blank' : 'not asked'
              }}</template>
            </dd>
          </div>
        </template>
      </dl>
    </aside>
  </div>
</template>

<style scoped>
.turns {
  border-bottom: 1px solid var(--line);
  padding-bottom: 12px;
}
.turns li {
  margin: 2px 0 2px 18px;
}
.collect {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  height: 100%;
}
.collect.split {
  grid-template-columns: minmax(0, 1fr) 420px;
}
.table {
  padding: 20px;
  display: grid;
  gap: 12px;
  align-content: start;
  overflow: auto;
}
.table :deep(th),
.table :deep(td) {
  white-space: nowrap;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.table :deep(.v-table) {
  background: var(--paper);
  color: var(--ink);
}
.none {
  padding: 32px;
  display: grid;
  gap: 8px;
}
.one {
  background: var(--paper);
  border-left: 1px solid var(--line);
  padding: 20px;
  overflow-y: auto;
}
.one h3 {
  margin: 18px 0 4px;
}
.one h4 {
  margin: 10px 0 2px;
  color: var(--slate);
}
.drawn {
  width: 200px;
  max-width: 100%;
}
dd a {
  display: block;
}
dl div {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px dotted var(--line);
}
dt {
  color: var(--slate);
}
dd {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.blank dd,
.unasked dd {
  font-weight: 400;
  color: var(--slate);
  font-style: italic;
}
.unasked dt {
  opacity: 0.8;
}
</style>
