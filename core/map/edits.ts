import { freeCode, takenCodes } from '../form/codes'
import type { Form, Route, Section } from '../form/definition'
import { applyEdits, type Edit } from '../form/edits'
import { FINISH } from '../form/finish'
import type { Skip } from '../form/fields'
import type { Place } from '../form/walk'
import { END, type MapEdge, type MapGraph } from './graph'

/** What a target is called in a route: the code of its section, or the finish; null for what is no target. */
function codeOf({ nodes }: MapGraph, form: Form, id: string): string | null {
  if (id === END) return FINISH
  const [section] = nodes.find(n => n.id === id)?.sections ?? []
  return section === undefined ? null : (form.sections[section]?.code ?? null)
}

const sectionOf = ({ nodes }: MapGraph, id: string): number | null =>
  nodes.find(n => n.id === id)?.sections.at(-1) ?? null

/** The edits by which a section leads to another: its way to the next one becomes a route there, or the one that is always taken leads there now. */
export function leadEdits(graph: MapGraph, form: Form, from: string, to: string): Edit[] {
  const index = sectionOf(graph, from)
  const section = index === null ? undefined : form.sections[index]
  const code = codeOf(graph, form, to)
  if (!section || code === null) return []
  const routes = section.routes ?? []
  const always = routes.findIndex(r => r.when === undefined)
  const led: Route[] = always < 0 ? [...routes, { to: code }] : routes.with(always, { to: code })
  return [{ do: 'change', what: `section/${section.code}`, set: { routes: led } }]
}

/** The edits by which an exit leads to another section; its condition stays. */
export function turnEdits(
  graph: MapGraph,
  form: Form,
  places: readonly Place[],
  edge: MapEdge,
  to: string,
): Edit[] {
  const code = codeOf(graph, form, to)
  if (code === null) return []
  return edge.index === null ? leadEdits(graph, form, edge.from, to) : exitEdits(places, edge, code)
}

/** The edits by which a route or a skip as it is written leads to another section, or to the finish. */
function exitEdits(places: readonly Place[], { at, index }: MapEdge, code: string): Edit[] {
  const place = places.find(p => p.address === at)
  if (place?.kind === 'section') {
    const routes = (place.node.routes ?? []).map((r, i): Route => (i === index ? { ...r, to: code } : r))
    return [{ do: 'change', what: place.address, set: { routes } }]
  }
  if (place?.kind !== 'question' || !('skips' in place.node)) return []
  const to = code === FINISH ? FINISH : `section/${code}`
  const skips = (place.node.skips ?? []).map((s, i): Skip => (i === index ? { ...s, to } : s))
  return [{ do: 'change', what: place.address, set: { skips } }]
}

/**
 * The edits by which a new section stands on a way: it comes right before what the way leads to, and the way leads to it. The section that stood
 * before that, and went on to it as the next one, leads there by a route from now on.
 */
export function betweenEdits(
  graph: MapGraph,
  form: Form,
  places: readonly Place[],
  edge: MapEdge,
  title: string,
): Edit[] {
  const before = edge.to === END ? form.sections.length : graph.nodes.find(n => n.id === edge.to)?.sections[0]
  const target = codeOf(graph, form, edge.to)
  if (before === undefined || target === null) return []
  const code = freeCode('section_new', takenCodes(form, 'section'))
  const node: Section = { code, title, items: [] }
  const insert: Edit = { do: 'insert', into: 'sections', at: before, node }
  if (edge.index === null) return [insert]
  const led = exitEdits(places, edge, code)
  const above = applyEdits(form, led).form.sections[before - 1]
  const routes = above?.routes ?? []
  if (!above || routes.some(r => r.when === undefined)) return [insert, ...led]
  const past: Edit = {
    do: 'change',
    what: `section/${above.code}`,
    set: { routes: [...routes, { to: target }] },
  }
  return [insert, ...led, past]
}
