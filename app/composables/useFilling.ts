import type { Answers } from '#core/form/answers'
import { findClosingMessage, PLAIN_CLOSING, type ClosingMessage } from '#core/fill/closing'
import { answersInPlay, fill } from '#core/fill/fill'
import type { Standing } from '#core/form/standing'
import type { Page } from '#core/fill/pages'
import type { RespondentPage, Sending, Sent } from '#shared/api/answering'
import type { KeptResponse } from './useKeptAnswers'

export const FIRST_PAGE: Page = { section: 0, only: null }

/** What texts may quote besides answers; the link is known where it is opened: a turn has one of its own. */
function standingHere(token: string, page: RespondentPage | null): Standing {
  const number = page?.standing.response?.number ?? null
  const link = number === null ? null : linkAddress(`/f/${token}`)
  return { ...page?.standing, response: { number, link } }
}

/** One response as it is filled on a respondent's page: the answers, and the way through the pages. */
export function useFilling(token: string, page: RespondentPage | null) {
  const visible = useVisibleForm(token, page)
  const { fromLink, unknownParameters } = useLinkParameters(visible.plan, page?.brought)
  const begin = (): Answers => ({ ...page?.answers, ...fromLink.value })
  const answers = shallowRef<Answers>(begin())
  const begunOn = ref(page?.today ?? '')
  const key = ref('')
  const place = ref<Page>(FIRST_PAGE)
  const stage = ref<'own' | 'fill' | 'check' | 'sent'>(page?.own ? 'own' : 'fill')
  const standing = shallowRef(standingHere(token, page))
  const filled = computed(() =>
    visible.plan.value ? fill(visible.plan.value, answers.value, begunOn.value, standing.value) : null,
  )
  // Whoever takes a later turn begins at what is theirs to answer; what they only read is one step back.
  const isLaterTurn = page?.turn != null && !page.turn.isFirst
  if (isLaterTurn) place.value = { section: filled.value?.path.find(visible.isFilledHere) ?? 0, only: null }
  const pagination = usePagination(filled, place)

  const onlyOwn = (all: Answers): Answers =>
    Object.fromEntries(Object.entries(all).filter(([code]) => visible.mayFill(code)))
  const currentSending = (): Sending => ({
    release: page?.release ?? 0,
    key: key.value,
    begunOn: begunOn.value,
    ...(page?.own ? { base: page.own.at } : {}),
    answers: onlyOwn(filled.value ? answersInPlay(filled.value) : {}),
  })
  /** What is said at the end, when the response has its number. */
  function closeAs({ number, link, own: ownPath }: Sent): ClosingMessage {
    const path = link ?? ownPath
    const own = path === null ? null : linkAddress(path)
    standing.value = { ...standing.value, response: { number, link: own } }
    return filled.value ? findClosingMessage(filled.value) : PLAIN_CLOSING
  }
  /** What this party has typed, as it stands. */
  const typedSoFar = () => ({ key: key.value, answers: onlyOwn(answers.value) })
  /** Puts back what was typed before; what others answered is as the server has it now. */
  function bringBack(found: Pick<KeptResponse, 'answers' | 'begunOn' | 'key' | 'place' | 'rows'>) {
    answers.value = { ...begin(), ...onlyOwn(found.answers), ...fromLink.value }
    if (!isLaterTurn) begunOn.value = found.begunOn
    key.value = found.key
    place.value = found.place
    visible.setChosenRows(found.rows)
  }
  const state = { answers, begunOn, key, place, stage, filled, pagination }
  return { ...state, visible, unknownParameters, begin, currentSending, typedSoFar, closeAs, bringBack }
}
