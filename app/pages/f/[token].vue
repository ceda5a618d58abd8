<script setup lang="ts">
import { isAnswer, type Answer, type Answers } from '#core/form/answers'
import { findClosingMessage, type ClosingMessage } from '#core/fill/closing'
import { allProblems, answersInPlay, fill } from '#core/fill/fill'
import type { Page } from '#core/fill/pages'
import { planOf } from '#core/fill/plan'
import { describeResponse, type ResponseLine } from '#core/fill/describeResponse'
import type { Form } from '#core/form/definition'
import type { Refusal } from '#shared/api/refusal'
import type { OfferedRow } from '#core/form/rows'
import { FILE_TAKER, ROW_FINDER, type FileTaker, type RowFinder } from '~/components/answer/widgets/widget'

/** The respondent's page: one page after the other, then a look at all answers, then sent. */
definePageMeta({ layout: 'quiet' })
interface OpenedTurn {
  name: string
  isFirst: boolean
  handedOffAt: string | null
  remark: string | null
  returnsTo: string | null
  lines: ResponseLine[]
}
interface Cut {
  definition: Form
  access: Record<string, 'reads' | 'fills'>
  asks: string[]
}
interface Opened extends Cut {
  release: number
  today: string
  answers: Answers
  turn: OpenedTurn | null
}
interface Kept {
  release: number
  begunOn: string
  key: string
  answers: Answers
  place: Page
  rows?: Record<string, OfferedRow[]>
}
const route = useRoute()
const token = String(route.params.token)
const { data, error } = await useAsyncData(`answer-${token}`, () =>
  useRequestFetch()<Opened>(`/api/answer/${encodeURIComponent(token)}`),
)
/** What the party sees of the form; asked for anew when an outcome over answers that it does not see may have changed. */
const seen = shallowRef<Cut | null>(data.value ?? null)
const plan = computed(() => (seen.value ? planOf(seen.value.definition) : null))
const turn = computed(() => data.value?.turn ?? null)
provide(
  'access',
  computed(() => seen.value?.access ?? {}),
)
const mayFill = (code: string) => seen.value?.access[code] !== 'reads'
const begunOn = ref(data.value?.today ?? '')
const key = ref('')
const place = ref<Page>({ section: 0, only: null })
const stage = ref<'fill' | 'check' | 'sent'>('fill')
const sending = ref(false)
const refusal = ref<Refusal | null>(null)
const said = ref<ClosingMessage | null>(null)
const next = ref<string | null>(null)
const remark = ref<string | null>(null)
const kept = ref(false)
const page = useTemplateRef('page')
const store = `tobbin-answers-${token}`
useHead({
  title: () => data.value?.definition.title ?? 'Form',
  htmlAttrs: { lang: () => data.value?.definition.language ?? 'en' },
})

/** What the link brings: the hidden values by their parameters; what the form does not know is said. */
const hidden = computed(
  () =>
    new Map(
      (plan.value?.questions ?? []).flatMap(({ place: { node } }) =>
        node.type === 'hidden' ? [[node.from ?? node.code, node.code] as const] : [],
      ),
    ),
)
const parameters = Object.entries(route.query).flatMap(([name, value]) =>
  typeof value === 'string' ? [[name, value] as const] : [],
)
const fromLink = (): Answers =>
  Object.fromEntries(
    parameters.flatMap(([name, value]) =>
      hidden.value.has(name) ? [[hidden.value.get(name) ?? name, value]] : [],
    ),
  )
const strange = computed(() => parameters.map(([name]) => name).filter(name => !hidden.value.has(name)))

const given = (): Answers => ({ ...data.value?.answers, ...fromLink() })
const answers = shallowRef<Answers>(given())
const filled = computed(() => (plan.value ? fill(plan.value, answers.value, begunOn.value) : null))
/** Whether anything of a section is this party's to answer. */
const fillsIn = (section: number): boolean =>
  plan.value?.sections[section]?.all.some(s => seen.value?.access[s.place.code] === 'fills') ?? false
// Whoever takes a later turn begins at what is theirs to answer; what they only read is one step back.
if (data.value?.turn && !data.value.turn.isFirst)
  place.value = { section: filled.value?.path.find(fillsIn) ?? 0, only: null }
const way = useWay(filled, place)
const { at, pages, page: current } = way
const lines = computed(() =>
  plan.value
    ? describeResponse(plan.value, answers.value, begunOn.value).filter(
        l => l.state !== 'unasked' && l.type !== 'hidden',
      )
    : [],
)

