import { eq } from 'drizzle-orm'
import { crossTable } from '../../core/summary/crossTable'
import { dimensionOf, FACT_DIMENSIONS, type Dimension } from '../../core/summary/dimensions'
import type { FactTable } from '../../core/summary/factTable'
import { summariseTable } from '../../core/summary/summarise'
import type { ResponseFilter } from '../../shared/api/responses'
import type { CrossAnswer, CrossQuery, Summary, SummaryQuery } from '../../shared/api/summaries'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { loadFormRow } from './drafts'
import { loadFacts, type FactsNow } from './facts/loadFacts'
import { leavesAll, selectionOf } from './selectResponses'

/** Milliseconds after which whoever waits for a summary is told how far it is. */
const PATIENCE = 1_500
/** More groups are not compared side by side. */
const MOST_GROUPS = 12

/** What the responses of a form say, question by question; those that were withdrawn say nothing. */
export async function summariseResponses(
  db: Database,
  formId: string,
  { by, ...filter }: SummaryQuery,
): Promise<Summary> {
  await loadFormRow(db, formId)
  const facts = await loadFacts(db, formId, PATIENCE)
  const { table } = facts
  if (!table) return { ...progressOf(facts), count: 0, dimensions: [], groups: [] }
  const rows = await selectedRows(db, formId, filter, table, facts)
  const dimensions = dimensionsIn(table)
  const side = by === '' ? null : sideOf(table, by, rows)
  const groups = side ? groupRows(side, rows) : [{ label: '', rows }]
  return {
    ...progressOf(facts),
    count: rows.length,
    dimensions,
    groups: groups.map(group => ({
      label: group.label,
      count: group.rows.length,
      measures: summariseTable(table, group.rows),
    })),
  }
}

/** A table of the responses of a form by two or three of their answers. */
export async function crossResponses(
  db: Database,
  formId: string,
  { rows: along, columns: across, layer, figure, of, ...filter }: CrossQuery,
): Promise<CrossAnswer> {
  await loadFormRow(db, formId)
  const facts = await loadFacts(db, formId, PATIENCE)
  const { table } = facts
  if (!table) return { ...progressOf(facts), table: null }
  const rows = await selectedRows(db, formId, filter, table, facts)
  const column = of === '' ? null : (table.columnOf(of) ?? null)
  if (figure !== 'count' && column?.measure.kind !== 'number')
    return refuse(422, 'wrong-filter', 'A sum or a mean is made of a question that is answered by a number.')
  const sides = {
    rows: sideOf(table, along, rows),
    columns: sideOf(table, across, rows),
    layer: layer === '' ? null : sideOf(table, layer, rows),
  }
  return { ...progressOf(facts), table: crossTable(rows, sides, { figure, column }) }
}

const progressOf = ({ table, done, all }: FactsNow) => ({ isReady: table !== null, done, all })

function sideOf(table: FactTable, key: string, rows: Int32Array): Dimension {
  return (
    dimensionOf(table, key, rows) ??
    refuse(
      422,
      'wrong-filter',
      'Responses can’t be told apart by this: it is not there any more, or is a free text.',
    )
  )
}

/** By what responses can be told apart. */
const dimensionsIn = ({ measures }: FactTable): Summary['dimensions'] => [
  ...FACT_DIMENSIONS,
  ...measures
    .filter(m => m.kind === 'choice' || m.kind === 'number' || m.kind === 'day')
    .map(({ key, label }) => ({ key, label })),
]

function groupRows(side: Dimension, rows: Int32Array): { label: string; rows: Int32Array }[] {
  const groups = side.headings.slice(0, MOST_GROUPS).map(({ label }) => ({ label, rows: [] as number[] }))
  for (const row of rows) for (const at of side.at(row)) groups[at]?.rows.push(row)
  return groups.map(group => ({ label: group.label, rows: Int32Array.from(group.rows) }))
}

async function selectedRows(
  db: Database,
  formId: string,
  filter: ResponseFilter,
  table: FactTable,
  { definitions }: FactsNow,
): Promise<Int32Array> {
  if (leavesAll(filter)) return table.allRows()
  const found = await db
    .select({ id: responses.id })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(selectionOf(formId, filter, definitions))
  return table.rowsFor(found.map(row => row.id))
}
