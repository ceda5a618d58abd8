import { z } from 'zod'
import { Opening, OPENING_STATES } from '../../core/form/opening'
import { LimitedOption } from '../../core/form/places'
import { ApprovalAsked } from './releases'

/** The opening of a form as designers see it: the token of its address, the end of its short one (null for none), the settings, where it stands now, how many responses count, whether a passphrase is asked for, the options that can run out, and who asks for approval. */
export const LoadedOpening = z.object({
  token: z.string(),
  code: z.string().nullable(),
  settings: Opening,
  state: z.enum(OPENING_STATES),
  standing: z.int(),
  hasPassphrase: z.boolean(),
  places: z.array(LimitedOption),
  approval: ApprovalAsked.nullable(),
})
export type LoadedOpening = z.infer<typeof LoadedOpening>

/** Withdraws a release, or puts it back. */
export const Withdrawal = z.strictObject({ isWithdrawn: z.boolean() })

/** The end of the short address of a form. */
export const ShortAddress = z.object({ code: z.string() })
