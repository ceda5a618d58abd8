import { RULE_WORDS, rulesOf } from './rules'
import { splitQuotes } from './quotes'
import { memberNamesReader, namesUsed } from './threads'
import { textsAt } from './texts'
import type { Form } from './definition'
import type { Address, Place } from './walk'

/** Somewhere that uses a question, group or section: the place, and how in a few words. */
export interface Use {
  place: Place
  words: string
}

/** What is looked for: the things at some addresses and all inside them. */
interface Sought {
  places: ReadonlySet<Place>
  /** Their addresses. */
  addresses: ReadonlySet<string>
  /** The codes of questions, groups and notes among them. */
  codes: ReadonlySet<string>
  /** The codes of sections among them. */
  sections: ReadonlySet<string>
  /** Whether a rule's text names one of them. */
  isNamedIn: (text: string) => boolean
}

/** Who uses what stands at an address: rules, quotes, routes, a place under one of its choices. What stands inside it counts as itself. */
export function usesOf(form: Form, places: readonly Place[], addresses: readonly Address[]): Use[] {
  const sought = soughtAt(places, addresses)
  const rules = rulesOf(form, places)
    .filter(rule => !sought.places.has(rule.place) && sought.isNamedIn(rule.text))
    .map((rule): Use => ({ place: rule.place, words: RULE_WORDS[rule.kind].toLowerCase() }))
  const others = places.filter(place => !sought.places.has(place))
  return [...rules, ...others.flatMap(place => usesAt(place, sought)), ...usesByTurns(form, others, sought)]
}

function soughtAt(places: readonly Place[], addresses: readonly Address[]): Sought {
  const wanted = new Set(addresses)
  const whole = new Set(places.filter(p => p.kind === 'section' && wanted.has(p.address)).map(p => p.section))
  const isSought = (p: Place) =>
    wanted.has(p.address) || whole.has(p.section) || p.groups.some(g => wanted.has(g.address))
  const found = places.filter(isSought)
  const codes = new Set(found.filter(p => p.kind !== 'section').map(p => p.code))
  const sections = new Set(found.filter(p => p.kind === 'section').map(p => p.code))
  const membersOf = memberNamesReader(places)
  const isNamedIn = (text: string) => [...namesUsed(text), ...membersOf(text)].some(name => codes.has(name))
  const all = new Set(found.map(p => p.address))
  return { places: new Set(found), addresses: all, codes, sections, isNamedIn }
}

/** How a place uses what is sought, but for its rules. */
function usesAt(place: Place, sought: Sought): Use[] {
  const uses: Use[] = []
  const pieces = textsAt(place).flatMap(t => splitQuotes(t.text))
  if (pieces.some(p => p.kind === 'quote' && sought.isNamedIn(p.source)))
    uses.push({ place, words: 'quotes it' })
  if (place.kind === 'section') {
    if (place.node.routes?.some(r => sought.sections.has(r.to))) uses.push({ place, words: 'leads there' })
    return uses
  }
  if ('skips' in place.node && place.node.skips?.some(s => sought.addresses.has(s.to)))
    uses.push({ place, words: 'goes on there' })
  if ('under' in place.node && place.node.under && sought.codes.has(place.node.under.question))
    uses.push({ place, words: 'stands under one of its choices' })
  return uses
}

/** Turns whose party an answer names; said at the first section that is left. */
function usesByTurns(form: Form, others: readonly Place[], { codes }: Sought): Use[] {
  const first = others.find(p => p.kind === 'section')
  const turns = (form.turns ?? []).filter(
    t => typeof t.by === 'object' && 'answer' in t.by && codes.has(t.by.answer),
  )
  if (!first) return []
  return turns.map(turn => ({
    place: first,
    words: `names who acts in the turn “${turn.title ?? turn.code}”`,
  }))
}

/** What a place depends on by its rules, and what depends on it. */
export function neighboursOf(
  form: Form,
  places: readonly Place[],
  address: Address,
): { needs: Place[]; decides: Use[] } {
  const place = places.find(p => p.address === address)
  if (!place) return { needs: [], decides: [] }
  const membersOf = memberNamesReader(places)
  const names = new Set(
    rulesOf(form, places)
      .filter(r => r.place === place)
      .flatMap(r => [...namesUsed(r.text), ...membersOf(r.text)]),
  )
  return {
    needs: places.filter(p => p !== place && p.kind !== 'section' && names.has(p.code)),
    decides:
      place.kind === 'section'
        ? usesOf(form, places, [address]).filter(
            u => u.words === 'leads there' || u.words === 'goes on there',
          )
        : usesOf(form, places, [address]),
  }
}
