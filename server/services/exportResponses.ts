import { PassThrough, Readable } from 'node:stream'
import { stringify } from 'csv-stringify'
import { and, asc, eq, inArray } from 'drizzle-orm'
import type { AnswerColumn, Cell } from '../../core/formats/answerTable'
import { defuseFormula } from '../../core/formats/formulas'
import type { Filled } from '../../core/fill/frame'
import type { ExportQuery } from '../../shared/api/responses'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { loadFormRow } from './drafts'
import { factsOf, HEADS, stateOf, tableOf, takeOut, type ExportTable, type TakenOut } from './exportTable'
import { zipFiles } from './exportFiles'
import { zipDocuments } from './documents/zipDocuments'
import { printPdf } from './exportPdf'
import { writeWorkbook } from './exportWorkbook'
import { selectionOf } from './selectResponses'
import { loadVersions } from './versions'

const MEDIA = {
  csv: 'text/csv; charset=utf-8',
  jsonl: 'application/jsonl; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  files: 'application/zip',
  documents: 'application/zip',
  documentsPdf: 'application/zip',
  pdf: 'application/pdf',
} as const

/** Responses to all releases of a form as a file, in the order of their numbers: read and written piece by piece, however many there are. */
export async function exportResponses(
  db: Database,
  formId: string,
  { format, values, spread, ids, ...filter }: ExportQuery,
): Promise<{ name: string; mediaType: string; content: Readable }> {
  const { draft } = await loadFormRow(db, formId)
  const definitions = await loadVersions(db, formId)
  const [newest] = definitions
  if (!newest) return refuse(404, 'not-found', 'This form has no version yet, and so no responses.')
  const found = await db
    .select({ id: responses.id })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(selectionOf(formId, filter, definitions), picked(ids)))
    .orderBy(asc(responses.number))
  const wanted = found.map(r => r.id)
  if (format === 'files')
    return { name: `${draft.code}.zip`, mediaType: MEDIA.files, content: await zipFiles(db, wanted) }
  if (format === 'documents' || format === 'documentsPdf') {
    const content = await zipDocuments(db, wanted, format === 'documents' ? 'docx' : 'pdf')
    return { name: `${draft.code}-documents.zip`, mediaType: MEDIA[format], content }
  }
  if (format === 'pdf')
    return {
      name: `${draft.code}.pdf`,
      mediaType: MEDIA.pdf,
      content: await printPdf(db, wanted, definitions),
    }
  const taken = takeOut(db, wanted, definitions)
  const table = tableOf(newest, definitions, { values, isSpread: spread === 'yes' })
  const content = WRITERS[format](taken, table)
  return { name: `${draft.code}.${format}`, mediaType: MEDIA[format], content }
}

const picked = (ids: readonly string[]) => (ids.length > 0 ? inArray(responses.id, [...ids]) : undefined)

type Writer = (taken: AsyncGenerator<TakenOut>, table: ExportTable) => Readable

/** RFC 4180, with the mark that tells spreadsheets its encoding. */
const writeCsv: Writer = (taken, { columns }) => {
  async function* lines(): AsyncGenerator<Cell[]> {
    yield [...HEADS, ...columns.map(c => defuseFormula(c.head))]
    for await (const one of taken) {
      const facts = factsOf(one).map(fact => (fact instanceof Date ? fact.toISOString() : fact))
      yield [...facts, ...columns.map(column => safeCell(column, one.filled))]
    }
  }
  const written = stringify({
    bom: true,
    record_delimiter: 'windows',
    cast: { boolean: value => (value ? 'yes' : 'no') },
  })
  return pipe(Readable.from(lines()), written)
}

const safeCell = ({ isText, read }: AnswerColumn, filled: Filled): Cell => {
  const cell = read(filled)
  return isText && typeof cell === 'string' ? defuseFormula(cell) : cell
}

/** One response on a line, its answers as they are stored. */
const writeLines: Writer = taken => {
  async function* lines(): AsyncGenerator<string> {
    for await (const one of taken) {
      const { number, sentAt, begunOn, correctedAt, release, answers } = one.row
      const facts = { number, sentAt, begunOn, correctedAt, version: release, state: stateOf(one) }
      yield `${JSON.stringify({ ...facts, answers })}\n`
    }
  }
  return Readable.from(lines())
}

const writeXlsx: Writer = (taken, table) => {
  const out = new PassThrough()
  writeWorkbook(out, taken, table).catch((error: unknown) =>
    out.destroy(error instanceof Error ? error : new Error(String(error))),
  )
  return out
}

/** What is read, written on; where one fails, so does the other. */
export function pipe<W extends NodeJS.ReadWriteStream & Readable>(from: Readable, to: W): W {
  from.on('error', error => to.destroy(error))
  to.on('close', () => from.destroy())
  from.pipe(to)
  return to
}

const WRITERS: Record<
  Exclude<ExportQuery['format'], 'files' | 'documents' | 'documentsPdf' | 'pdf'>,
  Writer
> = {
  csv: writeCsv,
  jsonl: writeLines,
  xlsx: writeXlsx,
}
