import { RULE_WORDS, rulesOf } from './rules'
import { piecesOf } from './quotes'
import { memberReader, namesUsed } from './threads'
import { textsAt } from './texts'
import type { Form } from './definition'
import type { Address, Place } from './walk'

/** Somewhere that uses a question, group or section: the place, and how in a few words. */
export interface Use {
  place: Place
  words: string
}

/** Who uses what stands at an address: rules, quotes, routes, a place under one of its choices. What stands inside it counts as itself. */
export function usesOf(form: Form, places: readonly Place[], addresses: readonly Address[]): Use[] {
  const wanted = new Set(addresses)
  const whole = new Set(places.filter(p => p.kind === 'section' && wanted.has(p.address)).map(p => p.section))
  const gone = new Set(
    places.filter(
      p => wanted.has(p.address) || whole.has(p.section) || p.groups.some(g => wanted.has(g.address)),
    ),
  )
  const codes = new Set([...gone].filter(p => p.kind !== 'section').map(p => p.code))
  const sections = new Set([...gone].filter(p => p.kind === 'section').map(p => p.code))
  const uses: Use[] = []
  const membersOf = memberReader(places)
  const usesThem = (text: string) =>
    namesUsed(text).some(name => codes.has(name)) || membersOf(text).some(name => codes.has(name))
  for (const rule of rulesOf(form, places))
    if (!gone.has(rule.place) && usesThem(rule.text))
      uses.push({ place: rule.place, words: RULE_WORDS[rule.kind].toLowerCase() })
  for (const place of places) {
    if (gone.has(place)) continue
    const quotes = textsAt(place)
      .flatMap(t => piecesOf(t.text))
      .some(p => p.kind === 'quote' && usesThem(p.source))
    if (quotes) uses.push({ place, words: 'quotes it' })
    if (place.kind === 'section' && place.node.routes?.some(r => sections.has(r.to)))
      uses.push({ place, words: 'leads there' })
    if (
      place.kind !== 'section' &&
      'under' in place.node &&
      place.node.under &&
      codes.has(place.node.under.question)
    )
      uses.push({ place, words: 'stands under one of its choices' })
  }
  const first = places.find(p => p.kind === 'section' && !gone.has(p))
  const turns = (form.turns ?? []).filter(
    t => typeof t.by === 'object' && 'answer' in t.by && codes.has(t.by.answer),
  )
  if (first)
    for (const turn of turns)
      uses.push({ place: first, words: `names who acts in the turn “${turn.title ?? turn.code}”` })
  return uses
}

/** What a place depends on by its rules, and what depends on it. */
export function neighboursOf(
  form: Form,
  places: readonly Place[],
  address: Address,
): { needs: Place[]; decides: Use[] } {
  const place = places.find(p => p.address === address)
  if (!place) return { needs: [], decides: [] }
  const membersOf = memberReader(places)
  const names = new Set(
    rulesOf(form, places)
      .filter(r => r.place === place)
      .flatMap(r => [...namesUsed(r.text), ...membersOf(r.text)]),
  )
  return {
    needs: places.filter(p => p !== place && p.kind !== 'section' && names.has(p.code)),
    decides:
      place.kind === 'section'
        ? usesOf(form, places, [address]).filter(u => u.words === 'leads there')
        : usesOf(form, places, [address]),
  }
}