function newKey() {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, b => b.toString(16).padStart(2, '0')).join('')
}
const isKept = (value: unknown): value is Kept =>
  typeof value === 'object' &&
  value !== null &&
  'answers' in value &&
  'begunOn' in value &&
  'key' in value &&
  typeof value.key === 'string' &&
  typeof value.begunOn === 'string' &&
  typeof value.answers === 'object' &&
  isAnswer(value.answers)
onMounted(() => {
  key.value = newKey()
  try {
    const found: unknown = JSON.parse(localStorage.getItem(store) ?? 'null')
    if (isKept(found)) {
      // What others answered is as the server has it now.
      answers.value = {
        ...given(),
        ...Object.fromEntries(Object.entries(found.answers).filter(([code]) => mayFill(code))),
        ...fromLink(),
      }
      if (turn.value === null || turn.value.isFirst) begunOn.value = found.begunOn
      key.value = found.key
      if (found.place) place.value = found.place
      if (found.rows && typeof found.rows === 'object') chosenRows.value = found.rows
      if (seen.value) seen.value = withRows(seen.value)
      kept.value = true
    }
  } catch {
    localStorage.removeItem(store) // unreadable: the answers can't be brought back, so begin with none
  }
})
function keep() {
  const state: Kept = {
    release: data.value?.release ?? 0,
    begunOn: begunOn.value,
    key: key.value,
    answers: answers.value,
    place: place.value,
    rows: chosenRows.value,
  }
  try {
    localStorage.setItem(store, JSON.stringify(state))
    kept.value = true
  } catch {
    kept.value = false // the device keeps nothing (private window, full store); the page says so by not claiming it
  }
}
function answer(code: string, value: Answer) {
  answers.value = { ...answers.value, [code]: value }
  keep()
  if (seen.value?.asks.includes(code)) askSoon()
}
const sendable = () =>
  Object.fromEntries(
    Object.entries(filled.value ? answersInPlay(filled.value) : {}).filter(([code]) => mayFill(code)),
  )
const sendingNow = () => ({
  release: data.value?.release ?? 0,
  key: key.value,
  begunOn: begunOn.value,
  answers: sendable(),
})
/** The newest question to the server; older ones that come late are left aside. */
let asking = 0
async function ask() {
  const own = (asking += 1)
  try {
    const cut = await $fetch<Cut, string>(`/api/answer/${encodeURIComponent(token)}/cut`, {
      method: 'POST',
      body: sendingNow(),
    })
    if (own === asking) seen.value = withRows(cut)
  } catch (cause) {
    refusal.value = refusalOf(cause)
  }
}
let waiting: ReturnType<typeof setTimeout> | undefined
const askSoon = () => {
  clearTimeout(waiting)
  waiting = setTimeout(() => void ask(), 300)
}
onBeforeUnmount(() => clearTimeout(waiting))
provide<FileTaker>(FILE_TAKER, {
  take: (question, file) =>
    $fetch<{ file: string; name: string; bytes: number }, string>(
      `/api/answer/${encodeURIComponent(token)}/files`,
      {
        method: 'POST',
        query: { question, key: key.value, name: file.name },
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      },
    ),
})
/** Rows of long lists that were chosen here: the page knows only those. */
const chosenRows = ref<Record<string, OfferedRow[]>>({})
function withRows(cut: Cut): Cut {
  const lists = cut.definition.lists?.map(list => {
    const known = new Set(list.rows.map(r => r.code))
    const fresh = (chosenRows.value[list.code] ?? []).filter(r => !known.has(r.code))
    return list.partial === undefined || fresh.length === 0
      ? list
      : { ...list, rows: [...list.rows, ...fresh] }
  })
  return lists ? { ...cut, definition: { ...cut.definition, lists } } : cut
}
provide<RowFinder>(ROW_FINDER, {
  find: (path, typed) =>
    $fetch<{ rows: OfferedRow[]; count: number }, string>(`/api/answer/${encodeURIComponent(token)}/rows`, {
      method: 'POST',
      body: { path, typed, begunOn: begunOn.value, answers: sendable() },
    }),
  remember: (list, row) => {
    chosenRows.value = {
      ...chosenRows.value,
      [list]: [...(chosenRows.value[list] ?? []).filter(r => r.code !== row.code), row].slice(-200),
    }
    if (seen.value) seen.value = withRows(seen.value)
  },
})
function toTop() {
  void nextTick(() => {
    window.scrollTo({ top: 0 })
    page.value?.querySelector<HTMLElement>('.problems, h1')?.focus()
  })
}
function goOn() {
  if (way.goOn() === 'end') stage.value = 'check'
  keep()
  toTop()
}
function goBack() {
  refusal.value = null
  if (stage.value === 'check') stage.value = 'fill'
  else way.goBack()
  toTop()
}
function goTo(section: number) {
  place.value = pages.value.find(p => p.section === section) ?? place.value
  stage.value = 'fill'
  toTop()
}
async function send() {
  if (!filled.value || !data.value) return
  const open = allProblems(filled.value)[0]
  if (open) {
    const { section, order } = open.step.place
    place.value =
      pages.value.find(p => p.section === section && (p.only === null || p.only >= order)) ?? place.value
    stage.value = 'fill'
    way.tried.value = true
    return toTop()
  }
  sending.value = true
  refusal.value = null
  try {
    const sent = await $fetch<{ next: string | null }, string>(`/api/answer/${encodeURIComponent(token)}`, {
      method: 'POST',
      body: sendingNow(),
    })
    next.value = sent.next
    said.value =
      sent.next === null
        ? findClosingMessage(filled.value)
        : {
            title: `Handed on to ${sent.next}`,
            text: 'Thank you. Your part is done, and can’t be changed any more unless it is given back to you.',
            forward: null,
          }
    localStorage.removeItem(store)
    stage.value = 'sent'
    if (said.value.forward) window.location.assign(said.value.forward)
  } catch (cause) {
    refusal.value = refusalOf(cause)
  }
  sending.value = false
  toTop()
}
/** Gives the response back to the turn before, with a remark. */
async function giveBack() {
  sending.value = true
  refusal.value = null
  try {
    const { to } = await $fetch<{ to: string }, string>(`/api/answer/${encodeURIComponent(token)}/return`, {
      method: 'POST',
      body: { remark: remark.value ?? '' },
    })
    said.value = {
      title: `Given back to ${to}`,
      text: 'They have your remark. You get a new link when it is your turn again.',
      forward: null,
    }
    localStorage.removeItem(store)
    stage.value = 'sent'
  } catch (cause) {
    refusal.value = refusalOf(cause)
  }
  sending.value = false
  toTop()
}
function another() {
  answers.value = given()
  key.value = newKey()
  begunOn.value = data.value?.today ?? ''
  place.value = { section: 0, only: null }
  way.tried.value = false
  stage.value = 'fill'
  toTop()
}
</script>

