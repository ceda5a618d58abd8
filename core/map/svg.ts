import type { MapEdge, MapGraph, MapNode } from './graph'
import { NODE, type MapLayout, type Point } from './layout'

/** What is written in a drawing: the words of a node's second line, of an edge, and of a lane. */
export interface MapWords {
  node: (node: MapNode) => string
  edge: (edge: MapEdge) => string
  lane: (lane: number) => string
}

const MARGIN = 20
/** Room for the title above. */
const HEADING = 24
/** Words over a line stand on white. */
const ON_WHITE = 'stroke="#fff" stroke-width="5" stroke-linejoin="round" paint-order="stroke"'
/** So many letters fit into a line of a node, and beside an edge. */
const IN_NODE = 28
const BESIDE_EDGE = 46

/** The path of an edge through its points, as SVG 1.1 writes it: smooth between the middles. */
export function pathThrough(points: readonly Point[]): string {
  const [first, ...rest] = points
  if (!first) return ''
  const last = rest.at(-1)
  const middles = rest.slice(0, -1).map((p, i) => {
    const next = rest[i + 1] ?? p
    return `Q ${p.x} ${p.y} ${(p.x + next.x) / 2} ${(p.y + next.y) / 2}`
  })
  return [`M ${first.x} ${first.y}`, ...middles, ...(last ? [`L ${last.x} ${last.y}`] : [])].join(' ')
}

/** Whether a way is drawn with dashes: one that is taken besides the order of the form. */
export const isDashed = ({ kind }: Pick<MapEdge, 'kind'>): boolean =>
  kind === 'skip' || kind === 'over' || kind === 'alongside'

/** A map as an SVG 1.1 document of its own, black on white, to be printed or kept. */
export function drawMapSvg(title: string, graph: MapGraph, layout: MapLayout, words: MapWords): string {
  const [width, height] = [layout.width + 2 * MARGIN, layout.height + 2 * MARGIN + HEADING]
  const heading = `<text x="0" y="${-MARGIN}" font-size="16" font-weight="bold">${escape(title)}</text>`
  const lanes = layout.lanes.map(
    ({ lane, x, width: w }) =>
      `<rect x="${x}" y="0" width="${w}" height="${layout.height}" fill="none" stroke="#bbb"/><text x="${x + 12}" y="20" font-weight="bold">${escape(words.lane(lane))}</text>`,
  )
  const lines = graph.edges.map(e => {
    const drawn = layout.edges[e.id]
    const dashes = isDashed(e) ? ' stroke-dasharray="5 4"' : ''
    return drawn
      ? `<path d="${pathThrough(drawn.points)}" fill="none" stroke="#444"${dashes} marker-end="url(#tip)"/>`
      : ''
  })
  const labels = graph.edges.map(e => {
    const drawn = layout.edges[e.id]
    const text = cut(words.edge(e), BESIDE_EDGE)
    if (!drawn || text === '') return ''
    const { x, y } = drawn.label
    return `<text x="${x}" y="${y}" text-anchor="middle" font-size="11" ${ON_WHITE}>${escape(text)}</text>`
  })
  const nodes = graph.nodes.map(n => {
    const { x, y } = layout.nodes[n.id] ?? { x: 0, y: 0 }
    const name = cut(`${n.number} ${n.title}`.trim(), IN_NODE)
    return [
      `<rect x="${x}" y="${y}" width="${NODE.width}" height="${NODE.height}" fill="#fff" stroke="#222"/>`,
      `<text x="${x + 10}" y="${y + 24}" font-weight="bold">${escape(name)}</text>`,
      `<text x="${x + 10}" y="${y + 46}" font-size="12">${escape(cut(words.node(n), IN_NODE + 6))}</text>`,
    ].join('')
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${-MARGIN} ${-MARGIN - HEADING} ${width} ${height}" font-family="sans-serif" font-size="13"><title>${escape(title)}</title><defs><marker id="tip" viewBox="0 0 8 8" refX="8" refY="4" markerWidth="8" markerHeight="8" orient="auto"><path d="M 0 0 L 8 4 L 0 8 z" fill="#444"/></marker></defs>${[heading, ...lanes, ...lines, ...nodes, ...labels].join('')}</svg>`
}

const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)
const ESCAPED: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escape = (text: string) => text.replaceAll(/[&<>"]/g, c => ESCAPED[c] ?? c)
