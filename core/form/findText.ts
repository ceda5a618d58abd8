import type { Form } from './definition'
import { applyEdit, EditError, type Edit } from './edits'
import { renameEdits } from './rename'
import { rulesOf, withRule } from './rules'
import { listPlaces, type Address, type Place, nodeText } from './walk'

export type Field = 'label' | 'code' | 'rule'
/** What is looked for: in any case unless said otherwise, also within words. */
export interface Wanted {
  text: string
  matchCase?: boolean
  wholeWord?: boolean
}
/** Something found: where, in which text of it, and the stretch that matches. `rule`: the id of the rule. */
export interface Found {
  address: Address
  field: Field
  text: string
  from: number
  to: number
  rule?: string
}

const escaped = (text: string) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&')
/** No letter, digit or underscore stands there. */
const [BEFORE_WORD, BEHIND_WORD] = ['(?<![\\p{L}\\p{N}_])', '(?![\\p{L}\\p{N}_])']
function patternFor({ text, matchCase, wholeWord }: Wanted): RegExp {
  const plain = escaped(text)
  return new RegExp(wholeWord ? `${BEFORE_WORD}${plain}${BEHIND_WORD}` : plain, matchCase ? 'gu' : 'giu')
}

const MOST_FOUND = 2_000
/** Finds a text in labels, codes and rules. */
export function findText(
  form: Form,
  places: readonly Place[],
  wanted: Wanted,
  fields: readonly Field[],
): Found[] {
  if (wanted.text === '') return []
  const pattern = patternFor(wanted)
  const found: Found[] = []
  const look = (address: Address, field: Field, text: string, rule?: string) => {
    for (const match of text.matchAll(pattern)) {
      if (found.length >= MOST_FOUND) return
      const [from, to] = [match.index, match.index + match[0].length]
      found.push({ address, field, text, from, to, ...(rule === undefined ? {} : { rule }) })
    }
  }
  for (const place of places) {
    if (fields.includes('label')) look(place.address, 'label', nodeText(place.node).text)
    if (fields.includes('code')) look(place.address, 'code', place.code)
  }
  if (fields.includes('rule'))
    for (const rule of rulesOf(form, places)) look(rule.place.address, 'rule', rule.text, rule.id)
  const order = new Map(places.map(p => [p.address, p.order]))
  return found.sort((a, b) => (order.get(a.address) ?? 0) - (order.get(b.address) ?? 0))
}

/** A text with what was found in it replaced. */
export const withReplaced = ({ text, from, to }: Found, by: string): string =>
  text.slice(0, from) + by + text.slice(to)

/** The edits that replace one thing that was found; a sentence where that can't be. */
export function replaceFoundEdits(form: Form, found: Found, by: string): Edit[] | string {
  const place = listPlaces(form).find(p => p.address === found.address)
  const next = withReplaced(found, by)
  if (!place) return 'This is not there any more.'
  if (found.field === 'label')
    return [{ do: 'change', what: place.address, set: { [nodeText(place.node).key]: next } }]
  if (found.field === 'code') {
    const isTaken = listPlaces(form).some(p => p.code === next)
    return isTaken ? `The code “${next}” is taken.` : renameEdits(form, place.address, next)
  }
  const rule = rulesOf(form).find(r => r.id === found.rule)
  return rule ? [withRule(form, rule, next)] : 'This rule is not there any more.'
}

/** The edits that replace a text everywhere it was found; a code changes with every rule that uses it. `refused`: what could not be replaced. */
export function replaceTextEdits(
  form: Form,
  wanted: Wanted,
  by: string,
  fields: readonly Field[],
): { edits: Edit[]; count: number; refused: string[] } {
  const pattern = patternFor(wanted)
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
  if (wanted.text === '') return { edits, count, refused }
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
