import type { MapEdge, MapGraph, MapNode } from './graph'

/** Fewer sections than these stay apart. */
const SHORTEST_RUN = 3

/**
 * The map with straight runs drawn together: sections that follow one another without a rule, and without any other way in or out.
 * @param apart the ids of nodes that stay by themselves
 */
export function collapseRuns({ nodes, edges }: MapGraph, apart: ReadonlySet<string>): MapGraph {
  const into = countBy(edges, e => e.to)
  const out = countBy(edges, e => e.from)
  const next = new Map(edges.filter(e => e.kind === 'next').map(e => [e.from, e.to]))
  const isPlain = (n: MapNode) => n.kind === 'section' && n.rule === null && !apart.has(n.id)
  /** Whether a node goes on in the run of the one before it. */
  const goesOn = (before: MapNode, n: MapNode) =>
    isPlain(before) &&
    isPlain(n) &&
    before.lane === n.lane &&
    next.get(before.id) === n.id &&
    out.get(before.id) === 1 &&
    into.get(n.id) === 1
  const runs: MapNode[][] = []
  for (const node of nodes) {
    const last = runs.at(-1)
    const before = last?.at(-1)
    if (last && before && goesOn(before, node)) last.push(node)
    else runs.push([node])
  }
  const drawn = runs.flatMap(run => (run.length < SHORTEST_RUN ? run : [runNode(run)]))
  const standsFor = new Map<string, string>()
  for (const run of runs)
    if (run.length >= SHORTEST_RUN) for (const n of run) standsFor.set(n.id, runNode(run).id)
  const at = (id: string) => standsFor.get(id) ?? id
  return {
    nodes: drawn,
    edges: edges.map((e): MapEdge => ({ ...e, from: at(e.from), to: at(e.to) })).filter(e => e.from !== e.to),
  }
}

function runNode(run: readonly MapNode[]): MapNode {
  const [first, last] = [run[0], run.at(-1)]
  if (!first || !last) throw new RangeError('A run has sections.')
  return {
    ...first,
    id: `run-${first.id}`,
    kind: 'run',
    number: `${first.number}–${last.number}`,
    title: `${first.title} … ${last.title}`,
    questions: run.reduce((sum, n) => sum + n.questions, 0),
    sections: run.flatMap(n => n.sections),
  }
}

function countBy(edges: readonly MapEdge[], key: (edge: MapEdge) => string): Map<string, number> {
  const counts = new Map<string, number>()
  for (const edge of edges) counts.set(key(edge), (counts.get(key(edge)) ?? 0) + 1)
  return counts
}
