<script setup lang="ts">
import { isAnswer, type Answer, type Answers } from '#core/fill/answers'
import { closingOf, type Said } from '#core/fill/closing'
import { allProblems, answersInPlay, fill } from '#core/fill/fill'
import type { Page } from '#core/fill/pages'
import { planOf } from '#core/fill/plan'
import { tellResponse } from '#core/fill/response'
import type { Form } from '#core/form/definition'
import type { Refusal } from '#shared/api'
import { FILE_TAKER, type FileTaker } from '~/components/answer/widgets/widget'

/** The respondent's page: one page after the other, then a look at all answers, then sent. */
definePageMeta({ layout: 'quiet' })
interface Opened { release: number, definition: Form, today: string }
interface Kept { release: number, begunOn: string, key: string, answers: Answers, place: Page }
const route = useRoute()
const token = String(route.params.token)
const { data, error } = await useAsyncData(`answer-${token}`, () => useRequestFetch()<Opened>(`/api/answer/${encodeURIComponent(token)}`))
const plan = computed(() => data.value ? planOf(data.value.definition) : null)
const begunOn = ref(data.value?.today ?? '')
const key = ref('')
const place = ref<Page>({ section: 0, only: null })
const stage = ref<'fill' | 'check' | 'sent'>('fill')
const sending = ref(false)
const refusal = ref<Refusal | null>(null)
const said = ref<Said | null>(null)
const kept = ref(false)
const page = useTemplateRef('page')
const store = `tobbin-answers-${token}`
useHead({ title: () => data.value?.definition.title ?? 'Form', htmlAttrs: { lang: () => data.value?.definition.language ?? 'en' } })

/** What the link brings: the hidden values by their parameters; what the form does not know is said. */
const hidden = computed(() => new Map((plan.value?.questions ?? []).flatMap(({ place: { node } }) => node.type === 'hidden' ? [[node.from ?? node.code, node.code] as const] : [])))
const parameters = Object.entries(route.query).flatMap(([name, value]) => typeof value === 'string' ? [[name, value] as const] : [])
const fromLink = (): Answers => Object.fromEntries(parameters.flatMap(([name, value]) => hidden.value.has(name) ? [[hidden.value.get(name) ?? name, value]] : []))
const strange = computed(() => parameters.map(([name]) => name).filter(name => !hidden.value.has(name)))

const answers = shallowRef<Answers>(fromLink())
const filled = computed(() => plan.value ? fill(plan.value, answers.value, begunOn.value) : null)
const way = useWay(filled, place)
const { at, pages, page: current } = way
const lines = computed(() => plan.value ? tellResponse(plan.value, answers.value, begunOn.value).filter(l => l.state !== 'unasked' && l.type !== 'hidden') : [])

function newKey() {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, b => b.toString(16).padStart(2, '0')).join('')
}
const isKept = (value: unknown): value is Kept => typeof value === 'object' && value !== null && 'answers' in value && 'begunOn' in value && 'key' in value && typeof value.key === 'string' && typeof value.begunOn === 'string' && typeof value.answers === 'object' && isAnswer(value.answers)
onMounted(() => {
  key.value = newKey()
  try {
    const found: unknown = JSON.parse(localStorage.getItem(store) ?? 'null')
    if (isKept(found)) {
      answers.value = { ...found.answers, ...fromLink() }
      begunOn.value = found.begunOn
      key.value = found.key
      if (found.place) place.value = found.place
      kept.value = true
    }
  }
  catch {
    localStorage.removeItem(store) // unreadable: the answers can't be brought back, so begin with none
  }
})
function keep() {
  const state: Kept = { release: data.value?.release ?? 0, begunOn: begunOn.value, key: key.value, answers: answers.value, place: place.value }
  try {
    localStorage.setItem(store, JSON.stringify(state))
    kept.value = true
  }
  catch {
    kept.value = false // the device keeps nothing (private window, full store); the page says so by not claiming it
  }
}
function answer(code: string, value: Answer) {
  answers.value = { ...answers.value, [code]: value }
  keep()
}
provide<FileTaker>(FILE_TAKER, {
  take: (question, file) => $fetch<{ file: string, name: string, bytes: number }, string>(`/api/answer/${encodeURIComponent(token)}/files`, { method: 'POST', query: { question, key: key.value, name: file.name }, body: file, headers: { 'content-type': 'application/octet-stream' } }),
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
    place.value = pages.value.find(p => p.section === section && (p.only === null || p.only >= order)) ?? place.value
    stage.value = 'fill'
    way.tried.value = true
    return toTop()
  }
  sending.value = true
  refusal.value = null
  try {
    await $fetch(`/api/answer/${encodeURIComponent(token)}`, { method: 'POST', body: { release: data.value.release, key: key.value, begunOn: begunOn.value, answers: answersInPlay(filled.value) } })
    said.value = closingOf(filled.value)
    localStorage.removeItem(store)
    stage.value = 'sent'
    if (said.value.forward) window.location.assign(said.value.forward)
  }
  catch (cause) {
    refusal.value = refusalOf(cause)
  }
  sending.value = false
  toTop()
}
function another() {
  answers.value = fromLink()
  key.value = newKey()
  begunOn.value = data.value?.today ?? ''
  place.value = { section: 0, only: null }
  way.tried.value = false
  stage.value = 'fill'
  toTop()
}
</script>

