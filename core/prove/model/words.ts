import type { Place } from '../../form/walk'
import { placeName } from '../../form/walk'

/** Words that are said of anything. */
const COMMON = new Set(
  'the and you your for with what which how when where who whom whose why about this that these those any are was were will would can could shall should does did has have had been from into onto over under more most other else anything something someone somebody anyone anybody nobody everyone everybody use used person persons people tell please give name names number numbers date dates day days time times kind type sort many much long likely last first next new old own all sec section group note notes part parts details remark remarks comment comments question yes not non none out off she her him his its our their they them then than only also still just very per each every send come came want need needed know like look make take bring keep ask call work help sure get put going there here may might must let lets'.split(
    ' ',
  ),
)
const STEM = 5
const SHORTEST = 3

/** The words of a text that say what it is about, cut to their beginnings so that “insured” and “insurer” are one. */
export function stemsOf(text: string): Set<string> {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? []
  return new Set(words.filter(w => w.length >= SHORTEST && !COMMON.has(w)).map(w => w.slice(0, STEM)))
}

const STEMS = new WeakMap<Place, ReadonlySet<string>>()
/** The words that a place goes by. */
export function stemsAt(place: Place): ReadonlySet<string> {
  const known = STEMS.get(place)
  if (known) return known
  const stems = stemsOf(`${placeName(place)} ${place.code.replaceAll('_', ' ')}`)
  STEMS.set(place, stems)
  return stems
}

/** The words that a choice goes by. */
export const stemsOfOption = ({ label, code }: { label: string; code: string }): Set<string> =>
  stemsOf(`${label} ${code.replaceAll('_', ' ')}`)

/** More places than these with a word in common don't belong together by it. */
const RARE = 4
const COUNTS = new WeakMap<readonly Place[], ReadonlyMap<string, number>>()

/** Words that few places of a form have in common: only these tell what belongs together. */
export function rareStems(places: readonly Place[]): (stem: string) => boolean {
  const counts = COUNTS.get(places) ?? countStems(places)
  COUNTS.set(places, counts)
  return stem => (counts.get(stem) ?? 0) <= RARE
}

function countStems(places: readonly Place[]): Map<string, number> {
  const counts = new Map<string, number>()
  for (const place of places) for (const stem of stemsAt(place)) counts.set(stem, (counts.get(stem) ?? 0) + 1)
  return counts
}

const DENIALS =
  /\b(?:no|not|without|why|instead|otherwise|else|elsewhere|already|exempt\w*|waive\w*|missing|lack\w*|never|neither|un(?:insured|able|known|available|likely|needed)|non\w*|refus\w*|declin\w*)\b/i
const SAMENESS = /\b(?:same|own|one who|one that|still|permanent|correct|right|agree\w*|complete|enough)\b/i
/** Whether a question asks if all is as one would take it to be: then a no is what calls for more. */
export const asksIfAsUsual = (place: Place): boolean =>
  SAMENESS.test(`${placeName(place)} ${place.code.replaceAll('_', ' ')}`)

/** Whether a text speaks of something that is not so. */
export const isDenial = (text: string): boolean => DENIALS.test(text)
