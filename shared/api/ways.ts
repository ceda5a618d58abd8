import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'
import { Email, PersonName } from './people'

/** So many links and personal links a form has at most. */
export const MOST_WAYS = 5_000

/** Hidden questions by code, with what a link answers. */
const Values = z.record(z.string().max(LIMITS.code), z.string().max(LIMITS.label))
const Most = z.int().min(1).max(1_000_000).nullable()

/** A further way into a form as designers see it: how many responses came by it, and of a personal one when it was posted and a reminder. */
export const Way = z.object({
  id: z.string(),
  kind: z.enum(['link', 'person']),
  token: z.string(),
  name: z.string(),
  address: z.string(),
  values: z.record(z.string(), z.string()),
  most: z.int().nullable(),
  taken: z.int(),
  isClosed: z.boolean(),
  postedAt: z.string().nullable(),
  remindedAt: z.string().nullable(),
})
export type Way = z.infer<typeof Way>

/** A link with a name, for one place where the form is shown: what it answers by itself, and how many responses it takes. */
export const NewLink = z.strictObject({
  name: PersonName,
  values: Values.default({}),
  most: Most.default(null),
})
export const ChangeWay = z.strictObject({
  name: PersonName.optional(),
  values: Values.optional(),
  most: Most.optional(),
  isClosed: z.boolean().optional(),
})
export type ChangeWay = z.infer<typeof ChangeWay>
/** A way of a form in an address. */
export const WayOfForm = z.object({ id: z.uuid(), way: z.uuid() })

/** People who get a personal link each; who has one already keeps it. */
export const InvitedPeople = z.strictObject({
  people: z
    .array(z.strictObject({ name: z.string().trim().max(LIMITS.label), address: Email }))
    .min(1)
    .max(MOST_WAYS),
})
/** How many were new, and how many had a link already. */
export const InvitedCount = z.object({ added: z.int(), known: z.int() })

/** Posts personal links: `new` to whom none was posted, `unanswered` a reminder to who has not answered. The text stands above the link. */
export const PostInvitations = z.strictObject({
  to: z.enum(['new', 'unanswered']),
  subject: z.string().trim().min(1).max(LIMITS.label),
  text: z.string().trim().max(LIMITS.text),
})
export const PostedCount = z.object({ posted: z.int() })

/** What whoever answers has to know; null: nothing. */
export const Passphrase = z.strictObject({
  passphrase: z.string().trim().min(4, 'a passphrase has at least 4 characters').max(200).nullable(),
})
/** A passphrase as somebody types it. */
export const TypedPassphrase = z.strictObject({ passphrase: z.string().trim().max(200) })
