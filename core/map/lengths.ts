import type { Place } from '../form/walk'
import { END, sectionId, type MapGraph } from './graph'

/** How long a way is: its questions, and about how many seconds they take. */
export interface Length {
  questions: number
  seconds: number
}
/** The shortest and the longest way through a form. */
export interface Lengths {
  shortest: Length
  longest: Length
}

/** Seconds that a question takes, by its type: rough figures, for somebody who knows the answers. */
const SECONDS: Readonly<Record<string, number>> = {
  yesNo: 5,
  choice: 7,
  choices: 10,
  scale: 5,
  longText: 40,
  grid: 30,
  ranking: 25,
  file: 40,
  signature: 15,
  hidden: 0,
  value: 0,
}
const SECONDS_ELSE = 12

/**
 * The shortest and the longest way through the sections, by every way that is drawn, whatever its condition says. Always asked is what has no
 * rule of its own or around it; entries of repeating groups count once.
 */
export function measureWays({ nodes, edges }: MapGraph, places: readonly Place[]): Lengths | null {
  const least = new Map<string, Length>()
  const most = new Map<string, Length>()
  const index = new Map(nodes.map((n, i) => [n.id, i]))
  for (const node of [...nodes].reverse()) {
    const after = edges.filter(e => e.from === node.id && (index.get(e.to) ?? 0) > (index.get(node.id) ?? 0))
    const own =
      node.id === END ? { shortest: ZERO, longest: ZERO } : ownLength(places, node.sections, node.rule)
    least.set(
      node.id,
      add(
        own.shortest,
        best(
          after.flatMap(e => least.get(e.to) ?? []),
          -1,
        ),
      ),
    )
    most.set(
      node.id,
      add(
        own.longest,
        best(
          after.flatMap(e => most.get(e.to) ?? []),
          1,
        ),
      ),
    )
  }
  const [shortest, longest] = [least.get(sectionId(0)), most.get(sectionId(0))]
  return shortest && longest ? { shortest, longest } : null
}

const ZERO: Length = { questions: 0, seconds: 0 }
const add = (a: Length, b: Length): Length => ({
  questions: a.questions + b.questions,
  seconds: a.seconds + b.seconds,
})
/** The shortest of some ways (`sign` -1), or the longest (1). */
const best = (ways: readonly Length[], sign: 1 | -1): Length =>
  ways.reduce<Length | null>((a, b) => (a && sign * (a.questions - b.questions) >= 0 ? a : b), null) ?? ZERO

function ownLength(places: readonly Place[], sections: readonly number[], rule: string | null): Lengths {
  let [shortest, longest] = [ZERO, ZERO]
  for (const place of places) {
    if (place.kind !== 'question' || !sections.includes(place.section)) continue
    const { type } = place.node
    if (type === 'value' || type === 'hidden') continue
    const own = { questions: 1, seconds: SECONDS[type] ?? SECONDS_ELSE }
    longest = add(longest, own)
    const isRuled = [place, ...place.groups].some(p => p.node.shownWhen !== undefined)
    const isOptional = place.entryOf !== null && (place.entryOf.node.repeat?.min ?? 0) === 0
    if (!isRuled && !isOptional && rule === null) shortest = add(shortest, own)
  }
  return { shortest, longest }
}
