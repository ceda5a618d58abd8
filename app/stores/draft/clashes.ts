import { applyEdit, EditError, locate, type Edit } from '#core/form/edits'
import type { Form } from '#core/form/definition'
import { listPlaces, nodeText } from '#core/form/walk'
import { sameAnswer, isAnswer } from '#core/form/answers'
import type { Change } from '#shared/api/forms'

/** What two people changed at once: a sentence, and what can be done about it. */
export interface Clash {
  sentence: string
  offer: Offer | null
}
interface Offer {
  words: string
  edit: Edit
  /** Leaving it as it is, in words. */
  otherwise: string
}

/** Whose changes they are: one's own come from another tab. */
const nameOf = ({ by, own }: Pick<Change, 'by' | 'own'>): string => (own ? `${by} (in another tab)` : by)

/** What an edit sets, in words: so that what could not be made can be read. */
export function describeEdit(edit: Edit): string {
  if (!('set' in edit)) return ''
  const parts = Object.entries(edit.set).map(([key, value]) => `${key}: ${valueText(value)}`)
  return `(${parts.join(', ').slice(0, 300)})`
}

const valueText = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value))
const quoted = (value: unknown): string => (typeof value === 'string' ? `“${value}”` : JSON.stringify(value))

/** The property that two edits set to different values; null when they don't. */
function sharedKey(theirs: Edit, own: Edit): string | null {
  if (theirs.do !== 'change' || own.do !== 'change' || theirs.what !== own.what) return null
  return Object.keys(own.set).find(k => k in theirs.set && !isSame(theirs.set[k], own.set[k])) ?? null
}
const setOf = (edit: Edit): Readonly<Record<string, unknown>> => (edit.do === 'change' ? edit.set : {})
const codeIn = (what: string) => what.replace(/^\w+\//, '')

/** Two edits that set the same property of the same thing to different values, of which the own one is the later; null when they don't. */
export function findClash(change: Change, theirs: Edit, own: Edit): Clash | null {
  const key = sharedKey(theirs, own)
  if (key === null || own.do !== 'change') return null
  const [before, stands] = [quoted(setOf(theirs)[key]), quoted(own.set[key])]
  return {
    sentence: `${nameOf(change)} changed the ${key} of ${codeIn(own.what)} at the same time: theirs was ${before}, yours ${stands} stands.`,
    offer: {
      words: 'Take theirs',
      edit: { do: 'change', what: own.what, set: { [key]: setOf(theirs)[key] } },
      otherwise: 'Keep mine',
    },
  }
}

/** The same for whoever was earlier: theirs stands, and the own can be taken back. */
export function findOverruled(change: Change, theirs: Edit, own: Edit): Clash | null {
  const key = sharedKey(theirs, own)
  if (key === null || own.do !== 'change') return null
  const [mine, stands] = [quoted(own.set[key]), quoted(setOf(theirs)[key])]
  return {
    sentence: `${nameOf(change)} changed the ${key} of ${codeIn(own.what)} right after you: yours was ${mine}, theirs ${stands} stands.`,
    offer: {
      words: 'Take mine',
      edit: { do: 'change', what: own.what, set: { [key]: own.set[key] } },
      otherwise: 'Keep theirs',
    },
  }
}

/**
 * Something was deleted in which somebody is writing here: it can be put back as it was here, with what was written.
 * @param before the form as it was here, own edits made
 * @param after the form without it
 * @param written what is being written in
 */
export function findDeleted(
  change: Change,
  theirs: Edit,
  before: Form,
  after: Form,
  written: readonly string[],
): Clash | null {
  if (theirs.do !== 'remove') return null
  const place = listPlaces(before).find(p => p.address === theirs.what)
  const isWritten = written.some(what => what === theirs.what || isWithin(before, what, theirs.what))
  if (!place || !isWritten) return null
  const { container, index } = locate(before, theirs.what)
  const end = `section/${after.sections.at(-1)?.code ?? ''}`
  const node = place.node
  const spots = [
    { into: container, at: index },
    { into: container, at: 0 },
    { into: end, at: 0 },
  ]
  const edits = spots.map((spot): Edit => ({ do: 'insert', ...spot, node }))
  const edit = edits.find(e => canBeMade(after, e))
  const name = nodeText(node).text || place.code
  return {
    sentence: `${nameOf(change)} deleted “${name}” while it was being written in here.`,
    offer: edit ? { words: 'Put it back', edit, otherwise: 'Leave it out' } : null,
  }
}

function canBeMade(form: Form, edit: Edit): boolean {
  try {
    applyEdit(form, edit)
    return true
  } catch (error) {
    if (error instanceof EditError) return false
    throw error
  }
}

/** What an edit sets is JSON, as answers are. */
const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (isAnswer(a) && isAnswer(b) && sameAnswer(a, b))

/** Whether something stands inside something else. */
export function isWithin(form: Form, what: string, container: string): boolean {
  const places = listPlaces(form)
  const place = places.find(p => p.address === what)
  if (!place) return false
  const section = places.find(p => p.kind === 'section' && p.section === place.section)
  return section?.address === container || place.groups.some(g => g.address === container)
}
