import { z } from 'zod'
import { dayNumber } from '../expressions/dates'
import { KEYWORDS } from '../expressions/parse'
import { LIMITS } from './limits'

/** A code: small letters, digits and `_`, beginning with a letter, no word of the expression language. */
export const Code = z
  .string()
  .max(LIMITS.code)
  .regex(/^[a-z][a-z0-9_]*$/, 'a code has small letters, digits and “_”, and begins with a letter')
  .refine(code => !KEYWORDS.has(code), 'this word belongs to the rule language; choose another code')
/** The code of a choice: what responses store; freer than a question's code, since it never stands bare in a rule. */
export const ChoiceCode = z.string().min(1).max(LIMITS.code)
/** A line of text that people read: a label, a title. */
export const Label = z.string().max(LIMITS.label)
/** A longer text that people read: help, a note, a message. */
export const Text = z.string().max(LIMITS.text)
/** A condition or calculation as FEEL text. A text with errors can be kept: the prover reports it. */
export const Expression = z.string().max(LIMITS.expression)
/** A calendar date as ISO 8601 writes it. */
export const IsoDate = z.string().refine(text => dayNumber(text) !== null, 'a date is written 2026-05-01')

/** A check of an answer: the rule must not be false; otherwise the message is shown. */
export const AnswerCheck = z.strictObject({ rule: Expression, message: Text })
/** Always, or when a condition holds. */
export const When = z.union([z.literal(true), Expression])
/** The checks of a question, group or section. */
export const checks = z.array(AnswerCheck).max(LIMITS.checks).optional()
/** Right under which choice of an earlier question in the same place something stands; a matter of layout only. */
export const Under = z.strictObject({ question: Code, option: ChoiceCode })

/**
 * From a question on to something later: an item (`item/keel`), a section (`section/berth`) or `finish`. What lies between is out of play. The
 * first that is true counts; without `when` it always is.
 */
export const Skip = z.strictObject({
  when: Expression.optional(),
  to: z
    .string()
    .max(LIMITS.code + 10)
    .regex(/^(?:finish|(?:item|section)\/.+)$/, 'a skip leads to “item/code”, “section/code” or “finish”'),
})

/** Whom a question is kept from: all parties but those marked as office; all but one party. Both keep it from a form's open link. */
export const keptFrom = { officeOnly: z.literal(true).optional(), privateTo: Code.optional() }

/** How something is laid out: `span`, how many columns it takes of a group that lays its content side by side; `indent`, a step to the right as a follow-up. Layout only. */
export const laidOut = {
  span: z.int().min(2).max(LIMITS.sideBySide).optional(),
  indent: z.literal(true).optional(),
}

export type Skip = z.infer<typeof Skip>
export type AnswerCheck = z.infer<typeof AnswerCheck>
