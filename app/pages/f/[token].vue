<script setup lang="ts">
import type { Answer, Answers } from '#core/fill/answers'
import { allProblems, answersInPlay, fill, problemsIn } from '#core/fill/fill'
import { planOf } from '#core/fill/plan'
import { tellResponse } from '#core/fill/tell'
import type { Form } from '#core/form/definition'
import type { Refusal } from '#shared/api'

/** The respondent's page: one section after the other, then a look at all answers, then sent. */
definePageMeta({ layout: 'quiet' })
interface Opened { release: number, definition: Form, today: string }
interface Kept { release: number, begunOn: string, key: string, answers: Answers, section: number }
const route = useRoute()
const token = String(route.params.token)
const { data, error } = await useAsyncData(`answer-${token}`, () => useRequestFetch()<Opened>(`/api/answer/${encodeURIComponent(token)}`))
const plan = computed(() => data.value ? planOf(data.value.definition) : null)
const answers = shallowRef<Answers>({})
const begunOn = ref(data.value?.today ?? '')
const key = ref('')
const section = ref(0)
const stage = ref<'fill' | 'check' | 'sent'>('fill')
const tried = ref(false)
const sending = ref(false)
const refusal = ref<Refusal | null>(null)
const kept = ref(false)
const page = useTemplateRef('page')
const store = `tobbin-answers-${token}`
useHead({ title: () => data.value?.definition.title ?? 'Form', htmlAttrs: { lang: () => data.value?.definition.language ?? 'en' } })

const filled = computed(() => plan.value ? fill(plan.value, answers.value, begunOn.value) : null)
const path = computed(() => filled.value?.path ?? [])
const current = computed(() => path.value.filter(i => i <= section.value).at(-1) ?? path.value[0])
const at = computed(() => current.value === undefined ? -1 : path.value.indexOf(current.value))
const next = computed(() => path.value[at.value + 1])
const lines = computed(() => plan.value ? tellResponse(plan.value, answers.value, begunOn.value).filter(l => l.state !== 'unasked') : [])

