import { ExpressionError, parsed } from '../expressions/parse'
import { namesIn } from '../expressions/tree'
import { rulesAt } from './rules'
import type { Address, Place } from './walk'

/** A question that rules depend on, with what depends on it, as a line in the margin of the script. */
export interface Thread { from: Address, to: readonly Address[], lane: number }

/**
 * The threads of a form: one for every question that a rule elsewhere names. Lanes are given so that two threads that
 * overlap never share one.
 * @param lanes how many lanes there are; threads beyond them are left out
 */
export function threadsOf(places: readonly Place[], lanes: number): Thread[] {
  const orderOf = new Map(places.map(p => [p.address, p.order] as const))
  const gates = new Map<string, Place>()
  for (const p of places) if (p.kind === 'question' && !gates.has(p.code)) gates.set(p.code, p)
  const dependants = new Map<Place, Set<Address>>()
  for (const place of places) {
    for (const name of namesAt(place)) {
      const gate = gates.get(name)
      if (!gate || gate.address === place.address) continue
      dependants.set(gate, (dependants.get(gate) ?? new Set()).add(place.address))
    }
  }
  const ends: number[] = []
  return [...dependants].sort(([a], [b]) => a.order - b.order).flatMap(([gate, to]): Thread[] => {
    const orders = [gate.order, ...[...to].map(a => orderOf.get(a) ?? 0)]
    const [first, last] = [Math.min(...orders), Math.max(...orders)]
    const lane = Array.from({ length: lanes }, (_, i) => i).find(i => (ends[i] ?? -1) < first)
    if (lane === undefined) return []
    ends[lane] = last
    return [{ from: gate.address, to: [...to], lane }]
  })
}

const KNOWN = new WeakMap<Place['node'], readonly string[]>()
/** The codes that the rules at a place use; kept by its node, since most rows stay as they are from one edit to the next. */
function namesAt(place: Place): readonly string[] {
  const known = KNOWN.get(place.node)
  if (known) return known
  const names = rulesAt(place).flatMap(rule => namesUsed(rule.text))
  KNOWN.set(place.node, names)
  return names
}

/** The codes a rule uses; none when it can't be read. */
export function namesUsed(text: string): readonly string[] {
  try {
    return namesIn(parsed(text))
  }
  catch (error) {
    if (error instanceof ExpressionError) return []
    throw error
  }
}
