import { z } from 'zod'
import { AddressText } from '../../core/form/edits'
import { LIMITS } from '../../core/form/limits'
import { Proposal } from '../../core/form/proposals'

const Text = z.string().trim().max(LIMITS.remark)

/** What somebody says of a draft: changes that they propose, each to be taken by itself, or a remark on a row (`about`) or on the whole. */
export const NewSuggestions = z
  .strictObject({
    about: AddressText.nullable(),
    note: Text,
    proposals: z.array(Proposal).max(LIMITS.proposalsAtOnce),
  })
  .refine(s => s.note !== '' || s.proposals.length > 0, 'a remark needs words')

/** What became of a suggestion: `settled` of remarks; null while it is open. */
export const OUTCOMES = ['taken', 'declined', 'settled', 'withdrawn'] as const
export const Outcome = z.enum(OUTCOMES)
export type Outcome = z.infer<typeof Outcome>

/** A proposal that was read in full when it was made. */
export const StoredProposal = z.custom<Proposal>(
  value => typeof value === 'object' && value !== null && 'edits' in value && 'above' in value,
  'a proposal',
)

/** A proposal or (`proposal` null) a remark. `own`: of the one who asks. `at`, `decidedAt`: ISO times. */
export const Suggestion = z.object({
  id: z.string(),
  by: z.string(),
  own: z.boolean(),
  at: z.string(),
  about: z.string().nullable(),
  note: z.string(),
  proposal: StoredProposal.nullable(),
  outcome: Outcome.nullable(),
  reply: z.string(),
  decidedBy: z.string().nullable(),
  decidedAt: z.string().nullable(),
})
export type Suggestion = z.infer<typeof Suggestion>

/** The suggestions of a draft: the open ones, oldest first, and the last that were decided, newest first. */
export const Suggestions = z.object({ open: z.array(Suggestion), decided: z.array(Suggestion) })
export type Suggestions = z.infer<typeof Suggestions>

export const SuggestionOfForm = z.object({ id: z.uuid(), suggestion: z.uuid() })

/** What is decided about a suggestion, with a few words for whoever made it; null opens it again. */
export const Decision = z.strictObject({ outcome: Outcome.nullable(), reply: Text })
