import { z } from 'zod'
import { Code, Expression, Label } from './fields'
import { LIMITS } from './limits'

/** Somebody with a role in a response; `office` parties see what is office-only. */
export const Party = z.strictObject({ code: Code, name: Label, office: z.literal(true).optional() })
/** What a turn may do with a section, or with a single group or question in it. */
export const Access = z.enum(['fills', 'reads', 'never'])
const Address = z.email('an e-mail address is written name@wherry.example').max(200)
/** Who acts in a turn: anyone with the link, a named person, anyone of a team, or whoever an e-mail answer names. */
export const Actor = z.union([
  z.literal('link'),
  z.strictObject({ person: Address }),
  z.strictObject({ team: z.array(Address).min(1).max(LIMITS.team) }),
  z.strictObject({ answer: Code }),
])
/** Whose turn is next when a turn is handed off: a turn by code, or `done`. Without `when` it always applies. */
export const HandOff = z.strictObject({ when: Expression.optional(), to: z.string().max(LIMITS.code) })
/** Where a hand-off leads when nobody is to act any more. */
export const DONE = 'done'
/** A party's go at a response: who acts, what it fills and reads (sections by code, groups and questions where they differ; what is not named is `never`), and who is next. */
export const Turn = z.strictObject({
  code: Code,
  party: Code,
  title: Label.optional(),
  by: Actor,
  access: z.record(Code, Access),
  handOff: z.array(HandOff).max(LIMITS.routes).optional(),
})

export type Party = z.infer<typeof Party>
export type Access = z.infer<typeof Access>
export type Actor = z.infer<typeof Actor>
export type HandOff = z.infer<typeof HandOff>
export type Turn = z.infer<typeof Turn>
