import { z } from 'zod'
import { MOST_ROWS_A_PAGE } from './responses'

/** Which turns: those that wait, or those that were handed on; of these only one's own, or only those that are late; `search` in the form's title, the number of the response and remarks. */
export const InboxQuery = z.object({
  state: z.enum(['waiting', 'handedOn']).default('waiting'),
  only: z.enum(['all', 'mine', 'overdue']).default('all'),
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
  size: z.coerce.number().int().min(1).max(MOST_ROWS_A_PAGE).default(25),
  search: z.string().max(200).default(''),
})
export type InboxQuery = z.infer<typeof InboxQuery>

/**
 * A turn of somebody. `response`: the number of the response; `begunAt`, `begunBy`: when what was typed in it was kept last, and by whom; `dueOn`: ISO date;
 * `waitsFor`: whom it was opened for; `now`: whose turn the response is at, null where it is done or was withdrawn.
 */
export const TurnInInbox = z.object({
  id: z.string(),
  form: z.string(),
  response: z.int(),
  name: z.string(),
  openedAt: z.string(),
  handedOffAt: z.string().nullable(),
  begunAt: z.string().nullable(),
  begunBy: z.string(),
  dueOn: z.string().nullable(),
  isOverdue: z.boolean(),
  remark: z.string().nullable(),
  waitsFor: z.enum(['you', 'team', 'anybody']),
  now: z.string().nullable(),
  isWithdrawn: z.boolean(),
})
export type TurnInInbox = z.infer<typeof TurnInInbox>

/** A page of the inbox. `count`: how many turns there are in all. */
export const Inbox = z.object({ count: z.int(), rows: z.array(TurnInInbox) })
export type Inbox = z.infer<typeof Inbox>
