import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import type { WeighedRow } from '../../core/formats/weighRow'
import type {
  ImportRow,
  ImportTable,
  TakeImport,
  TakenImport,
  WeighedImport,
  WeighImport,
} from '../../shared/api/imports'
import { MOST_TOLD } from '../../shared/api/imports'
import { refuse, Refused } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, releases, responses } from '../store/schema'
import { runTask } from '../threads/run'
import { amendResponse } from './amendResponse'
import { isoToday } from './calendar'
import { stateAtOf } from './ownLinks'
import { submitAnswers } from './submitAnswers'
import { codesOf, loadVersions, type Definition } from './versions'

type Stored = Awaited<ReturnType<typeof loadNamed>>[number]
/** A row with the response that it is about, and what it would make of it. */
interface Weighed {
  row: ImportRow
  stored: Stored | null
  weighed: WeighedRow
}

const loadNamed = (db: Database, formId: string, numbers: readonly number[]) =>
  db
    .select({
      id: responses.id,
      number: responses.number,
      answers: responses.answers,
      begunOn: responses.begunOn,
      people: responses.people,
      sentAt: responses.sentAt,
      correctedAt: responses.correctedAt,
      withdrawnAt: responses.withdrawnAt,
      release: releases.number,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(
      and(
        eq(releases.formId, formId),
        isNull(responses.binnedAt),
        inArray(responses.number, numbers.length > 0 ? [...numbers] : [0]),
      ),
    )

/** Says what the rows of a table would do to the responses of a form: nothing is stored. */
export async function weighImport(
  db: Database,
  formId: string,
  { rows, ...table }: z.output<typeof WeighImport>,
): Promise<WeighedImport> {
  const { unread, weighed } = await weigh(db, formId, table, rows)
  return {
    unread,
    rows: weighed.map(({ stored, weighed: { is, changes, problems } }) => ({
      is,
      base: stored && stateAtOf(stored),
      changes: changes.slice(0, MOST_TOLD),
      problems: problems.slice(0, MOST_TOLD),
    })),
  }
}

/** Brings rows in as they were looked at: a new response each, or a correction. What does not fit any more is left out, and said. */
export async function takeImport(
  db: Database,
  formId: string,
  { rows, reason, ...table }: z.output<typeof TakeImport>,
  who: string,
): Promise<TakenImport> {
  const { weighed } = await weigh(db, formId, table, rows)
  const taken: TakenImport['rows'] = []
  for (const [i, one] of weighed.entries()) {
    const base = rows[i]?.base ?? null
    taken.push(await takeRow(db, formId, one, { reason, base }, who))
  }
  return { rows: taken }
}

type Taken = TakenImport['rows'][number]
const leftOut = (number: number | null, problems: Taken['problems']): Taken => ({
  is: 'refused',
  number,
  problems: problems.slice(0, MOST_TOLD),
})

async function takeRow(
  db: Database,
  formId: string,
  { row, stored, weighed }: Weighed,
  { reason, base }: { reason: string; base: string | null },
  who: string,
): Promise<Taken> {
  const number = stored?.number ?? null
  if (weighed.is === 'refused') return leftOut(row.number, weighed.problems)
  if (weighed.is === 'same') return { is: 'same', number, problems: [] }
  try {
    if (stored === null) return await takeNew(db, formId, row.key, weighed)
    const correction = { answers: weighed.answers, reason, base: base ?? '' }
    await amendResponse(db, stored.id, correction, who)
    return { is: 'changed', number, problems: [] }
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    const { sentence, problems = [] } = error.refusal
    return leftOut(row.number, problems.length > 0 ? problems : [{ path: '', sentence }])
  }
}

/** A new response comes in as one by the address of the form: its times and limits hold, and what happens by itself happens. */
async function takeNew(db: Database, formId: string, key: string, { answers }: WeighedRow): Promise<Taken> {
  const [opening] = await db
    .select({ token: openings.token })
    .from(openings)
    .where(eq(openings.formId, formId))
  const [newest] = await loadVersions(db, formId)
  if (!opening || !newest) return refuse(409, 'not-open-yet', 'This form takes no responses yet.')
  const sending = { release: newest.number, key, begunOn: isoToday(), answers }
  const { number } = await submitAnswers(db, { token: opening.token, caller: null }, sending)
  return { is: 'new', number, problems: [] }
}

async function weigh(
  db: Database,
  formId: string,
  table: ImportTable,
  rows: readonly ImportRow[],
): Promise<{ unread: string[]; weighed: Weighed[] }> {
  const definitions = await loadVersions(db, formId)
  const [newest] = definitions
  if (!newest) return refuse(404, 'not-found', 'This form has no version yet: nothing can be brought in.')
  const stored = await loadNamed(
    db,
    formId,
    rows.flatMap(row => row.number ?? []),
  )
  const byNumber = new Map(stored.map(s => [s.number, s]))
  const about = rows.map(row => ({ row, stored: byNumber.get(row.number ?? 0) ?? null }))
  const weighed = new Map<ImportRow, WeighedRow>()
  const unread = new Set<string>()
  for (const definition of definitions) {
    const own = about.filter(({ row, stored: one }) =>
      one ? one.release === definition.number : row.number === null && definition === newest,
    )
    if (own.length === 0 && definition !== newest) continue
    const found = await weighByVersion({ definition, newest, table }, own)
    for (const head of definition === newest ? found.unread : []) unread.add(head)
    for (const [i, { row }] of own.entries()) {
      const one = found.rows[i]
      if (one) weighed.set(row, one)
    }
  }
  return {
    unread: [...unread],
    weighed: about.map(one => ({ ...one, weighed: standing(one, weighed.get(one.row)) })),
  }
}

/** What no longer stands, or is not there, is not changed. */
function standing({ row, stored }: Omit<Weighed, 'weighed'>, weighed: WeighedRow | undefined): WeighedRow {
  const refused = (sentence: string): WeighedRow => ({
    ...{ is: 'refused', answers: {}, changes: [] },
    problems: [{ path: 'No.', sentence }],
  })
  if (!weighed) return refused(`There is no response with the number ${row.number}.`)
  return stored?.withdrawnAt ? refused(`Response ${stored.number} was withdrawn.`) : weighed
}

function weighByVersion(
  { definition, newest, table }: { definition: Definition; newest: Definition; table: ImportTable },
  rows: readonly Omit<Weighed, 'weighed'>[],
) {
  return runTask('weighRows', {
    form: definition.form,
    newest: newest.form,
    codes: codesOf(definition),
    ...table,
    today: isoToday(),
    rows: rows.map(({ row, stored }) => ({
      given: row.given,
      stored: stored && { answers: stored.answers, begunOn: stored.begunOn },
      people: stored?.people ?? null,
    })),
  })
}
