import dagre from '@dagrejs/dagre'
import type { MapGraph, MapNode } from './graph'

/** The size of what is drawn, in units of the drawing (px at full size). */
export const NODE = { width: 210, height: 62 } as const
const LABEL = { width: 170, height: 30 } as const
/** Room beside and beneath. */
const BESIDE = 36
const BENEATH = 40
const LANE_ROOM = 40
const LANE_HEAD = 34

export interface Point {
  x: number
  y: number
}
/** A drawing: where each node's upper left corner is, by which points each edge goes, where its label's middle is, and the lanes of parties. */
export interface MapLayout {
  width: number
  height: number
  nodes: Readonly<Record<string, Point>>
  edges: Readonly<Record<string, { points: readonly Point[]; label: Point }>>
  lanes: readonly { lane: number; x: number; width: number }[]
}

/** Lays a map out from top to bottom, in layers (E. R. Gansner et al., "A Technique for Drawing Directed Graphs", 1993); with parties in lanes side by side. */
export function layOutMap(graph: MapGraph, inLanes: boolean): MapLayout {
  const laid = new dagre.graphlib.Graph({ multigraph: true })
  laid.setGraph({ rankdir: 'TB', nodesep: BESIDE, ranksep: BENEATH, edgesep: 16 })
  for (const node of graph.nodes) laid.setNode(node.id, { ...NODE })
  for (const edge of graph.edges) {
    const label = edge.kind === 'next' && edge.when === null ? {} : { ...LABEL, labelpos: 'c' }
    laid.setEdge(edge.from, edge.to, { weight: edge.kind === 'next' ? 3 : 1, ...label }, edge.id)
  }
  dagre.layout(laid)
  const nodes = Object.fromEntries(
    graph.nodes.map(n => {
      const { x, y } = laid.node(n.id)
      return [n.id, { x: x - NODE.width / 2, y: y - NODE.height / 2 }]
    }),
  )
  if (inLanes) return inLanesOf(graph, nodes)
  const edges = Object.fromEntries(
    graph.edges.map(e => {
      const { points, x, y } = laid.edge({ v: e.from, w: e.to, name: e.id })
      const middle = points[Math.floor(points.length / 2)] ?? { x: 0, y: 0 }
      return [e.id, { points, label: { x: x ?? middle.x, y: y ?? middle.y } }]
    }),
  )
  const { width = 0, height = 0 } = laid.graph()
  return { width, height, nodes, edges, lanes: [] }
}

/** The same with each node in the lane of its party: the layers stay, what shares one stands side by side. */
function inLanesOf(graph: MapGraph, laid: Readonly<Record<string, Point>>): MapLayout {
  const lanes = [...new Set(graph.nodes.map(laneOf))].sort((a, b) => a - b)
  const laneAt = new Map(graph.nodes.map(n => [n.id, laneOf(n)]))
  /** The edges that go down beside what lies between their ends, by the lane that they do so in. */
  const around = new Map<number, string[]>()
  for (const { id, from, to } of graph.edges) {
    const lane = laneAt.get(from)
    if (lane !== undefined && !isNear(laid[from], laid[to]))
      around.set(lane, [...(around.get(lane) ?? []), id])
  }
  const nodes: Record<string, Point> = {}
  const placed: { lane: number; x: number; width: number }[] = []
  const sides = new Map<string, number>()
  let left = 0
  for (const lane of lanes) {
    const inLayer = new Map<number, number>()
    for (const node of graph.nodes.filter(n => laneOf(n) === lane)) {
      const y = laid[node.id]?.y ?? 0
      const beside = inLayer.get(y) ?? 0
      inLayer.set(y, beside + 1)
      nodes[node.id] = { x: left + LANE_ROOM + beside * (NODE.width + BESIDE), y: y + LANE_HEAD }
    }
    const most = Math.max(1, ...inLayer.values())
    const inner = most * (NODE.width + BESIDE) - BESIDE + 2 * LANE_ROOM
    const own = around.get(lane) ?? []
    for (const [i, id] of own.entries()) sides.set(id, left + inner - LANE_ROOM + 8 + (i % STRANDS) * STRAND)
    const width = inner + (own.length > 0 ? LABEL.width + STRANDS * STRAND - LANE_ROOM + 16 : 0)
    placed.push({ lane, x: left, width })
    left += width
  }
  const edges = Object.fromEntries(
    graph.edges.map(e => [e.id, drawBetween(nodes[e.from], nodes[e.to], sides.get(e.id))]),
  )
  const height = Math.max(0, ...Object.values(nodes).map(n => n.y)) + NODE.height + BENEATH
  return { width: left, height, nodes, edges, lanes: placed }
}

const laneOf = ({ lane }: MapNode): number => lane ?? 0

/** How far apart edges run that go down side by side. */
const STRANDS = 5
const STRAND = 6

/** Whether one node is in the layer beneath another: with a layer between them there is more room than this. */
const isNear = (from: Point | undefined, to: Point | undefined): boolean =>
  from !== undefined && to !== undefined && to.y - from.y < BENEATH + LABEL.height + 1.5 * NODE.height

/** The way of an edge between two nodes: straight down to the next layer, else down at `side`, beside what lies between. */
function drawBetween(from: Point | undefined, to: Point | undefined, side: number | undefined) {
  if (!from || !to) throw new RangeError('An edge has two ends.')
  const start = { x: from.x + NODE.width / 2, y: from.y + NODE.height }
  const end = { x: to.x + NODE.width / 2, y: to.y }
  const middle = { x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 }
  if (side === undefined) return { points: [start, end], label: middle }
  // Down at the side before the nodes begin, and until they end.
  const points = [
    start,
    { x: start.x, y: start.y + BENEATH / 4 },
    ...[BENEATH / 4, BENEATH / 2].map(down => ({ x: side, y: start.y + down })),
    ...[BENEATH / 2, BENEATH / 4].map(up => ({ x: side, y: end.y - up })),
    { x: end.x, y: end.y - BENEATH / 4 },
    end,
  ]
  return { points, label: { x: side + LABEL.width / 2 + 4, y: middle.y } }
}