<template>
  <main
    ref="page"
    class="answer"
  >
    <template v-if="error || !data || !filled">
      <h1>This form can’t be opened</h1>
      <p>{{ error ? refusalOf(error).sentence : 'Reload the page to try again.' }}</p>
    </template>
    <template v-else>
      <div class="top">
        <strong>{{ data.definition.title }}</strong><span
          v-if="turn && !turn.isFirst"
          class="small quiet"
          >{{ turn.name }}</span
        ><span
          v-if="kept && stage !== 'sent'"
          class="quiet small"
          >Kept on this device</span
        >
      </div>
      <p
        v-if="strange.length > 0 && stage === 'fill'"
        class="strange small"
        role="status"
      >
        The link brings {{ strange.map(n => `“${n}”`).join(', ') }}, which this form does not know. It is left
        aside; please tell whoever sent the link.
      </p>
      <template v-if="turn?.handedOffAt && stage !== 'sent'">
        <h1 tabindex="-1">Handed on</h1>
        <p>This part was handed on and can’t be changed any more. These are the answers.</p>
        <dl class="sheet">
          <template
            v-for="l in turn.lines.filter(t => t.state !== 'unasked')"
            :key="l.path"
            ><h2
              v-if="l.heading"
              class="heading"
            >
              {{ l.heading }}
            </h2>
            <div class="line">
              <dt>{{ l.label }}</dt>
              <dd :class="{ quiet: l.state === 'blank' }">
                {{ l.state === 'blank' ? 'left blank' : l.text }}
              </dd>
            </div></template
          >
        </dl>
      </template>
      <template v-else-if="stage === 'sent' && said">
        <h1 tabindex="-1">{{ said.title }}</h1>
        <p class="said">{{ said.text }}</p>
        <p v-if="said.forward"><a :href="said.forward">Go on</a></p>
        <div v-else-if="turn === null || turn.isFirst">
          <button
            class="plain-button big"
            @click="another"
          >
            Answer once more
          </button>
        </div>
      </template>
      <template v-else>
        <div
          v-if="turn?.remark"
          class="strange"
          role="status"
        >
          <strong>This was given back to you:</strong> {{ turn.remark }}
        </div>
        <div class="progress">
          <div
            class="bars"
            aria-hidden="true"
          >
            <i
              v-for="(_, i) in pages"
              :key="i"
              :class="{ done: stage === 'check' || i <= at }"
            />
          </div>
          <p class="quiet small">{{ stage === 'check' ? 'Last step' : way.progress.value }}</p>
        </div>
        <template v-if="stage === 'check'">
          <h1 tabindex="-1">Check your answers</h1>
          <div
            v-if="refusal"
            class="refusal"
            role="alert"
          >
            <p>
              <strong>{{ refusal.sentence }}</strong>
            </p>
            <ul v-if="refusal.problems">
              <li
                v-for="(p, i) in refusal.problems"
                :key="i"
              >
                {{ p.path }}: {{ p.sentence }}
              </li>
            </ul>
          </div>
          <dl class="sheet">
            <template
              v-for="l in lines"
              :key="l.path"
            >
              <div
                v-if="l.heading"
                class="head-line"
              >
                <h2>{{ l.heading }}</h2>
                <button
                  v-if="fillsIn(l.section)"
                  class="text-button"
                  @click="goTo(l.section)"
                >
                  Change<span class="hidden-words"> {{ l.heading }}</span>
                </button>
              </div>
              <h3
                v-if="l.entry"
                class="entry-line"
              >
                {{ l.entry }}
              </h3>
              <div class="line">
                <dt>{{ l.label }}</dt>
                <dd :class="{ quiet: l.state === 'blank' }">
                  {{ l.state === 'blank' ? 'left blank' : l.text }}
                </dd>
              </div>
            </template>
          </dl>
          <div class="row-flex foot">
            <button
              class="plain-button big"
              @click="goBack"
            >
              Back</button
            ><span class="spread" /><button
              class="action big"
              :disabled="sending"
              @click="send"
            >
              {{ sending ? 'Sending …' : turn ? 'Hand on' : 'Send' }}
            </button>
          </div>
          <div
            v-if="turn?.returnsTo"
            class="return"
          >
            <button
              v-if="remark === null"
              class="text-button"
              @click="remark = ''"
            >
              Give it back to {{ turn.returnsTo }} instead
            </button>
            <form
              v-else
              @submit.prevent="giveBack"
            >
              <label for="remark">What should {{ turn.returnsTo }} change?</label>
              <textarea
                id="remark"
                v-model="remark"
                class="field"
                rows="3"
                required
                maxlength="2000"
              />
              <div class="row-flex">
                <button
                  class="plain-button"
                  :disabled="sending || !remark.trim()"
                >
                  Give back</button
                ><button
                  type="button"
                  class="text-button"
                  @click="remark = null"
                >
                  Cancel
                </button>
              </div>
            </form>
          </div>
        </template>
        <form
          v-else-if="current"
          novalidate
          @submit.prevent="goOn"
        >
          <AnswerSection
            :filled="filled"
            :page="current"
            :answers="answers"
            :tried="way.tried.value"
            prefix="q"
            level="h1"
            @answer="answer"
          />
          <div class="row-flex foot">
            <button
              type="button"
              class="plain-button big"
              :class="{ gone: at === 0 }"
              :disabled="at === 0"
              @click="goBack"
            >
              Back
            </button>
            <span class="spread" />
            <button class="action big">{{ way.nextWords.value }}</button>
          </div>
        </form>
      </template>
    </template>
  </main>
