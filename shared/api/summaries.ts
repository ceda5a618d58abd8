import { z } from 'zod'
import { ResponseFilter } from './responses'

/** By what responses are told apart: the key of a measure, or what is known of each (`@release`, `@state`, `@month`); empty: not at all. */
const Side = z.string().max(130)

/** Which responses are summarised, and by what they are compared. */
export const SummaryQuery = ResponseFilter.extend({ by: Side.default('') })
export type SummaryQuery = z.infer<typeof SummaryQuery>

/** See `core/summary/measures`. */
export const Measure = z.object({
  key: z.string(),
  code: z.string(),
  row: z.string().nullable(),
  label: z.string(),
  section: z.string(),
  kind: z.enum(['choice', 'number', 'day', 'text', 'other']),
  options: z
    .array(z.object({ code: z.string(), label: z.string(), points: z.number().nullable() }))
    .readonly(),
  isSeveral: z.boolean(),
  isRanked: z.boolean(),
  unit: z.string(),
  promise: z.string().nullable(),
  asked: z.string().nullable(),
})

/** See `core/summary/numbers`. */
export const NumberSummary = z.object({
  count: z.int(),
  sum: z.number(),
  mean: z.number(),
  min: z.number(),
  max: z.number(),
  q1: z.number(),
  median: z.number(),
  q3: z.number(),
  areWhole: z.boolean(),
  bins: z.array(z.object({ from: z.number(), to: z.number(), count: z.int() })),
})

/** What some responses say to one measure; see `core/summary/summarise`. */
export const MeasureSummary = z.object({
  measure: Measure,
  asked: z.int(),
  answered: z.int(),
  blank: z.int(),
  ahead: z.int(),
  unasked: z.int(),
  values: z.int(),
  options: z.array(
    z.object({
      code: z.string(),
      label: z.string(),
      count: z.int(),
      place: z.number().nullable(),
      asked: z.string().nullable(),
    }),
  ),
  points: NumberSummary.nullable(),
  numbers: NumberSummary.nullable(),
  days: z
    .object({
      span: z.enum(['day', 'week', 'month', 'year']),
      spans: z.array(z.object({ from: z.string(), count: z.int() })),
    })
    .nullable(),
  words: z.array(z.object({ word: z.string(), count: z.int() })).nullable(),
})
export type MeasureSummary = z.infer<typeof MeasureSummary>

const Progress = { isReady: z.boolean(), done: z.int(), all: z.int() }

/**
 * What responses say, question by question; for each group, where they are compared. While `isReady` is false the responses are being read:
 * `done` of `all`; ask again. `dimensions`: by what they can be compared, and what stands along the sides of a table.
 */
export const Summary = z.object({
  ...Progress,
  count: z.int(),
  dimensions: z.array(z.object({ key: z.string(), label: z.string() })),
  groups: z.array(z.object({ label: z.string(), count: z.int(), measures: z.array(MeasureSummary) })),
})
export type Summary = z.infer<typeof Summary>

/** A table of responses by two or three of their answers: in each cell how many there are, or a figure of the numbers under `of`. */
export const CrossQuery = ResponseFilter.extend({
  rows: Side.min(1),
  columns: Side.min(1),
  layer: Side.default(''),
  figure: z.enum(['count', 'sum', 'mean', 'median']).default('count'),
  of: Side.default(''),
})
export type CrossQuery = z.infer<typeof CrossQuery>

const CrossSide = z.object({
  label: z.string(),
  headings: z.array(z.object({ code: z.string(), label: z.string(), asked: z.string().nullable() })),
})
/** See `core/summary/crossTable`. */
export const CrossAnswer = z.object({
  ...Progress,
  table: z
    .object({
      rows: CrossSide,
      columns: CrossSide,
      layers: z.array(
        z.object({
          label: z.string(),
          cells: z.array(z.array(z.number().nullable())),
          counts: z.array(z.array(z.int())),
        }),
      ),
      counted: z.int(),
      left: z.int(),
    })
    .nullable(),
})
export type CrossAnswer = z.infer<typeof CrossAnswer>
