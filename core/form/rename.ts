import { parse, ExpressionError } from '../expressions/parse'
import { nodesOf } from '../expressions/tree'
import type { Form, Section } from './definition'
import { applyEdits, type Edit } from './edits'
import { outline, type Address, type Place } from './walk'

/** A rule's text with one question code replaced, or the same text where the code is not used (or it can't be read). */
function renamedIn(text: string, from: string, to: string): string {
  try {
    const spots = [...nodesOf(parse(text))].filter(n => n.kind === 'name' && n.name === from).sort((a, b) => b.from - a.from)
    return spots.reduce((done, spot) => done.slice(0, spot.from) + to + done.slice(spot.to), text)
  }
  catch (error) {
    if (error instanceof ExpressionError) return text
    throw error
  }
}

/** The edits that give a section or item another code and re-write every rule and route that uses it. */
export function renameEdits(form: Form, address: Address, code: string): Edit[] {
  const places = outline(form)
  const place = places.find(p => p.address === address)
  if (!place || place.code === code) return []
  const rename: Edit = { do: 'change', what: address, set: { code } }
  const edits = place.kind === 'section' ? rerouted(form, place.code, code) : places.flatMap(p => rewritten(p, place.code, code))
  // The rules first: afterwards the address of the renamed thing is another one.
  return [...edits, rename]
}

function rerouted(form: Form, from: string, to: string): Edit[] {
  const uses = (s: Section) => s.routes?.some(r => r.to === from) === true
  return outline(form).flatMap((p): Edit[] => p.kind === 'section' && uses(p.node)
    ? [{ do: 'change', what: p.address, set: { routes: p.node.routes?.map(r => r.to === from ? { ...r, to } : r) } }]
    : [])
}

function rewritten(place: Place, from: string, to: string): Edit[] {
  const set: Record<string, unknown> = {}
  const put = (key: string, before: string, after: string) => {
    if (after !== before) set[key] = after
  }
  const { node } = place
  if (node.shownWhen !== undefined) put('shownWhen', node.shownWhen, renamedIn(node.shownWhen, from, to))
  if (place.kind === 'question') {
    const { required, validWhen } = place.node
    if (typeof required === 'string') put('required', required, renamedIn(required, from, to))
    const checks = validWhen?.map(c => ({ ...c, rule: renamedIn(c.rule, from, to) }))
    if (checks?.some((c, i) => c.rule !== validWhen?.[i]?.rule)) set.validWhen = checks
  }
  if (place.kind === 'section') {
    const routes = place.node.routes?.map(r => r.when === undefined ? r : { ...r, when: renamedIn(r.when, from, to) })
    if (routes?.some((r, i) => r.when !== place.node.routes?.[i]?.when)) set.routes = routes
  }
  return Object.keys(set).length > 0 ? [{ do: 'change', what: place.address, set }] : []
}

/** Renames at once; see `renameEdits`. */
export const rename = (form: Form, address: Address, code: string): Form => applyEdits(form, renameEdits(form, address, code)).form
