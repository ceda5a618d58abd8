import { asc, eq, inArray } from 'drizzle-orm'
import { listAnswerColumns, type AnswerColumn } from '../../core/formats/answerTable'
import { listEntryTables, type EntryTable } from '../../core/formats/entryTable'
import { fill } from '../../core/fill/fill'
import type { Filled } from '../../core/fill/frame'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import { openNamesOf } from '../../core/parties/turns'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { plansOf, type Definition } from './versions'

/** So many responses are read at a time. */
const AT_ONCE = 500

type StoredRow = Awaited<ReturnType<typeof loadRows>>[number]

/** A response as it is taken out: as it is stored, and worked out. */
export interface TakenOut {
  row: StoredRow
  filled: Filled
}

/** What a file of responses has: its columns, and a table for each group that repeats. */
export interface ExportTable {
  plan: Plan
  columns: readonly AnswerColumn[]
  entries: readonly EntryTable[]
}

const loadRows = (db: Database, ids: readonly string[]) =>
  db
    .select({
      number: responses.number,
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      correctedAt: responses.correctedAt,
      withdrawnAt: responses.withdrawnAt,
      turn: responses.turn,
      unpaid: responses.unpaid,
      answers: responses.answers,
      people: responses.people,
      release: releases.number,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(inArray(responses.id, [...ids]))
    .orderBy(asc(responses.number))

/** Reads responses piece by piece, each worked out by its own release. */
export async function* takeOut(
  db: Database,
  ids: readonly string[],
  definitions: readonly Definition[],
): AsyncGenerator<TakenOut> {
  const planFor = plansOf(definitions)
  for (let from = 0; from < ids.length; from += AT_ONCE)
    for (const row of await loadRows(db, ids.slice(from, from + AT_ONCE))) {
      const plan = planFor(row.release, row.people)
      if (plan) yield { row, filled: fill(plan, row.answers, row.begunOn) }
    }
}

/** The columns of the newest version; what older ones call otherwise stands under them. */
export function tableOf(
  newest: Definition,
  definitions: readonly Definition[],
  style: Parameters<typeof listAnswerColumns>[1],
): ExportTable {
  const plan = planOf(newest.form)
  // A form with the people of a response is another object, with the same sections.
  const codes = new Map(
    definitions.map(({ form, newest: nameNow }) => {
      const own = [...planOf(form).byCode.keys(), ...planOf(form).groups.keys()]
      return [form.sections, new Map(own.map(code => [nameNow(code), code]))] as const
    }),
  )
  const codeIn = ({ plan: own }: Filled, code: string) => codes.get(own.form.sections)?.get(code) ?? ''
  return {
    plan,
    columns: listAnswerColumns(plan, style, (filled, code) => filled.plan.byCode.get(codeIn(filled, code))),
    entries: listEntryTables(plan, (filled, code) => filled.plan.groups.get(codeIn(filled, code))),
  }
}

/** The heads of what is known of a response besides its answers. */
export const HEADS = ['No.', 'Sent', 'Begun', 'Corrected', 'Version', 'State'] as const

/** What is known of a response besides its answers. */
export const factsOf = (one: TakenOut): [number, Date, string, Date | null, number, string] => {
  const { number, sentAt, begunOn, correctedAt, release } = one.row
  return [number, sentAt, begunOn, correctedAt, release, stateOf(one)]
}

export function stateOf({ row: { turn, unpaid, withdrawnAt }, filled }: TakenOut): string {
  if (turn !== null) return `in progress: ${openNamesOf(filled.plan.form, turn)}`
  if (withdrawnAt) return 'withdrawn'
  return unpaid ? 'to be paid' : 'done'
}
