import { z } from 'zod'
import { dayNumber } from '../../core/expressions/dates'
import { LIMITS } from '../../core/form/limits'
import type { OfferedRow } from '../../core/form/rows'
import { ResponseLine } from './responses'
import { AnyAnswers, Counter, StoredForm } from './stored'

const IsoDay = z.string().refine(day => dayNumber(day) !== null, 'a date is written 2026-05-01')

/** The token of a link in an address. */
export const LinkToken = z.object({ token: z.string().regex(/^[\w-]{1,80}$/) })

/** A file that the party of a link reads. */
export const FileOfLink = LinkToken.extend({ file: z.uuid() })

/** A response as the respondent's page sends it. */
export const Sending = z.strictObject({
  release: Counter.min(1),
  key: z.string().min(8).max(80),
  begunOn: IsoDay,
  answers: AnyAnswers,
})
export type Sending = z.infer<typeof Sending>

/** When a response was taken, the name of the turn that is next (null when it is done), and one's own link, where it may be given back. */
export const Sent = z.object({
  sentAt: z.string(),
  next: z.string().nullable(),
  link: z.string().nullable(),
})
export type Sent = z.infer<typeof Sent>

/** The part of a form that a party sees, and what it may do in it; `refetchOn`: answers after which it is to be asked for anew. */
export const VisibleForm = z.object({
  definition: StoredForm,
  access: z.record(z.string(), z.enum(['reads', 'fills'])),
  refetchOn: z.array(z.string()),
})
export type VisibleForm = z.infer<typeof VisibleForm>

/** The turn that a link opens. `lines`: what stands in it once it was handed off. */
export const OpenedTurn = z.object({
  name: z.string(),
  isFirst: z.boolean(),
  handedOffAt: z.string().nullable(),
  remark: z.string().nullable(),
  returnsTo: z.string().nullable(),
  lines: z.array(ResponseLine),
})

export type OpenedTurn = z.infer<typeof OpenedTurn>

/** Everything that a page needs to be filled. */
export const RespondentPage = VisibleForm.extend({
  release: z.int(),
  today: z.string(),
  answers: AnyAnswers,
  turn: OpenedTurn.nullable(),
})
export type RespondentPage = z.infer<typeof RespondentPage>

/** What somebody types to find a row of a long list, with the answers that narrow it. `path`: the question, in an entry `engines[1].fuel`. */
export const RowSearch = z.strictObject({
  path: z.string().max(LIMITS.label),
  typed: z.string().max(200),
  begunOn: IsoDay,
  answers: AnyAnswers,
})
export type RowSearch = z.infer<typeof RowSearch>

/** A row that is offered: read in full when its list was stored. */
export const FoundRow = z.custom<OfferedRow>(
  value => typeof value === 'object' && value !== null && 'code' in value && 'label' in value,
  'a row of a list',
)
/** The first rows that fit, and how many there are. */
export const FoundRows = z.object({ rows: z.array(FoundRow), count: z.int() })

/** A turn given back to the one before, with the reason. */
export const Returning = z.strictObject({
  remark: z.string().trim().min(1, 'a remark says what is to be changed').max(LIMITS.text),
})
/** The name of the turn that it was given back to. */
export const Returned = z.object({ to: z.string() })

/** Where a file belongs that a respondent gives: the question, the sending, and what it is called. The content is the body. */
export const GivenFile = z.object({
  question: z.string().max(LIMITS.code),
  key: z.string().min(8).max(80),
  name: z.string().min(1).max(LIMITS.label),
})
/** A file that was taken: under which id, what it was called, and its size. */
export const TakenFile = z.object({ file: z.string(), name: z.string(), bytes: z.int() })
