import type { Form } from './definition'
import { applyEdit, EditError, type Edit } from './edits'
import { renameEdits } from './rename'
import { rulesOf, withRule } from './rules'
import { listPlaces, type Address, type Place, nodeText } from './walk'

export type Field = 'label' | 'code' | 'rule'
/** Something found: where, in which text of it, and the stretch that matches. */
export interface Found {
  address: Address
  field: Field
  text: string
  from: number
  to: number
}

const MOST_FOUND = 2_000
/** Finds a text in labels, codes and rules, without regard to capitals. */
export function findText(
  form: Form,
  places: readonly Place[],
  wanted: string,
  fields: readonly Field[],
): Found[] {
  if (wanted === '') return []
  const found: Found[] = []
  const look = (address: Address, field: Field, text: string) => {
    const lower = text.toLowerCase()
    for (
      let at = lower.indexOf(wanted.toLowerCase());
      at >= 0 && found.length < MOST_FOUND;
      at = lower.indexOf(wanted.toLowerCase(), at + wanted.length)
    )
      found.push({ address, field, text, from: at, to: at + wanted.length })
  }
  for (const place of places) {
    if (fields.includes('label')) look(place.address, 'label', nodeText(place.node).text)
    if (fields.includes('code')) look(place.address, 'code', place.code)
  }
  if (fields.includes('rule'))
    for (const rule of rulesOf(form, places)) look(rule.place.address, 'rule', rule.text)
  const order = new Map(places.map(p => [p.address, p.order]))
  return found.sort((a, b) => (order.get(a.address) ?? 0) - (order.get(b.address) ?? 0))
}

const escaped = (text: string) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** The edits that replace a text everywhere it was found; a code changes with every rule that uses it. `refused`: what could not be replaced. */
export function replaceTextEdits(
  form: Form,
  wanted: string,
  by: string,
  fields: readonly Field[],
): { edits: Edit[]; count: number; refused: string[] } {
  const pattern = new RegExp(escaped(wanted), 'gi')
  const edits: Edit[] = []
  const refused: string[] = []
  let count = 0
  const make = (made: readonly Edit[], what: string) => {
    try {
      for (const edit of made) {
        form = applyEdit(form, edit).form
        edits.push(edit)
      }
      count += made.length > 0 ? 1 : 0
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      refused.push(`${what}: ${error.message}`)
    }
  }
  if (wanted === '') return { edits, count, refused }
  if (fields.includes('label')) {
    for (const place of listPlaces(form)) {
      const { key, text } = nodeText(place.node)
      const next = text.replaceAll(pattern, () => by)
      if (next !== text) make([{ do: 'change', what: place.address, set: { [key]: next } }], place.code)
    }
  }
  if (fields.includes('rule')) {
    for (const { id } of rulesOf(form)) {
      const rule = rulesOf(form).find(r => r.id === id)
      const next = rule?.text.replaceAll(pattern, () => by)
      if (rule && next !== undefined && next !== rule.text)
        make([withRule(form, rule, next)], rule.place.code)
    }
  }
  if (fields.includes('code')) {
    for (const { address, code } of listPlaces(form)) {
      const next = code.replaceAll(pattern, () => by)
      if (next === code) continue
      if (listPlaces(form).some(p => p.code === next)) refused.push(`${code}: the code “${next}” is taken.`)
      else make(renameEdits(form, address, next), code)
    }
  }
  return { edits, count, refused }
}
