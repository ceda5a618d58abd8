import { useEventListener } from '@vueuse/core'
import type { Answers } from '#core/form/answers'
import type { OfferedRow } from '#core/form/rows'

/** What is kept on the respondent's device until the response is sent. */
export interface KeptResponse {
  release: number
  begunOn: string
  key: string
  answers: Answers
  /** When the server kept the draft that they go on from; null for none. */
  base: string | null
  /** Under what the server keeps them, too, because that was asked for; null where it doesn’t. */
  secret: string | null
  /** The page that it was typed on. */
  seat: string | null
  place: { section: number; only: number | null }
  /** Rows of long lists that were chosen. */
  rows: Record<string, OfferedRow[]>
}

/** What was kept, as far as it can be read; null for anything else. */
export function readKept(value: unknown): KeptResponse | null {
  if (!isObject(value)) return null
  const { release, begunOn, key, answers, place, rows = {} } = value
  if (typeof release !== 'number' || typeof begunOn !== 'string' || typeof key !== 'string') return null
  if (!isAnswers(answers) || !isPlace(place) || !isRowsByList(rows)) return null
  const [base, seat, secret] = [value.base, value.seat, value.secret].map(mark =>
    typeof mark === 'string' ? mark : null,
  )
  return {
    release,
    begunOn,
    key,
    answers,
    place,
    rows,
    base: base ?? null,
    seat: seat ?? null,
    secret: secret ?? null,
  }
}
/** Single answers are read by their questions. */
const isAnswers = (value: unknown): value is Answers => isObject(value)
const isPlace = (value: unknown): value is KeptResponse['place'] =>
  isObject(value) &&
  typeof value.section === 'number' &&
  (value.only === null || typeof value.only === 'number')
const isRow = (value: unknown): value is OfferedRow =>
  isObject(value) && typeof value.code === 'string' && typeof value.label === 'string'
const isRowsByList = (value: unknown): value is KeptResponse['rows'] =>
  isObject(value) && Object.values(value).every(rows => Array.isArray(rows) && rows.every(isRow))

const keyOf = (token: string) => `tobbin-answers-${token}`
/** Whether this device keeps answers of a link. */
export const isKeptFor = (token: string): boolean =>
  readKept(readJson(localStorage.getItem(keyOf(token)))) !== null

/** The answers of a link, kept on this device through reloads and lost connections. `otherTab`: what another tab has kept; null where it has sent them, or dropped them. */
export function useKeptAnswers(token: string, otherTab: (found: KeptResponse | null) => void = () => {}) {
  const storageKey = keyOf(token)
  /** Whether the device keeps what is typed; the page says so only then. */
  const isKept = ref(false)
  const forget = () => localStorage.removeItem(storageKey)
  /** What was kept last; null when there is nothing, or nothing that can be read. */
  function recall(): KeptResponse | null {
    const found = readKept(readJson(localStorage.getItem(storageKey)))
    if (!found) {
      forget() // unreadable: the answers can't be brought back, so begin with none
      return null
    }
    isKept.value = true
    return found
  }
  function keep(response: KeptResponse) {
    try {
      localStorage.setItem(storageKey, JSON.stringify(response))
      isKept.value = true
    } catch {
      isKept.value = false // the device keeps nothing (private window, full store); the page says so by not claiming it
    }
  }
  // Another tab of this browser goes on with the same response: both show the same.
  useEventListener('storage', event => {
    if (event.key === storageKey) otherTab(readKept(readJson(event.newValue)))
  })
  return { isKept, recall, keep, forget }
}
