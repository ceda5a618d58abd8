import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { ResponseFilter, ResponseSort } from './responses'
import { AnyAnswers, StoredForm } from './stored'

/** So many trays a form has at most, and so many views. */
export const MOST_TRAYS = 30
export const MOST_VIEWS = 100
/** So many responses are done something with at once. */
export const MOST_AT_ONCE = 1_000

const Name = z.string().trim().min(1, 'a name is needed').max(80)
const Address = z.email().max(LIMITS.label)

/** A way of looking at responses: which, in which order, and which columns. `columns`: the codes of questions in their order, null for all as the form has them; `pinned`: so many of the first stay in sight. */
export const ViewSettings = z.object({
  filter: ResponseFilter,
  sort: ResponseSort,
  columns: z.array(z.string().max(LIMITS.code)).max(2_000).nullable().default(null),
  pinned: z.int().min(0).max(5).default(0),
})
export type ViewSettings = z.infer<typeof ViewSettings>

/** What tells of new responses in a view by day or week, and whom: addresses, or the people of a team by its name. It holds no answers. */
export const Digest = z.strictObject({
  every: z.enum(['day', 'week']),
  to: z.union([
    z.strictObject({ addresses: z.array(Address).min(1).max(20) }),
    z.strictObject({ team: z.string().trim().min(1).max(LIMITS.label) }),
  ]),
})
export type Digest = z.infer<typeof Digest>

/** A view to be kept; `isShared`: for everybody who sees the responses. */
export const NewView = z.strictObject({
  name: Name,
  isShared: z.boolean(),
  settings: ViewSettings,
  digest: Digest.nullable().default(null),
})

/** A kept view. `count`: how many responses it shows, null where there are too many to count each time; `isOwn`: it may be changed by whoever asks. */
export const KeptView = NewView.extend({
  id: z.string(),
  isOwn: z.boolean(),
  by: z.string(),
  count: z.int().nullable(),
})
export type KeptView = z.infer<typeof KeptView>

/** The trays of a form as they are to be, in their order; those that are there keep their `id`. `tells`: who is told of a response that comes into one. */
export const Trays = z
  .array(z.strictObject({ id: z.uuid().nullable(), name: Name, tells: z.array(Address).max(20) }))
  .max(MOST_TRAYS)
export type Trays = z.infer<typeof Trays>
export const SaveTrays = z.strictObject({ trays: Trays })

/** A tray with how many responses stand in it. */
export const Tray = z.object({
  id: z.string(),
  name: z.string(),
  tells: z.array(z.string()),
  count: z.int(),
})
export type Tray = z.infer<typeof Tray>

/** What becomes of responses after so many months: they go into the bin, or only their personal answers are taken out. */
export const RETENTION_ACTS = ['delete', 'strip'] as const
/** How long the responses of a form are kept; null for always. Those in progress are left alone. */
export const Retention = z.strictObject({
  months: z.int().min(1, 'at least a month').max(600),
  act: z.enum(RETENTION_ACTS),
})
export type Retention = z.infer<typeof Retention>
export const SaveRetention = z.strictObject({ retention: Retention.nullable() })

/** What stands beside the responses of a form: trays, views, and how many responses are in none of the trays, and in the bin; `failing`: how many deliveries failed so far; `readers`: who may see them, by their addresses; `retention`: how long they are kept. */
export const Workbench = z.object({
  trays: z.array(Tray),
  untrayed: z.int(),
  binned: z.int(),
  failing: z.int(),
  views: z.array(KeptView),
  readers: z.array(z.object({ email: z.string(), name: z.string() })),
  retention: Retention.nullable(),
})
export type Workbench = z.infer<typeof Workbench>

const Reason = z.string().trim().min(1, 'a reason says why').max(LIMITS.remark)

/** What is done with several responses. `strip`: their personal answers are taken out for good. `tray`: null takes them out of their tray; `message`: to the address that each gives to the question `to`, subject and text with quotes. */
export const ResponsesAct = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('tray'), tray: z.uuid().nullable() }),
  z.strictObject({ do: z.literal('delete'), reason: Reason }),
  z.strictObject({ do: z.literal('put back') }),
  z.strictObject({ do: z.literal('delete for good') }),
  z.strictObject({ do: z.literal('strip'), reason: Reason }),
  z.strictObject({
    do: z.literal('message'),
    to: z.string().max(LIMITS.code),
    subject: z.string().trim().min(1, 'a subject is needed').max(200),
    text: z.string().trim().min(1, 'a text is needed').max(10_000),
  }),
])
export type ResponsesAct = z.infer<typeof ResponsesAct>

/** Several responses of a form, and what is done with them. */
export const ActOnResponses = z.strictObject({
  ids: z.array(z.uuid()).min(1).max(MOST_AT_ONCE),
  act: ResponsesAct,
})

/** With how many it was done; `left`: with which it was not, and why. */
export const ActedOn = z.object({
  done: z.int(),
  left: z.array(z.object({ number: z.int(), sentence: z.string() })),
})
export type ActedOn = z.infer<typeof ActedOn>

/** A note to a response; `tells`: colleagues whom it is posted to, by their addresses. */
export const Note = z.strictObject({
  text: z.string().trim().min(1, 'a note says something').max(LIMITS.remark),
  tells: z.array(Address).max(20),
})

/** Answers of a response that are to be others, by question; null takes one away. `base`: the state that they were looked at in. */
export const Correction = z.strictObject({
  answers: AnyAnswers,
  reason: Reason,
  base: z.string().max(64),
})
export type Correction = z.infer<typeof Correction>

/** A response as it is corrected: the form of its version, its answers, and the state they are in. */
export const Correctable = z.object({
  form: StoredForm,
  answers: AnyAnswers,
  begunOn: z.string(),
  base: z.string(),
})
