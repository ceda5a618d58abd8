import { Readable } from 'node:stream'
import { stringify } from 'csv-stringify'
import { asc, eq } from 'drizzle-orm'
import type { AnswerColumn, Cell } from '../../core/formats/answerTable'
import { defuseFormula } from '../../core/formats/formulas'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { accessKeys, releases, responses } from '../store/schema'
import { useAccessKey, type KeyRow } from './accessKeys'
import { factsOf, HEADS, tableOf, takeOut, type TakenOut } from './exportTable'
import { pipe } from './exportResponses'
import { selectionOf } from './selectResponses'
import { loadVersions } from './versions'

const STYLE = { values: 'labels', isSpread: false } as const

/** A column that is in the table; null where its question is gone: it stays, and is empty. */
interface Kept {
  key: string
  column: AnswerColumn | null
}

/** The responses of a live address as they are now, as CSV (RFC 4180) or JSON. Columns stay where they are: new ones come at the end. */
export async function readLive(
  db: Database,
  address: string,
): Promise<{ name: string; mediaType: string; content: Readable }> {
  const [secret = '', format = ''] = address.split('.')
  const row = await useAccessKey(db, secret, 'live')
  const definitions = await loadVersions(db, row.formId)
  const [newest] = definitions
  if (!newest) return refuse(404, 'not-found', 'This form has no version yet, and so no responses.')
  const table = tableOf(newest, definitions, STYLE)
  const kept = await keptColumns(db, row, table.columns)
  const found = await db
    .select({ id: responses.id })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(selectionOf(row.formId, row.filter, definitions))
    .orderBy(asc(responses.number))
  const taken = takeOut(
    db,
    found.map(r => r.id),
    definitions,
  )
  const name = `${newest.form.code}.${format}`
  return format === 'csv'
    ? { name, mediaType: 'text/csv; charset=utf-8', content: writeCsv(taken, kept) }
    : { name, mediaType: 'application/json; charset=utf-8', content: writeJson(taken, kept) }
}

/** The columns in the order in which they came up; those that are new are kept behind. */
async function keptColumns(db: Database, row: KeyRow, columns: readonly AnswerColumn[]): Promise<Kept[]> {
  const known = new Set(row.columns)
  const keys = [...row.columns, ...columns.map(c => c.key).filter(key => !known.has(key))]
  if (keys.length > known.size)
    await db.update(accessKeys).set({ columns: keys }).where(eq(accessKeys.id, row.id))
  return keys.map(key => ({ key, column: columns.find(c => c.key === key) ?? null }))
}

function cellOf({ column }: Kept, { filled }: TakenOut, isForSheets: boolean): Cell {
  const cell = column?.read(filled) ?? null
  return isForSheets && column?.isText && typeof cell === 'string' ? defuseFormula(cell) : cell
}

const factCells = (one: TakenOut) =>
  factsOf(one).map(fact => (fact instanceof Date ? fact.toISOString() : fact))

function writeCsv(taken: AsyncGenerator<TakenOut>, kept: readonly Kept[]): Readable {
  async function* lines(): AsyncGenerator<Cell[]> {
    yield [...HEADS, ...kept.map(({ key, column }) => defuseFormula(column?.head ?? key))]
    for await (const one of taken) yield [...factCells(one), ...kept.map(k => cellOf(k, one, true))]
  }
  const written = stringify({
    record_delimiter: 'windows',
    cast: { boolean: value => (value ? 'yes' : 'no') },
  })
  return pipe(Readable.from(lines()), written)
}

function writeJson(taken: AsyncGenerator<TakenOut>, kept: readonly Kept[]): Readable {
  async function* pieces(): AsyncGenerator<string> {
    let before = '['
    for await (const one of taken) {
      const facts = factCells(one)
      const heads = HEADS.map((head, i) => [head, facts[i] ?? null] as const)
      const cells = kept.map(k => [k.key, cellOf(k, one, false)] as const)
      yield `${before}\n${JSON.stringify(Object.fromEntries([...heads, ...cells]))}`
      before = ','
    }
    yield before === '[' ? '[]\n' : '\n]\n'
  }
  return Readable.from(pieces())
}
