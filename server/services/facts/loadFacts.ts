import { and, eq, inArray, sql } from 'drizzle-orm'
import { planOf } from '../../../core/fill/plan'
import { FactTable, type Facts } from '../../../core/summary/factTable'
import { listMeasures } from '../../../core/summary/measures'
import type { Database } from '../../store/database'
import { releases, responses } from '../../store/schema'
import { runTask } from '../../threads/run'
import { loadHandedOff } from '../handedOff'
import { codesOf, loadVersions, type Definition } from '../versions'
import { describeMaking, loadFactSet, loadStoredFacts, type FactSet } from './storedFacts'
import { storeWhenDue, type Storing } from './storing'

/** The responses of a form as summaries need them, kept in memory and brought up to date when somebody asks. */
interface KeptFacts {
  table: FactTable
  /** Of which versions the table is made: a new one makes it anew. */
  versions: string
  /** Transactions before this one are all in it (PostgreSQL: the oldest that was still running). */
  upTo: bigint
  done: number
  all: number
  updating: Promise<void> | null
  usedAt: number
  storing: Storing
}

/** So many responses of all forms together are kept in memory. */
const MOST_KEPT = 400_000
const AT_ONCE = 500
/** Before every transaction. */
const NOTHING_YET = -1n

const kept = new WeakMap<Database, Map<string, KeptFacts>>()

/** How far the facts of a form are: `table` once every response is in it. */
export interface FactsNow {
  table: FactTable | null
  definitions: readonly Definition[]
  done: number
  all: number
}

/** The facts of a form as they are now. Where there is much to read, it goes on by itself, and whoever asks is told how far it is after `patience` milliseconds. */
export async function loadFacts(db: Database, formId: string, patience: number): Promise<FactsNow> {
  const forms = kept.get(db) ?? new Map<string, KeptFacts>()
  kept.set(db, forms)
  const definitions = await loadVersions(db, formId)
  const [newest] = definitions
  const versions = definitions.map(d => d.number).join(' ')
  const known = forms.get(formId)
  const facts = known?.versions === versions ? known : newFacts(newest, versions)
  forms.set(formId, facts)
  facts.usedAt = Date.now()
  facts.updating ??= bringUpToDate(db, formId, facts, definitions).finally(() => (facts.updating = null))
  const isDone = await Promise.race([
    facts.updating.then(() => true),
    new Promise<false>(resolve => setTimeout(() => resolve(false), patience).unref()),
  ])
  forgetOldest(forms, formId)
  return { table: isDone ? facts.table : null, definitions, done: facts.done, all: facts.all }
}

const newFacts = (newest: Definition | undefined, versions: string): KeptFacts => ({
  table: new FactTable(newest ? listMeasures(planOf(newest.form)) : []),
  versions,
  upTo: NOTHING_YET,
  done: 0,
  all: 0,
  updating: null,
  usedAt: 0,
  storing: { changed: 0, begunAt: 0, isRunning: false },
})

/** Lets go of those that nobody has asked for longest, where there are too many. */
function forgetOldest(forms: Map<string, KeptFacts>, current: string): void {
  const byUse = [...forms].sort(([, a], [, b]) => a.usedAt - b.usedAt)
  let size = byUse.reduce((sum, [, { table }]) => sum + table.size, 0)
  for (const [id, { table, updating }] of byUse) {
    if (size <= MOST_KEPT) return
    if (id === current || updating) continue
    forms.delete(id)
    size -= table.size
  }
}

