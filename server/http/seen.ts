import type { Power } from '../../shared/api/sharing'
import { refuse } from './refuse'

/** Refuses who may act in a form without seeing its responses. */
export function refuseUnseen(powers: ReadonlySet<Power>): void {
  if (!powers.has('responses'))
    refuse(
      403,
      'not-allowed',
      'Whoever corrects a response has to see it: ask an owner of the form for that right.',
    )
}
