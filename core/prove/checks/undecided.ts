import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { finding, partAt } from './check'

/** What could not be decided is said, with what stood in the way; a release treats it as a risk. */
export const UNDECIDED = { code: 'undecided', severity: 'risk' } as const

export const undecidedFinding = (place: Place, question: string, why: string): Finding =>
  finding(UNDECIDED, place, `Not decided: ${question}; ${why}.`, {
    rule: place.node.shownWhen === undefined ? null : `${place.address}:shownWhen`,
    conflict: [partAt(place, 'shownWhen')],
  })
