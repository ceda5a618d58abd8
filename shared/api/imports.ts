import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { AnyAnswers } from './stored'

/** So many rows are brought in at once, and so many changes and problems are told of each. */
export const MOST_ROWS_AT_ONCE = 200
export const MOST_TOLD = 20

const Cell = z.union([z.string().max(LIMITS.text), z.number(), z.boolean(), z.null()])

/** The sheets of a workbook in which entries stand: at most so many. */
const MOST_SHEETS = 50
const Cells = z.array(Cell).max(2_000)
/** A row of such a sheet: which entry of the response it is, null for a new one. */
const EntryRow = z.strictObject({ entry: z.int().min(1).max(LIMITS.entries).nullable(), cells: Cells })

/**
 * A row: the number of the response that it is about, null for a new one; its cells as the heads have them, with the rows of its entries sheet by
 * sheet, or its answers as they are stored; `key`: the same for each try, so that a new one is stored once.
 */
const ImportRow = z.strictObject({
  number: z.int().min(1).max(2_000_000_000).nullable(),
  key: z.uuid(),
  given: z.union([
    z.strictObject({
      cells: Cells,
      entries: z.array(z.array(EntryRow).max(LIMITS.entries)).max(MOST_SHEETS).optional(),
    }),
    z.strictObject({ answers: AnyAnswers }),
  ]),
})
export type ImportRow = z.infer<typeof ImportRow>
const Heads = z.array(z.string().max(LIMITS.label)).max(2_000)
/** What a table has: the heads of its columns, and its sheets of entries with theirs. */
const Table = z.strictObject({
  heads: Heads,
  sheets: z
    .array(z.strictObject({ name: z.string().max(LIMITS.label), heads: Heads }))
    .max(MOST_SHEETS)
    .default([]),
})
export type ImportTable = z.infer<typeof Table>

/** Rows of a table that are to be looked at before anything is stored. */
export const WeighImport = Table.extend({
  rows: z.array(ImportRow).min(1).max(MOST_ROWS_AT_ONCE),
})

const Problem = z.object({ path: z.string(), sentence: z.string() })
/** What a row would do; `base`: the state of the response that it changes. */
const WeighedRow = z.object({
  is: z.enum(['new', 'changed', 'same', 'refused']),
  base: z.string().nullable(),
  changes: z.array(z.object({ label: z.string(), before: z.string(), after: z.string() })),
  problems: z.array(Problem),
})
/** `unread`: the heads of columns that nothing is read from. */
export const WeighedImport = z.object({ unread: z.array(z.string()), rows: z.array(WeighedRow) })
export type WeighedImport = z.infer<typeof WeighedImport>

/** Rows that are brought in as they were looked at. */
export const TakeImport = Table.extend({
  rows: z
    .array(ImportRow.extend({ base: z.string().max(64).nullable() }))
    .min(1)
    .max(MOST_ROWS_AT_ONCE),
  reason: z.string().trim().min(1, 'a reason says why').max(LIMITS.remark),
})
/** What became of each row; `number`: that of its response, null where there is none. */
export const TakenImport = z.object({
  rows: z.array(
    z.object({
      is: z.enum(['new', 'changed', 'same', 'refused']),
      number: z.int().nullable(),
      problems: z.array(Problem),
    }),
  ),
})
export type TakenImport = z.infer<typeof TakenImport>
