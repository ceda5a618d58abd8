import type { Answer, Answers } from '#core/form/answers'
import { findClosingMessage } from '#core/fill/closing'
import { allProblems, answersInPlay, fill } from '#core/fill/fill'
import { pageOfProblem, type Page } from '#core/fill/pages'
import type { RespondentPage, Sending } from '#shared/api/answering'

const FIRST_PAGE: Page = { section: 0, only: null }

/** The filling of one response on a respondent's page: answers, the way through the pages, checking, sending. */
export function useAnswering(token: string, page: RespondentPage | null) {
  const visible = useVisibleForm(token, page)
  const kept = useKeptAnswers(token)
  const { fromLink, unknownParameters } = useLinkParameters(visible.plan)
  const sending = useSending(token)
  const begin = (): Answers => ({ ...page?.answers, ...fromLink.value })
  const answers = shallowRef<Answers>(begin())
  const begunOn = ref(page?.today ?? '')
  const key = ref('')
  const place = ref<Page>(FIRST_PAGE)
  const stage = ref<'fill' | 'check' | 'sent'>('fill')
  const filled = computed(() =>
    visible.plan.value ? fill(visible.plan.value, answers.value, begunOn.value) : null,
  )
  // Whoever takes a later turn begins at what is theirs to answer; what they only read is one step back.
  const isLaterTurn = page?.turn != null && !page.turn.isFirst
  if (isLaterTurn) place.value = { section: filled.value?.path.find(visible.isFilledHere) ?? 0, only: null }
  const pagination = usePagination(filled, place)

  const currentSending = (): Sending => ({
    release: page?.release ?? 0,
    key: key.value,
    begunOn: begunOn.value,
    answers: onlyOwn(filled.value ? answersInPlay(filled.value) : {}),
  })
  const onlyOwn = (all: Answers): Answers =>
    Object.fromEntries(Object.entries(all).filter(([code]) => visible.mayFill(code)))
  const keep = () =>
    kept.keep({
      ...currentSending(),
      answers: answers.value,
      place: place.value,
      rows: visible.chosenRows.value,
    })
  function recall() {
    key.value = newKey()
    const found = kept.recall()
    if (!found) return
    // What others answered is as the server has it now.
    answers.value = { ...begin(), ...onlyOwn(found.answers), ...fromLink.value }
    if (!isLaterTurn) begunOn.value = found.begunOn
    key.value = found.key
    place.value = found.place
    visible.setChosenRows(found.rows)
  }
  onMounted(recall)

  const state = { answers, begunOn, key, place, stage, filled, pagination, keep, begin, currentSending }
  return { ...state, visible, kept, sending, unknownParameters }
}
export type Answering = ReturnType<typeof useAnswering>

/** What a respondent does on the page. */
export function useAnsweringSteps(
  { answers, begunOn, key, place, stage, filled, pagination, visible, kept, sending, ...own }: Answering,
  today: string,
) {
  function answer(code: string, value: Answer) {
    answers.value = { ...answers.value, [code]: value }
    own.keep()
    visible.answered(code, own.currentSending)
  }
  function goOn() {
    if (pagination.goOn() === 'end') stage.value = 'check'
    own.keep()
  }
  function goBack() {
    sending.refusal.value = null
    if (stage.value === 'check') stage.value = 'fill'
    else pagination.goBack()
  }
  function goTo(section: number) {
    place.value = pagination.pages.value.find(p => p.section === section) ?? place.value
    stage.value = 'fill'
  }
  /** Sends the response; where something is missing or wrong, goes there instead. */
  async function send() {
    if (!filled.value) return
    const [open] = allProblems(filled.value)
    if (open) {
      place.value = pageOfProblem(filled.value, open) ?? place.value
      stage.value = 'fill'
      pagination.tried.value = true
      return
    }
    if (await sending.send(own.currentSending(), findClosingMessage(filled.value))) finish()
  }
  async function giveBack(remark: string) {
    if (await sending.giveBack(remark)) finish()
  }
  function finish() {
    kept.forget()
    stage.value = 'sent'
  }
  function startAnother() {
    answers.value = own.begin()
    key.value = newKey()
    begunOn.value = today
    place.value = FIRST_PAGE
    pagination.tried.value = false
    stage.value = 'fill'
  }
  return { answer, goOn, goBack, goTo, send, giveBack, startAnother }
}

/** A key under which one sending is stored once, however often it is sent. */
function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, b => b.toString(16).padStart(2, '0')).join('')
}
