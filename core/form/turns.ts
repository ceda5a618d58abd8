import { z } from 'zod'
import { Code, Expression, Label } from './fields'
import { LIMITS } from './limits'

/** Somebody with a role in a response; `office` parties see what is office-only. */
export const Party = z.strictObject({ code: Code, name: Label, office: z.literal(true).optional() })
/** What a turn may do with a section, or with a single group or question in it. */
export const Access = z.enum(['fills', 'reads', 'never'])
const Address = z.email('an e-mail address is written name@wherry.example').max(200)
/** One of them after the other, a response each; without it whoever of them comes first. */
const rotate = z.literal(true).optional()
/**
 * Who acts in a turn: anyone with the link, a named person, some addresses, the people of a team of the workspace (by its name), or whoever an
 * answer names: an e-mail address, or a person chosen from a list of people.
 */
export const Actor = z.union([
  z.literal('link'),
  z.strictObject({ person: Address }),
  z.strictObject({ team: z.array(Address).min(1).max(LIMITS.team), rotate }),
  z.strictObject({ people: z.string().min(1).max(LIMITS.label), rotate }),
  z.strictObject({ answer: Code }),
])
/** By when a turn is to be handed on: days from its opening; `working`: Saturdays and Sundays don't count. */
export const Due = z.strictObject({
  days: z.int().min(0).max(LIMITS.dueDays),
  working: z.literal(true).optional(),
})
/** Who takes over a turn that is late, and how many days after it was due. */
export const Escalation = z.strictObject({ after: z.int().min(0).max(LIMITS.dueDays), to: Address })
/** When those who are to act are reminded, in days from the due day: -2 two days before, 0 on the day, 3 three days after. */
const Reminders = z.array(z.int().min(-LIMITS.dueDays).max(LIMITS.dueDays)).max(LIMITS.reminders)
/** Whose turn is next when a turn is handed off: a turn by code, or `done`. Without `when` it always applies. */
export const HandOff = z.strictObject({ when: Expression.optional(), to: z.string().max(LIMITS.code) })
/** Where a hand-off leads when nobody is to act any more. */
export const DONE = 'done'
/**
 * A party's go at a response: who acts, what it fills and reads (sections by code, groups and questions where they differ; what is not named is
 * `never`), and who is next. `signIn`: only who is signed in as one of those who are to act; `linkDays`: how long a private link is good;
 * `alongside`: the turn right before it, or before others like it, with which it is opened at once and whose hand-offs hold for both.
 */
export const Turn = z
  .strictObject({
    code: Code,
    party: Code,
    title: Label.optional(),
    alongside: Code.optional(),
    by: Actor,
    signIn: z.literal(true).optional(),
    linkDays: z.int().min(1).max(LIMITS.dueDays).optional(),
    due: Due.optional(),
    reminders: Reminders.optional(),
    escalation: Escalation.optional(),
    access: z.record(Code, Access),
    handOff: z.array(HandOff).max(LIMITS.routes).optional(),
  })
  .refine(t => t.due !== undefined || (t.reminders === undefined && t.escalation === undefined), {
    path: ['due'],
    message: 'reminders and an escalation need a day on which the turn is due',
  })

export type Party = z.infer<typeof Party>
export type Access = z.infer<typeof Access>
export type Actor = z.infer<typeof Actor>
export type Due = z.infer<typeof Due>
export type HandOff = z.infer<typeof HandOff>
export type Turn = z.infer<typeof Turn>