function newKey() {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, b => b.toString(16).padStart(2, '0')).join('')
}
const isKept = (value: unknown): value is Kept => typeof value === 'object' && value !== null && 'answers' in value && 'begunOn' in value && 'key' in value && typeof value.key === 'string' && typeof value.begunOn === 'string' && typeof value.answers === 'object'
onMounted(() => {
  key.value = newKey()
  try {
    const found: unknown = JSON.parse(localStorage.getItem(store) ?? 'null')
    if (isKept(found)) {
      answers.value = found.answers
      begunOn.value = found.begunOn
      key.value = found.key
      section.value = Number(found.section) || 0
      kept.value = true
    }
  }
  catch {
    localStorage.removeItem(store) // unreadable: the answers can't be brought back, so begin with none
  }
})
function keep() {
  const state: Kept = { release: data.value?.release ?? 0, begunOn: begunOn.value, key: key.value, answers: answers.value, section: section.value }
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
function toTop() {
  void nextTick(() => {
    window.scrollTo({ top: 0 })
    page.value?.querySelector<HTMLElement>('.problems, h1')?.focus()
  })
}
function goOn() {
  const open = current.value === undefined ? undefined : plan.value?.sections[current.value]
  tried.value = !!open && !!filled.value && problemsIn(filled.value, open).length > 0
  if (!tried.value) {
    if (next.value === undefined) stage.value = 'check'
    else section.value = next.value
    keep()
  }
  toTop()
}
function goBack() {
  tried.value = false
  refusal.value = null
  if (stage.value === 'check') stage.value = 'fill'
  else section.value = path.value[at.value - 1] ?? 0
  toTop()
}
function goTo(index: number) {
  section.value = index
  stage.value = 'fill'
  toTop()
}
async function send() {
  if (!filled.value || !data.value) return
  const open = allProblems(filled.value)[0]
  if (open) {
    goTo(open.question.place.section)
    tried.value = true
    return
  }
  sending.value = true
  refusal.value = null
  try {
    await $fetch(`/api/answer/${encodeURIComponent(token)}`, { method: 'POST', body: { release: data.value.release, key: key.value, begunOn: begunOn.value, answers: answersInPlay(filled.value) } })
    localStorage.removeItem(store)
    stage.value = 'sent'
  }
  catch (cause) {
    refusal.value = refusalOf(cause)
  }
  sending.value = false
  toTop()
}
function another() {
  answers.value = {}
  key.value = newKey()
  begunOn.value = data.value?.today ?? ''
  section.value = 0
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
      <template v-if="stage === 'sent'">
        <h1 tabindex="-1">Thank you</h1>
        <p>Your answers have been sent.</p>
        <div><button class="plain-button big" @click="another">Answer once more</button></div>
      </template>
      <template v-else>
        <div class="progress">
          <div class="bars" aria-hidden="true"><i v-for="(s, i) in path" :key="s" :class="{ done: stage === 'check' || i <= at }" /></div>
          <p class="quiet small">{{ stage === 'check' ? 'Last step' : `Part ${at + 1} of about ${path.length}` }}</p>
        </div>
        <template v-if="stage === 'check'">
          <h1 tabindex="-1">Check your answers</h1>
          <div v-if="refusal" class="refusal" role="alert"><p><strong>{{ refusal.sentence }}</strong></p><ul v-if="refusal.problems"><li v-for="(p, i) in refusal.problems" :key="i">{{ p.path }}: {{ p.sentence }}</li></ul></div>
          <dl class="sheet">
            <template v-for="l in lines" :key="l.code">
              <div v-if="l.heading" class="head-line"><h2>{{ l.heading }}</h2><button class="text-button" @click="goTo(l.section)">Change<span class="hidden-words"> {{ l.heading }}</span></button></div>
              <div class="line"><dt>{{ l.label }}</dt><dd :class="{ quiet: l.state === 'blank' }">{{ l.state === 'blank' ? 'left blank' : l.text }}</dd></div>
            </template>
          </dl>
          <div class="row-flex foot"><button class="plain-button big" @click="goBack">Back</button><span class="spread" /><button class="action big" :disabled="sending" @click="send">{{ sending ? 'Sending …' : 'Send' }}</button></div>
        </template>
        <form v-else-if="current !== undefined" novalidate @submit.prevent="goOn">
          <AnswerSection :filled="filled" :section="current" :answers="answers" :tried="tried" prefix="q" level="h1" @answer="answer" />
          <div class="row-flex foot">
            <button type="button" class="plain-button big" :class="{ gone: at === 0 }" :disabled="at === 0" @click="goBack">Back</button>
            <span class="spread" />
            <button class="action big">{{ next === undefined ? 'Check your answers' : `Next: ${data.definition.sections[next]?.title}` }}</button>
          </div>
        </form>
      </template>
    </template>
  </main>
</template>

<style scoped>
.answer { max-width: 600px; margin: 0 auto; padding: 36px 16px 80px; display: grid; gap: 28px; }
.top { display: flex; justify-content: space-between; gap: 12px; }
.bars { display: flex; gap: 5px; margin-bottom: 8px; }
.bars i { flex: 1; height: 5px; background: var(--line); }
.bars i.done { background: var(--verdigris); }
.foot { margin-top: 36px; }
.big { min-height: 46px; padding: 8px 20px; }
.gone { visibility: hidden; }
dl { padding: 8px 20px 14px; }
.head-line { display: flex; justify-content: space-between; align-items: baseline; padding: 16px 0 4px; }
.head-line h2 { font-size: 17px; }
.line { display: grid; grid-template-columns: 1fr 1fr; gap: 16px; padding: 8px 0; border-bottom: 1px dotted var(--line); }
dd { font-weight: 600; overflow-wrap: anywhere; } dd.quiet { font-weight: 400; font-style: italic; }
.refusal { border: 2px solid var(--madder); background: var(--madder-wash); padding: 12px 16px; }
h1:focus { outline: none; }
@media (max-width: 480px) { .line { grid-template-columns: 1fr; gap: 2px; } .answer { padding-top: 20px; } .foot .action { flex: 1; justify-content: center; } }
</style>
