import { createHash, randomUUID } from 'node:crypto'
import { deserialize, serialize } from 'node:v8'
import { promisify } from 'node:util'
import { deflate, inflate } from 'node:zlib'
import { and, eq, lt, notExists, or, sql } from 'drizzle-orm'
import { Column, FactTable, type ColumnParts, type TableRows } from '../../../core/summary/factTable'
import type { Measure } from '../../../core/summary/measures'
import type { Database } from '../../store/database'
import { factPieces, factSets } from '../../store/schema'

/** With a piece that is larger, packed, nothing is stored: the figures of such a form are read anew after a start. Bytes. */
const MOST_BYTES = 16_000_000
/** The key of the piece that says whose rows they are. */
const ROWS = ''
/** So many pieces are fetched and unpacked side by side. */
const AT_ONCE = 4
const FASTEST = { level: 1 }
const pack = promisify<Buffer, { level: number }, Buffer>(deflate)
const unpack = promisify<Uint8Array, Buffer>(inflate)

/** How the stored facts of a form stand: which set, made from what, and how often something was taken out for good. */
export type FactSet = typeof factSets.$inferSelect

/** How the stored facts of a form stand; null: none were ever stored. */
export async function loadFactSet(db: Database, formId: string): Promise<FactSet | null> {
  const [found] = await db.select().from(factSets).where(eq(factSets.formId, formId))
  return found ?? null
}

/** From now on it is counted when something of a form is taken out for good: its facts can be stored when they are read next. */
export async function prepareStoring(db: Database, formId: string): Promise<void> {
  await db.insert(factSets).values({ formId }).onConflictDoNothing()
}

/**
 * Says from what facts are made: the versions of a form, what is summarised, how this build reads it, and the database whose transactions are
 * counted. Facts that were made from anything else say nothing.
 * @returns null where a database does not say which it is: there nothing is stored
 */
export async function describeMaking(
  db: Database,
  versions: string,
  measures: readonly Measure[],
): Promise<string | null> {
  const [may] = await db
    .select({ ask: sql<boolean>`has_function_privilege('pg_control_system()', 'execute')` })
    .from(sql`(select 1) as one`)
  if (!may?.ask) return null
  const [store] = await db
    .select({ is: sql<string>`system_identifier::text` })
    .from(sql`pg_control_system() as control`)
  const from = JSON.stringify([store?.is, process.env.TOBBIN_BUILD ?? 'unbuilt', versions, measures])
  return createHash('sha256').update(from).digest('hex')
}

/**
 * The facts of a form as they were stored: transactions before `upTo` are in them.
 * @returns null where they are incomplete by now, or were made from something else
 */
export async function loadStoredFacts(
  db: Database,
  { formId, setId, upTo, ...set }: FactSet,
  madeFrom: string | null,
  measures: readonly Measure[],
): Promise<{ table: FactTable; upTo: bigint } | null> {
  if (setId === null || upTo === null || set.madeFrom !== madeFrom) return null
  const load = async (key: string) => {
    const [piece] = await db
      // As text: the embedded database takes long over bytes as they are.
      .select({ packed: sql<string>`encode(${factPieces.bytes}, 'base64')` })
      .from(factPieces)
      .where(and(eq(factPieces.formId, formId), eq(factPieces.setId, setId), eq(factPieces.key, key)))
    return piece ? deserialize(await unpack(Buffer.from(piece.packed, 'base64'))) : null
  }
  const rows: TableRows | null = await load(ROWS)
  if (!rows) return null
  const columns: Column[] = []
  for (let from = 0; from < measures.length; from += AT_ONCE) {
    const some = measures.slice(from, from + AT_ONCE)
    const loaded: (ColumnParts | null)[] = await Promise.all(some.map(({ key }) => load(key)))
    for (const [i, measure] of some.entries()) {
      const parts = loaded[i]
      if (!parts) return null
      columns.push(Column.of(measure, parts))
    }
  }
  return { table: FactTable.of(rows, columns), upTo }
}

/**
 * Stores the facts of a form, a piece at a time, so that other work goes on between. Not where something was taken out for good since the set
 * was looked at: of that nothing may stand anywhere.
 * @param set as it stood before the responses were read
 * @returns whether they stand
 */
export async function storeFacts(
  db: Database,
  set: FactSet,
  facts: { table: FactTable; madeFrom: string; upTo: bigint },
): Promise<boolean> {
  const { formId, cleared } = set
  const { table, madeFrom, upTo } = facts
  const setId = randomUUID()
  const rows = table.allRows()
  const isWhole = await writePieces(db, set, setId, piecesOf(table, rows))
  const [stands] = isWhole
    ? await db
        .update(factSets)
        .set({ setId, madeFrom, upTo })
        .where(and(eq(factSets.formId, formId), eq(factSets.cleared, cleared)))
        .returning({ formId: factSets.formId })
    : []
  await dropPieces(db, set, setId)
  return stands !== undefined
}

/** What is stored one after the other. */
function* piecesOf(table: FactTable, rows: Int32Array): Generator<[string, TableRows | ColumnParts]> {
  yield [ROWS, table.rowsOf(rows)]
  for (const column of table.columns) yield [column.measure.key, column.partsOf(rows)]
}

/** Writes pieces as long as nothing is taken out for good; says whether all are written. */
async function writePieces(
  db: Database,
  { formId, cleared }: FactSet,
  setId: string,
  pieces: Iterable<[string, TableRows | ColumnParts]>,
): Promise<boolean> {
  for (const [key, parts] of pieces) {
    const bytes = await pack(serialize(parts), FASTEST)
    if (bytes.length > MOST_BYTES) return false
    const isWritten = await db.transaction(async tx => {
      const [set] = await tx
        .select({ cleared: factSets.cleared })
        .from(factSets)
        .where(eq(factSets.formId, formId))
        .for('update')
      if (set?.cleared !== cleared) return false
      await tx.insert(factPieces).values({ formId, setId, key, bytes })
      return true
    })
    if (!isWritten) return false
  }
  return true
}

/** Takes away what stands for nothing any more: the set before, the one that was written where it could not be ended, and those of writers that broke off. */
async function dropPieces(db: Database, { formId, setId }: FactSet, written: string) {
  const isCurrent = db
    .select({ id: factSets.formId })
    .from(factSets)
    .where(eq(factSets.setId, factPieces.setId))
  await db
    .delete(factPieces)
    .where(
      and(
        eq(factPieces.formId, formId),
        notExists(isCurrent),
        or(
          eq(factPieces.setId, written),
          setId === null ? undefined : eq(factPieces.setId, setId),
          lt(factPieces.writtenAt, sql`now() - interval '1 hour'`),
        ),
      ),
    )
}