/** Reads what has changed since it was read last: everything that a transaction has written that was not over then. */
async function bringUpToDate(
  db: Database,
  formId: string,
  facts: KeptFacts,
  definitions: readonly Definition[],
): Promise<void> {
  // Before anything else is read: what is taken out for good from here on is kept nowhere.
  const set = await loadFactSet(db, formId)
  await takeUp(db, facts, set)
  const [now] = await db
    .select({ oldest: sql<string>`pg_snapshot_xmin(pg_current_snapshot())::text` })
    .from(sql`(select 1) as one`)
  const changed = await db
    .select({ id: responses.id })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, formId), sql`${responses.touchedBy} >= ${facts.upTo.toString()}::bigint`))
  facts.all = changed.length
  facts.done = 0
  for (let from = 0; from < changed.length; from += AT_ONCE) {
    const ids = changed.slice(from, from + AT_ONCE).map(row => row.id)
    await readSome(db, ids, facts.table, definitions)
    facts.done += ids.length
  }
  await dropDeleted(db, formId, facts.table)
  facts.upTo = BigInt(now?.oldest ?? -1)
  facts.storing.changed += changed.length
  await storeWhenDue(db, formId, set, facts)
}

/** Begins with what was stored before this process began, where it says what would be read now. */
async function takeUp(db: Database, facts: KeptFacts, set: FactSet | null): Promise<void> {
  const { versions, table, upTo } = facts
  if (upTo !== NOTHING_YET || set === null) return
  const stored = await loadStoredFacts(
    db,
    set,
    await describeMaking(db, versions, table.measures),
    table.measures,
  )
  if (!stored) return
  facts.table = stored.table
  facts.upTo = stored.upTo
}

async function readSome(
  db: Database,
  ids: readonly string[],
  table: FactTable,
  definitions: readonly Definition[],
): Promise<void> {
  const rows = await loadRows(db, ids)
  const inProgress = rows.filter(row => row.turn !== null && row.binnedAt === null).map(row => row.id)
  const handedOff = await loadHandedOff(db, inProgress)
  const standing = rows.filter(row => row.binnedAt === null && row.withdrawnAt === null)
  for (const row of rows) if (!standing.includes(row)) table.drop(row.id)
  for (const definition of definitions) {
    const own = standing.filter(row => row.release === definition.number)
    if (own.length === 0) continue
    const cells = await runTask('readCells', {
      form: definition.form,
      measures: table.measures,
      codes: codesOf(definition),
      responses: own.map(({ id, answers, begunOn, people, turn }) => ({
        ...{ answers, begunOn, people },
        turns: turn === null ? null : (handedOff.get(id) ?? []),
      })),
    })
    for (const [i, row] of own.entries()) table.put(row.id, factsOf(row), cells[i] ?? [])
  }
}

const loadRows = (db: Database, ids: readonly string[]) =>
  db
    .select({
      id: responses.id,
      sentAt: responses.sentAt,
      begunOn: responses.begunOn,
      turn: responses.turn,
      unpaid: responses.unpaid,
      tray: responses.trayId,
      withdrawnAt: responses.withdrawnAt,
      binnedAt: responses.binnedAt,
      answers: responses.answers,
      people: responses.people,
      release: releases.number,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(inArray(responses.id, [...ids]))

type StoredRow = Awaited<ReturnType<typeof loadRows>>[number]

const factsOf = ({ sentAt, release, turn, unpaid, tray }: StoredRow): Facts => ({
  sentAt: sentAt.getTime(),
  release,
  state: turn === null ? endedState(unpaid) : 'in progress',
  tray,
})

const endedState = (unpaid: boolean) => (unpaid ? 'to be paid' : 'done')

/** Takes out what is not in the store any more; looked for only where the numbers differ. */
async function dropDeleted(db: Database, formId: string, table: FactTable): Promise<void> {
  const standing = and(
    eq(releases.formId, formId),
    sql`${responses.binnedAt} is null and ${responses.withdrawnAt} is null`,
  )
  const [found] = await db
    .select({ number: sql<number>`count(*)::int` })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(standing)
  if (found?.number === table.size) return
  const there = await db
    .select({ id: responses.id })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(standing)
  const ids = new Set(there.map(row => row.id))
  for (const id of table.idsNow()) if (!ids.has(id)) table.drop(id)
}
