import type { Place } from '../../form/walk'
import type { ConflictPart } from '../finding'
import type { Inquiry } from '../goals/inquiry'

/** The checks that find what can never come into play: weaker findings about such a thing would only repeat theirs. */
export const NEVER_IN_PLAY = ['unreachable-section', 'never-shown'] as const

/** Whether something can never come into play by itself. */
export const isNeverInPlay = (inquiry: Inquiry, order: number): boolean =>
  inquiry.facts.has(NEVER_IN_PLAY, order)

const isSectionNeverInPlay = ({ facts, model }: Inquiry, section: number): boolean =>
  facts.has(NEVER_IN_PLAY, model.plan.sections[section]?.place.order ?? -1)

/** Whether something stands inside what can never come into play. */
export const isFolded = (inquiry: Inquiry, { place }: { place: Place }): boolean =>
  isSectionNeverInPlay(inquiry, place.section) ||
  place.groups.some(group => isNeverInPlay(inquiry, group.order))

/** Whether something can't come into play, by itself or by what stands around it. */
export const isOutOfPlay = (inquiry: Inquiry, thing: { place: Place }): boolean =>
  isNeverInPlay(inquiry, thing.place.order) || isFolded(inquiry, thing)

/** Whether a conflict only repeats one that some checks have found before. */
export function isRepeated(
  inquiry: Inquiry,
  checks: readonly string[],
  conflict: readonly ConflictPart[],
): boolean {
  const keys = new Set(conflict.map(partKey))
  return inquiry.facts
    .conflicts(checks)
    .some(parts => parts.length > 0 && parts.every(p => keys.has(partKey(p))))
}

const partKey = (part: ConflictPart) => `${part.address}:${part.kind}:${part.index}`
