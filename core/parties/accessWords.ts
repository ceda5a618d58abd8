import type { Access, Turn } from '../form/turns'
import { placeName, type Place } from '../form/walk'

const VERBS: Record<Access, string> = { fills: 'fills', reads: 'reads', never: 'never sees' }
const ORDER: readonly Access[] = ['fills', 'reads', 'never']

/** What a turn may do, in a sentence: its sections by what it does with them, with the questions and groups that are excepted. */
export function tellAccess(places: readonly Place[], turn: Turn): string {
  const sections = places.filter(p => p.kind === 'section')
  const parts = ORDER.flatMap(access => {
    const own = sections.filter(s => (turn.access[s.code] ?? 'never') === access)
    if (own.length === 0) return []
    return [`${VERBS[access]} ${inWords(own.map(s => placeName(s) + exceptions(places, turn, s, access)))}`]
  })
  const [first = '', ...rest] = parts
  return `${[first.charAt(0).toUpperCase() + first.slice(1), ...rest].join('; ')}.`
}

/** “ (but reads Fee)”: what is said of questions and groups in a section, where it differs from that. */
function exceptions(places: readonly Place[], turn: Turn, section: Place, access: Access): string {
  const named = places.filter(
    p =>
      p.kind !== 'section' &&
      p.section === section.section &&
      Object.hasOwn(turn.access, p.code) &&
      turn.access[p.code] !== access,
  )
  const told = ORDER.flatMap(other => {
    const excepted = named.filter(p => turn.access[p.code] === other)
    return excepted.length === 0 ? [] : [`${VERBS[other]} ${inWords(excepted.map(placeName))}`]
  })
  return told.length === 0 ? '' : ` (but ${told.join(', ')})`
}

const inWords = (names: readonly string[]): string =>
  new Intl.ListFormat('en-GB', { type: 'conjunction' }).format(names)
