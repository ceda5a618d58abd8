import { z } from 'zod'
import { Actor } from '../../core/form/turns'
import { LIMITS } from '../../core/form/limits'
import { MOST_ROWS_A_PAGE } from './responses'

/** Which responses in progress: at one turn (by its code), late ones only; `search` for a number or an address. */
export const BoardQuery = z.object({
  turn: z.string().max(LIMITS.code).default(''),
  late: z.stringbool().default(false),
  search: z.string().max(200).default(''),
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
  size: z.coerce.number().int().min(1).max(MOST_ROWS_A_PAGE).default(25),
})
export type BoardQuery = z.infer<typeof BoardQuery>

const NamedTurn = z.object({ turn: z.string(), name: z.string() })

/** The responses that are at one turn: how many, how many of them late, and since when the oldest waits. */
export const BoardLane = NamedTurn.extend({ count: z.int(), late: z.int(), since: z.string() })
export type BoardLane = z.infer<typeof BoardLane>

/**
 * A response in progress. `id`: of the open turn; `isByLink`: whoever has the link takes it; `begunAt`: when what was typed in it was kept last;
 * `earlier`: the turns that it can be taken back to, the last one first.
 */
export const BoardRow = NamedTurn.extend({
  id: z.string(),
  response: z.string(),
  number: z.int(),
  release: z.int(),
  to: z.array(z.string()),
  isByLink: z.boolean(),
  openedAt: z.string(),
  begunAt: z.string().nullable(),
  begunBy: z.string(),
  dueOn: z.string().nullable(),
  isLate: z.boolean(),
  remark: z.string().nullable(),
  earlier: z.array(NamedTurn),
})
export type BoardRow = z.infer<typeof BoardRow>

/** A page of the board; `count`: how many responses there are like that. */
export const Board = z.object({ lanes: z.array(BoardLane), count: z.int(), rows: z.array(BoardRow) })
export type Board = z.infer<typeof Board>

const Reason = z.string().trim().min(1, 'a reason says why').max(LIMITS.remark)
const Addresses = Actor.options[2].shape.team

/** What whoever may act does with an open turn, in somebody's stead. */
export const TurnAct = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('reassign'), to: Addresses, reason: Reason }),
  z.strictObject({ do: z.literal('take over'), reason: Reason }),
  z.strictObject({ do: z.literal('take back'), to: z.string().max(LIMITS.code), reason: Reason }),
  z.strictObject({ do: z.literal('withdraw'), reason: Reason }),
  z.strictObject({ do: z.literal('remind') }),
  z.strictObject({ do: z.literal('make link') }),
  z.strictObject({ do: z.literal('revoke links') }),
])
export type TurnAct = z.infer<typeof TurnAct>
/** That it was done; with the path of the link that was made, which is shown this once. */
export const TurnActDone = z.object({ link: z.string().nullable() })
