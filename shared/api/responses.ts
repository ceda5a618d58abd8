import { z } from 'zod'
import { QUESTION_TYPES } from '../../core/form/questions'
import { LIMITS } from '../../core/form/limits'
import { ResponseDocument } from './documents'
import { LETTER_STATES } from './letters'
import { PaymentAsked } from './payments'
import { EVENT_KINDS } from './storedEvents'

/** One question of a response as it is read; see `describeResponse`. */
export const ResponseLine = z.object({
  code: z.string(),
  path: z.string(),
  label: z.string(),
  state: z.enum(['answered', 'blank', 'unasked']),
  text: z.string(),
  isRich: z.boolean(),
  section: z.int(),
  heading: z.string().nullable(),
  entry: z.string().nullable(),
  type: z.enum(QUESTION_TYPES),
  files: z.array(z.object({ file: z.string(), name: z.string(), bytes: z.number() })).readonly(),
  drawn: z.string().nullable(),
})

/** A line of a response as those read it who work with it; see `readResponse`. */
export const ReadLine = ResponseLine.extend({ isAhead: z.boolean(), why: z.string() })

/** How many rows a page of the table may have. */
export const MOST_ROWS_A_PAGE = 200

const Day = z.union([z.literal(''), z.iso.date()])

/** Which responses are meant. `where`: a condition in the rule language, over the answers as the newest release asks for them; `state`: those in the bin are in no other; `turn`: the code of the turn that is open; `tray`: its id, or in none; `release`: its number, 0 for all; `since`, `until`: days on which it was sent, inclusive. Empty: all. */
export const ResponseFilter = z.object({
  search: z.string().max(200).default(''),
  where: z.string().max(2_000).default(''),
  state: z.enum(['', 'progress', 'unpaid', 'done', 'late', 'corrected', 'withdrawn', 'binned']).default(''),
  turn: z
    .string()
    .regex(/^(?:[a-z][a-z0-9_]*)?$/)
    .max(LIMITS.code)
    .default(''),
  tray: z.union([z.literal(['', 'none']), z.uuid()]).default(''),
  release: z.coerce.number().int().min(0).max(1_000_000).default(0),
  since: Day.default(''),
  until: Day.default(''),
})
export type ResponseFilter = z.infer<typeof ResponseFilter>

/** By what responses are sorted: a column (`cells.` before the code of a question), `-` before it for the greatest first. */
export const ResponseSort = z
  .string()
  .regex(/^-?(?:number|sentAt|release|turn|tray|cells\.[a-z][a-z0-9_]{0,59})$/)
  .default('-sentAt')

/** Which page of the table of responses: from 1 on, and in which order. */
export const ResponseQuery = ResponseFilter.extend({
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
  size: z.coerce.number().int().min(1).max(MOST_ROWS_A_PAGE).default(25),
  sort: ResponseSort,
})
export type ResponseQuery = z.infer<typeof ResponseQuery>

/** So many responses are taken out by their ids at most: they stand in an address, which has an end. */
export const MOST_PICKED = 200
const PickedIds = z
  .string()
  .max(MOST_PICKED * 37)
  .transform(text => (text === '' ? [] : text.split(',')))
  .pipe(z.array(z.uuid()).max(MOST_PICKED))
  .default([])

/** Responses to be taken out: which, as what, and how choices are told (see `TableStyle`). `ids`: only those, separated by commas; empty for all of the filter. */
export const ExportQuery = ResponseFilter.extend({
  ids: PickedIds,
  format: z.enum(['csv', 'xlsx', 'jsonl', 'files', 'documents', 'documentsPdf', 'pdf']),
  values: z.enum(['labels', 'codes', 'both']).default('labels'),
  spread: z.enum(['', 'yes']).default(''),
})
export type ExportQuery = z.infer<typeof ExportQuery>

/** What is wrong with a condition by which responses are filtered, and where in its text: offsets in UTF-16 units. */
export const FilterProblem = z.object({ sentence: z.string(), from: z.int(), to: z.int() })
export type FilterProblem = z.infer<typeof FilterProblem>

/** A row of the table: its number, when it was sent, to which release, whose turn it is (null: done, or withdrawn), the id of its tray, and a cell for each question by its code. */
export const ResponseRow = z.object({
  id: z.string(),
  number: z.int(),
  isWithdrawn: z.boolean(),
  sentAt: z.string(),
  release: z.int(),
  turn: z.string().nullable(),
  tray: z.string().nullable(),
  cells: z.record(z.string(), z.string()),
})

/** A page of the table. `count`: how many responses there are with the search, `all`: without. */
export const ResponseTable = z.object({
  count: z.int(),
  all: z.int(),
  hasTurns: z.boolean(),
  columns: z.array(
    z.object({ code: z.string(), label: z.string(), section: z.string(), type: z.enum(QUESTION_TYPES) }),
  ),
  rows: z.array(ResponseRow),
})
export type ResponseTable = z.infer<typeof ResponseTable>

/**
 * Something that happened to a response. `turn`: the name of the turn that it happened in; `who`: empty for whoever had the link, and for what
 * was done unasked; `target`: the turn that it went to, `isDone` where the response was done; `changes`: answers that were others before (empty
 * where there is none now); `filled`: how many were given first. Of a letter: `to`, `subject`, `text`, what goes with it, how it stands, and what the mail server said.
 */
export const HistoryLine = z.object({
  kind: z.enum([...EVENT_KINDS, 'posted']),
  at: z.string(),
  turn: z.string(),
  who: z.string(),
  target: z.string(),
  isDone: z.boolean(),
  to: z.array(z.string()),
  remark: z.string(),
  changes: z.array(z.object({ label: z.string(), before: z.string(), after: z.string() })),
  filled: z.int(),
  subject: z.string(),
  text: z.string(),
  attachments: z.array(z.string()),
  letter: z.enum(LETTER_STATES).nullable(),
  said: z.string(),
})
export type HistoryLine = z.infer<typeof HistoryLine>

/** One response as it is read, with its turns and its history, the oldest first. */
export const ResponseDetails = z.object({
  id: z.string(),
  /** The title of its form. */
  form: z.string(),
  number: z.int(),
  sentAt: z.string(),
  withdrawnAt: z.string().nullable(),
  /** When it was put into the bin. */
  binnedAt: z.string().nullable(),
  /** The id of its tray. */
  tray: z.string().nullable(),
  /** When whoever sent it has corrected it last. */
  correctedAt: z.string().nullable(),
  /** By which further way it came, and who sent it, as far as that is kept; else empty. */
  way: z.string(),
  by: z.string(),
  begunOn: z.string(),
  release: z.int(),
  lines: z.array(ReadLine),
  turns: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      /** Whether whoever reads this can open its page. */
      mayOpen: z.boolean(),
      to: z.array(z.string()),
      openedAt: z.string(),
      handedOffAt: z.string().nullable(),
      /** When it went back to an earlier turn; it is opened again when it is reached. */
      givenBackAt: z.string().nullable(),
      dueOn: z.string().nullable(),
      remark: z.string().nullable(),
    }),
  ),
  history: z.array(HistoryLine),
  documents: z.array(ResponseDocument),
  /** What is to be paid for it, or was; null for nothing. */
  payment: PaymentAsked.nullable(),
})
export type ResponseDetails = z.infer<typeof ResponseDetails>

/** The content of a file as it was given: its bytes, or a stream of them. */
export const FileContent = z.custom<object>(
  value => typeof value === 'object' && value !== null,
  'the bytes of a file',
)
