import type { MapEdge, MapGraph } from './graph'

/**
 * The ways of a map that lead over some of its nodes in order, past nodes with a rule that are passed over.
 * @param taken ids of nodes, the first one first
 * @returns ids of edges
 */
export function waysTaken({ nodes, edges }: MapGraph, taken: readonly string[]): Set<string> {
  const ruled = new Set(nodes.filter(n => n.rule !== null).map(n => n.id))
  const from = (id: string) => edges.filter(e => e.from === id)
  const ways = new Set<string>()
  for (const [i, id] of taken.entries()) {
    const to = taken[i + 1]
    if (to === undefined) continue
    for (const edge of wayTo(from, ruled, id, to)) ways.add(edge.id)
  }
  return ways
}

/** The edges from one node to the next that is entered; none where there are no such. */
function wayTo(
  from: (id: string) => readonly MapEdge[],
  ruled: ReadonlySet<string>,
  id: string,
  to: string,
): MapEdge[] {
  const direct = from(id).find(e => e.to === to)
  if (direct) return [direct]
  for (const first of from(id)) {
    const way = [first]
    let at = first.to
    while (at !== to && ruled.has(at)) {
      const on = from(at).find(e => e.kind === 'next' || e.kind === 'over')
      if (!on) break
      way.push(on)
      at = on.to
    }
    if (at === to) return way
  }
  return []
}
