import { z } from 'zod'
import { Opening, OPENING_STATES } from '../../core/form/opening'

/** The opening of a form as designers see it: the token of its address, the settings, where it stands now, and how many responses count. */
export const LoadedOpening = z.object({
  token: z.string(),
  settings: Opening,
  state: z.enum(OPENING_STATES),
  standing: z.int(),
})
export type LoadedOpening = z.infer<typeof LoadedOpening>

/** Withdraws a release, or puts it back. */
export const Withdrawal = z.strictObject({ isWithdrawn: z.boolean() })
