import type { AnyPgColumn } from 'drizzle-orm/pg-core'
import { and, asc, desc, eq, gte, isNotNull, isNull, lt, or, sql, type SQL } from 'drizzle-orm'
import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import { isChoice } from '../../core/form/questions'
import { optionsOf } from '../../core/form/rows'
import type { ResponseFilter } from '../../shared/api/responses'
import { refuse, Refused } from '../http/refuse'
import { releases, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import { filterSql, NotAsked } from './filterSql'
import { asPattern } from './turnSearch'
import { answerOf, type Definition } from './versions'

/** Choices of one question whose labels fit a search, at most: beyond, the search is too wide to be told by labels. */
const MOST_LABELS = 50

/** Which responses of a form are meant, as a condition of SQL over responses and their releases. Refused where the condition can’t be asked. */
export function selectionOf(
  formId: string,
  filter: ResponseFilter,
  definitions: readonly Definition[],
): SQL | undefined {
  const { search, where, state, turn, tray, release, since, until } = filter
  const text = search.trim()
  return and(
    eq(releases.formId, formId),
    text === '' ? undefined : matches(text, definitions),
    where === '' ? undefined : conditionOf(where, definitions),
    state === 'binned' ? isNotNull(responses.binnedAt) : isNull(responses.binnedAt),
    state === '' || state === 'binned' ? undefined : STATES[state](),
    turn === '' ? undefined : isOpenIn(turn),
    trayCondition(tray),
    release === 0 ? undefined : eq(releases.number, release),
    since === '' ? undefined : gte(responses.sentAt, new Date(`${since}T00:00:00Z`)),
    until === '' ? undefined : lt(responses.sentAt, dayAfter(until)),
  )
}

/** The same of a filter that was kept: undefined where it asks for what the form doesn’t have any more, which is said where it is opened. */
export function selectionIfAskable(...asked: Parameters<typeof selectionOf>): SQL | undefined {
  try {
    return selectionOf(...asked)
  } catch (error) {
    if (error instanceof Refused) return undefined
    throw error
  }
}

/** Whether a filter leaves out none but those in the bin. */
export const leavesAll = ({ release, ...filter }: ResponseFilter): boolean =>
  release === 0 && Object.values(filter).every(part => part === '')

/** A response that a turn is open of. */
const isOpenIn = (turn: string): SQL => sql`exists (
    select 1 from ${turns}
    where ${turns.responseId} = ${responses.id} and ${turns.turn} = ${turn} and ${turns.handedOffAt} is null
      and ${turns.givenBackAt} is null and ${responses.turn} is not null
  )`

function dayAfter(day: string): Date {
  const at = new Date(`${day}T00:00:00Z`)
  at.setUTCDate(at.getUTCDate() + 1)
  return at
}

function trayCondition(tray: string): SQL | undefined {
  if (tray === '') return undefined
  return tray === 'none' ? isNull(responses.trayId) : eq(responses.trayId, tray)
}

const STATES: Record<Exclude<ResponseFilter['state'], '' | 'binned'>, () => SQL | undefined> = {
  progress: () => isNotNull(responses.turn),
  unpaid: () => and(eq(responses.unpaid, true), isNull(responses.withdrawnAt)),
  done: () => and(isNull(responses.turn), eq(responses.unpaid, false), isNull(responses.withdrawnAt)),
  late: () => sql`exists (
    select 1 from ${turns}
    where ${turns.responseId} = ${responses.id} and ${turns.handedOffAt} is null
      and ${turns.givenBackAt} is null and ${turns.dueOn} < ${isoToday()} and ${responses.turn} is not null
  )`,
  corrected: () => isNotNull(responses.correctedAt),
  withdrawn: () => isNotNull(responses.withdrawnAt),
}

/** A condition in the words of the newest release, over the answers to all. */
function conditionOf(where: string, definitions: readonly Definition[]): SQL {
  const [newest] = definitions
  if (!newest) return sql`false`
  try {
    const condition = filterSql(planOf(newest.form), where, code => answerOf(code, definitions), isoToday())
    return sql`(${condition} is true)`
  } catch (error) {
    if (!(error instanceof NotAsked)) throw error
    const problems = error.problems.map(({ sentence }) => ({ path: 'where', sentence }))
    return refuse(422, 'wrong-filter', error.message, problems)
  }
}

/** What of a response can be sorted by besides its answers. */
const SORTED = new Map<string, AnyPgColumn | SQL>([
  ['tray', sql`(select position from trays where trays.id = ${responses.trayId})`],
  ['number', responses.number],
  ['sentAt', responses.sentAt],
  ['release', releases.number],
  ['turn', responses.turn],
])

/** `-sentAt`: the newest first; `cells.berth`: by the answers to a question, whatever it was called in older releases. */
export function orderBy(sort: string, definitions: readonly Definition[]): SQL {
  const isDown = sort.startsWith('-')
  const key = sort.replace(/^-/, '')
  const code = key.replace('cells.', '')
  const answer = answerOf(code, definitions)
  const column = SORTED.get(key) ?? answer
  return isDown ? sql`${desc(column)} nulls last` : sql`${asc(column)} nulls last`
}

/** Answers that hold a text, or a choice whose label does. */
function matches(text: string, definitions: readonly Definition[]): SQL | undefined {
  const typed = asPattern(text)
  const labelled = definitions.flatMap(d => choicesLabelled(d.form, text))
  return or(
    sql`${responses.words} like lower(${typed}::text)`,
    ...labelled.map(answer => sql`${responses.answers} @> ${JSON.stringify(answer)}::jsonb`),
  )
}

/** The answers that choose something whose label holds a text, as JSON that the stored answers contain. */
function choicesLabelled(form: Form, text: string): Record<string, unknown>[] {
  const wanted = text.toLowerCase()
  return planOf(form).questions.flatMap(({ place: { node, code, entryOf } }) => {
    if (!isChoice(node) || entryOf !== null) return []
    const found = (optionsOf(form, node) ?? []).filter(row => row.label.toLowerCase().includes(wanted))
    if (found.length > MOST_LABELS) return []
    return found.map(row => ({ [code]: node.type === 'choices' ? [row.code] : row.code }))
  })
}
