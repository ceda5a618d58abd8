import { z } from 'zod'
import { QUESTION_TYPES } from '../../core/form/questions'

/** One question of a response as it is read; see `describeResponse`. */
export const ResponseLine = z.object({
  code: z.string(),
  path: z.string(),
  label: z.string(),
  state: z.enum(['answered', 'blank', 'unasked']),
  text: z.string(),
  section: z.int(),
  heading: z.string().nullable(),
  entry: z.string().nullable(),
  type: z.enum(QUESTION_TYPES),
  files: z.array(z.object({ file: z.string(), name: z.string(), bytes: z.number() })).readonly(),
  drawn: z.string().nullable(),
})

/** How many rows a page of the table may have. */
export const MOST_ROWS_A_PAGE = 200

/** Which page of the table of responses: from 1 on; `search` in answers, `sort` by a column (`cells.` before the code of a question), `-` before it for the greatest first. */
export const ResponseQuery = z.object({
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
  size: z.coerce.number().int().min(1).max(MOST_ROWS_A_PAGE).default(25),
  search: z.string().max(200).default(''),
  sort: z
    .string()
    .regex(/^-?(?:sentAt|release|turn|cells\.[a-z][a-z0-9_]{0,59})$/)
    .default('-sentAt'),
})
export type ResponseQuery = z.infer<typeof ResponseQuery>

/** A row of the table: when it was sent, to which release, whose turn it is (null: done), and a cell for each question by its code. */
export const ResponseRow = z.object({
  id: z.string(),
  sentAt: z.string(),
  release: z.int(),
  turn: z.string().nullable(),
  cells: z.record(z.string(), z.string()),
})

/** A page of the table. `count`: how many responses there are with the search, `all`: without. */
export const ResponseTable = z.object({
  count: z.int(),
  all: z.int(),
  hasTurns: z.boolean(),
  columns: z.array(z.object({ code: z.string(), label: z.string() })),
  rows: z.array(ResponseRow),
})
export type ResponseTable = z.infer<typeof ResponseTable>

/** One response as it is read, with its turns and what was posted about it. */
export const ResponseDetails = z.object({
  id: z.string(),
  sentAt: z.string(),
  begunOn: z.string(),
  release: z.int(),
  lines: z.array(ResponseLine),
  turns: z.array(
    z.object({
      name: z.string(),
      /** The link; null for those who may not act. */
      token: z.string().nullable(),
      to: z.array(z.string()),
      openedAt: z.string(),
      handedOffAt: z.string().nullable(),
      remark: z.string().nullable(),
    }),
  ),
  givenBack: z.array(z.object({ from: z.string(), to: z.string(), remark: z.string(), at: z.string() })),
  messages: z.array(z.object({ to: z.string(), subject: z.string(), text: z.string(), at: z.string() })),
})
export type ResponseDetails = z.infer<typeof ResponseDetails>

/** The content of a file as it was given: its bytes, or a stream of them. */
export const FileContent = z.custom<object>(
  value => typeof value === 'object' && value !== null,
  'the bytes of a file',
)

/** A turn that somebody may take: of which form, since when, and whether it is addressed to them. */
export const TurnToTake = z.object({
  token: z.string(),
  form: z.string(),
  name: z.string(),
  openedAt: z.string(),
  isMine: z.boolean(),
  remark: z.string().nullable(),
})
export type TurnToTake = z.infer<typeof TurnToTake>
