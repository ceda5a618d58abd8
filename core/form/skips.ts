import type { Skip } from './fields'
import { FINISH } from './finish'
import type { Place, PlaceOf } from './walk'

/** Where a skip goes on: a section, and in it the first thing that is asked there again; null for its beginning, or for the finish. */
export interface SkipTarget {
  /** Its section; the number of sections stands for the finish. */
  section: number
  place: Exclude<Place, PlaceOf<'section'>> | null
}

/** Why a skip leads nowhere. */
export type SkipError = 'unknown' | 'backward' | 'into entries' | 'out of an entry'

/** Where a skip of a question leads, or why it leads nowhere: only forward, and not into or out of an entry of a repeating group. */
export function skipTarget(
  places: readonly Place[],
  from: PlaceOf<'question'>,
  { to }: Skip,
): SkipTarget | SkipError {
  const target = to === FINISH ? null : places.find(p => p.address === to)
  if (target === undefined) return 'unknown'
  if (target !== null && target.order <= from.order) return 'backward'
  if (from.entryOf !== null && target?.entryOf !== from.entryOf) return 'out of an entry'
  if (target === null) return { section: 1 + Math.max(0, ...places.map(p => p.section)), place: null }
  if (target.kind === 'section') return { section: target.section, place: null }
  return target.entryOf === from.entryOf ? { section: target.section, place: target } : 'into entries'
}
