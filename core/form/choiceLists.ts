import { z } from 'zod'
import { ChoiceCode, Code, Label, Text } from './fields'
import { LIMITS } from './limits'

const Cell = z.union([Label, z.number(), z.boolean(), z.null()])
/** What a column holds. */
export const COLUMN_TYPES = ['text', 'number', 'yesNo', 'date'] as const
/** A column of a list: its code alone, or with what it is called and holds. */
export const Column = z.union([
  Code,
  z.strictObject({ code: Code, label: Label.optional(), type: z.enum(COLUMN_TYPES).optional() }),
])
/** Designers' own marks of rows, by what they say of one; respondents never see them. */
export const ROW_MARKS = ['note', 'check', 'problem', 'done'] as const
export type RowMark = (typeof ROW_MARKS)[number]
/** A row of a choice list: code, label, and a cell for any of the list's columns. Retired rows are kept for old responses, and no longer offered. */
export const Row = z
  .object({
    code: ChoiceCode,
    label: Label,
    retired: z.boolean().optional(),
    mark: z.enum(ROW_MARKS).optional(),
    remark: Text.optional(),
  })
  .catchall(Cell)
/** Names of cells that are no columns of their own. */
export const ROW_KEYS: ReadonlySet<string> = new Set(['code', 'label', 'retired', 'mark', 'remark'])
/** A choice list, shared by questions that name it. `shared`: the list of the workspace that it is kept the same as. `people`: the team of the workspace whose people are its rows. `partial`: only some of so many rows are here. */
export const ChoiceList = z.strictObject({
  code: Code,
  title: Label.optional(),
  shared: Code.optional(),
  people: Label.optional(),
  partial: z.int().min(0).optional(),
  columns: z.array(Column).max(LIMITS.columns).optional(),
  rows: z.array(Row).max(LIMITS.rows),
})

export type Row = z.infer<typeof Row>
export type ChoiceList = z.infer<typeof ChoiceList>
export type ColumnKind = (typeof COLUMN_TYPES)[number]
