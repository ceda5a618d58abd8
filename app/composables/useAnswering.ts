import type { Answer } from '#core/form/answers'
import { allProblems, type Filled } from '#core/fill/fill'
import { pageOfProblem, type Page } from '#core/fill/pages'
import type { RespondentPage, Sending } from '#shared/api/answering'
import { NOT_READ, type SigningState } from '~/components/answer/signing'
import { readKept, type KeptResponse } from './useKeptAnswers'
import type { Offline } from './useOffline'

/** The filling of one response on a respondent's page, with what is kept of it and how it is sent. */
export function useAnswering(token: string, page: RespondentPage | null) {
  const filling = useFilling(token, page)
  const { answers, key, place, stage, visible, currentSending, typedSoFar } = filling
  /** Whether another tab of this browser has sent these answers, or dropped them. */
  const isSentElsewhere = ref(false)
  const kept = useKeptAnswers(token, found => {
    if (stage.value === 'sent' || stage.value === 'own') return
    isSentElsewhere.value = found === null
    // Opened before anything was typed, both tabs go on with what is typed first.
    if (found) filling.bringBack({ ...found, place: place.value })
  })
  const isBeginning = page !== null && page.own === null && (page.turn?.isFirst ?? true)
  const offline = useOffline(token, isBeginning)
  const sending = useSending(token, page?.isGuarded === true, offline)
  const draft = useTurnDraft(token, page, newKey())
  const current = () => ({
    ...ownPartOf(currentSending()),
    answers: answers.value,
    place: place.value,
    rows: visible.chosenRows.value,
  })
  const elsewhere = useContinue(token, current, keepHere)
  /** The response as this device keeps it. */
  function keptNow(): KeptResponse {
    const mark = elsewhere.secret.value === null ? draft.mark() : elsewhere.mark()
    return { ...current(), seat: null, secret: null, ...mark }
  }
  function keepHere() {
    kept.keep(keptNow())
  }
  function keep() {
    keepHere()
    draft.typed(typedSoFar, keepHere)
    elsewhere.typed()
  }
  function bringBack(found: KeptResponse) {
    filling.bringBack(found)
    if (page?.own?.mayCorrect) stage.value = 'fill'
  }
  onMounted(async () => {
    key.value = page?.turn?.draft?.key ?? newKey()
    const found = kept.recall()
    draft.compare(found)
    if (found) bringBack(found)
    const fromLink = await elsewhere.open(found)
    if (!fromLink) return
    bringBack(fromLink)
    keepHere()
  })
  const takeBack = useWaited(filling, sending, offline, keepHere)
  function finish() {
    kept.forget()
    void elsewhere.drop()
    stage.value = 'sent'
  }
  const signing = shallowRef<SigningState>(NOT_READ)
  const ways = { kept, draft, sending, signing, elsewhere, offline, isSentElsewhere }
  return { ...filling, ...ways, keep, keptNow, takeBack, finish }
}
/** What becomes of a response that waited to be sent. @returns how one is taken back that the server refused */
function useWaited(
  { key, stage, bringBack, closeAs }: ReturnType<typeof useFilling>,
  { sent, goneOut }: ReturnType<typeof useSending>,
  { waiting, delivered, drop }: Offline,
  keepHere: () => void,
) {
  // What waited from this page has gone out: it ends as it would have at once.
  watch(waiting, async all => {
    if (stage.value !== 'sent' || sent.value || all.some(w => w.key === key.value)) return
    const taken = await delivered(key.value)
    if (taken) goneOut(taken, closeAs)
  })
  return async (waited: { key: string; kept: string }) => {
    const response = readKept(readJson(waited.kept))
    if (response) bringBack(response)
    stage.value = 'fill'
    keepHere()
    await drop(waited.key)
  }
}

/** What a page keeps of a sending. */
const ownPartOf = ({ release, key, begunOn }: Sending) => ({ release, key, begunOn })
export type Answering = ReturnType<typeof useAnswering>

/** What a respondent does on the page. */
export function useAnsweringSteps(
  { answers, begunOn, key, place, stage, filled, pagination, visible, sending, ...own }: Answering,
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
    if (!filled.value || goToProblem()) return
    own.draft.stop()
    const { signatures } = own.signing.value
    const signed = signatures?.length ? { signatures } : {}
    const body = { ...own.draft.mark(), ...own.currentSending(), ...signed }
    if (await sending.send(body, own.closeAs, JSON.stringify(own.keptNow()))) return own.finish()
    own.draft.refused(sending.refusal.value?.code)
    const { code, problems } = sending.refusal.value ?? {}
    if (code !== 'run-out') return
    await visible.refetch(body)
    goToQuestion(problems?.[0]?.path ?? '')
  }
  /** Goes to the first thing that is missing or wrong; false where nothing is. */
  function goToProblem(): boolean {
    const [open] = filled.value ? allProblems(filled.value) : []
    if (!filled.value || !open) return false
    place.value = pageOfProblem(filled.value, open) ?? place.value
    stage.value = 'fill'
    pagination.tried.value = true
    return true
  }
  /** Goes to where a question is asked. */
  function goToQuestion(code: string) {
    place.value = (filled.value && pageOfQuestion(filled.value, pagination.pages.value, code)) ?? place.value
    stage.value = 'fill'
  }
  function startAnother() {
    answers.value = own.begin()
    key.value = newKey()
    begunOn.value = today
    place.value = FIRST_PAGE
    pagination.tried.value = false
    stage.value = 'fill'
  }
  return { answer, goOn, goBack, goTo, goToQuestion, send, startAnother }
}

/** The page on which a question is asked; null where it is nowhere. */
function pageOfQuestion({ plan }: Filled, pages: readonly Page[], code: string): Page | null {
  const asked = plan.places.find(p => p.kind !== 'section' && p.code === code)
  const own = pages.filter(p => p.section === asked?.section)
  return own.find(p => p.only === asked?.order) ?? own[0] ?? null
}