</template>

<style scoped>
.return {
  margin-top: 28px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
.return form {
  display: grid;
  gap: 8px;
}
.return label {
  font-weight: 600;
}
.heading {
  font-size: 17px;
  padding: 16px 0 4px;
}
.answer {
  max-width: 600px;
  margin: 0 auto;
  padding: 36px 16px 80px;
  display: grid;
  gap: 28px;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.bars {
  display: flex;
  gap: min(5px, 1%);
  margin-bottom: 8px;
}
.bars i {
  flex: 1;
  min-width: 1px;
  height: 5px;
  background: var(--line);
}
.bars i.done {
  background: var(--verdigris);
}
.foot {
  margin-top: 36px;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
.gone {
  visibility: hidden;
}
dl {
  padding: 8px 20px 14px;
}
.head-line {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 16px 0 4px;
}
.head-line h2 {
  font-size: 17px;
}
.line {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  padding: 8px 0;
  border-bottom: 1px dotted var(--line);
}
dd {
  font-weight: 600;
  overflow-wrap: anywhere;
}
dd.quiet {
  font-weight: 400;
  font-style: italic;
}
.entry-line {
  font-size: 15px;
  padding: 10px 0 0;
  color: var(--slate);
}
.said {
  white-space: pre-line;
}
.strange {
  background: var(--weld-wash);
  padding: 8px 12px;
}
.refusal {
  border: 2px solid var(--madder);
  background: var(--madder-wash);
  padding: 12px 16px;
}
h1:focus {
  outline: none;
}
@media (max-width: 480px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  .answer {
    padding-top: 20px;
  }
  .foot .action {
    flex: 1;
    justify-content: center;
  }
}
</style>