<template>
  <main ref="page" class="answer">
    <template v-if="error || !data || !filled">
      <h1>This form can’t be opened</h1>
      <p>{{ error ? refusalOf(error).sentence : 'Reload the page to try again.' }}</p>
    </template>
    <template v-else>
      <div class="top"><strong>{{ data.definition.title }}</strong><span v-if="kept && stage !== 'sent'" class="quiet small">Kept on this device</span></div>
      <p v-if="strange.length > 0 && stage === 'fill'" class="strange small" role="status">The link brings {{ strange.map(n => `“${n}”`).join(', ') }}, which this form does not know. It is left aside; please tell whoever sent the link.</p>
      <template v-if="stage === 'sent' && said">
        <h1 tabindex="-1">{{ said.title }}</h1>
        <p class="said">{{ said.text }}</p>
        <p v-if="said.forward"><a :href="said.forward">Go on</a></p>
        <div v-else><button class="plain-button big" @click="another">Answer once more</button></div>
      </template>
      <template v-else>
        <div class="progress">
          <div class="bars" aria-hidden="true"><i v-for="(_, i) in pages" :key="i" :class="{ done: stage === 'check' || i <= at }" /></div>
          <p class="quiet small">{{ stage === 'check' ? 'Last step' : way.progress.value }}</p>
        </div>
        <template v-if="stage === 'check'">
          <h1 tabindex="-1">Check your answers</h1>
          <div v-if="refusal" class="refusal" role="alert"><p><strong>{{ refusal.sentence }}</strong></p><ul v-if="refusal.problems"><li v-for="(p, i) in refusal.problems" :key="i">{{ p.path }}: {{ p.sentence }}</li></ul></div>
          <dl class="sheet">
            <template v-for="l in lines" :key="l.path">
              <div v-if="l.heading" class="head-line"><h2>{{ l.heading }}</h2><button class="text-button" @click="goTo(l.section)">Change<span class="hidden-words"> {{ l.heading }}</span></button></div>
              <h3 v-if="l.entry" class="entry-line">{{ l.entry }}</h3>
              <div class="line"><dt>{{ l.label }}</dt><dd :class="{ quiet: l.state === 'blank' }">{{ l.state === 'blank' ? 'left blank' : l.text }}</dd></div>
            </template>
          </dl>
          <div class="row-flex foot"><button class="plain-button big" @click="goBack">Back</button><span class="spread" /><button class="action big" :disabled="sending" @click="send">{{ sending ? 'Sending …' : 'Send' }}</button></div>
        </template>
        <form v-else-if="current" novalidate @submit.prevent="goOn">
          <AnswerSection :filled="filled" :page="current" :answers="answers" :tried="way.tried.value" prefix="q" level="h1" @answer="answer" />
          <div class="row-flex foot">
            <button type="button" class="plain-button big" :class="{ gone: at === 0 }" :disabled="at === 0" @click="goBack">Back</button>
            <span class="spread" />
            <button class="action big">{{ way.nextWords.value }}</button>
          </div>
        </form>
      </template>
    </template>
  </main>
</template>

<style scoped>
.answer { max-width: 600px; margin: 0 auto; padding: 36px 16px 80px; display: grid; gap: 28px; }
.top { display: flex; justify-content: space-between; gap: 12px; }
.bars { display: flex; gap: min(5px, 1%); margin-bottom: 8px; }
.bars i { flex: 1; min-width: 1px; height: 5px; background: var(--line); }
.bars i.done { background: var(--verdigris); }
.foot { margin-top: 36px; }
.big { min-height: 46px; padding: 8px 20px; }
.gone { visibility: hidden; }
dl { padding: 8px 20px 14px; }
.head-line { display: flex; justify-content: space-between; align-items: baseline; padding: 16px 0 4px; }
.head-line h2 { font-size: 17px; }
.line { display: grid; grid-template-columns: 1fr 1fr; gap: 16px; padding: 8px 0; border-bottom: 1px dotted var(--line); }
dd { font-weight: 600; overflow-wrap: anywhere; } dd.quiet { font-weight: 400; font-style: italic; }
.entry-line { font-size: 15px; padding: 10px 0 0; color: var(--slate); }
.said { white-space: pre-line; }
.strange { background: var(--weld-wash); padding: 8px 12px; }
.refusal { border: 2px solid var(--madder); background: var(--madder-wash); padding: 12px 16px; }
h1:focus { outline: none; }
@media (max-width: 480px) { .line { grid-template-columns: 1fr; gap: 2px; } .answer { padding-top: 20px; } .foot .action { flex: 1; justify-content: center; } }
</style>
