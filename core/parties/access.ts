import type { Access, Form, Turn } from '../form/definition'
import type { Place } from '../form/walk'

/** How much a party may do with a thing, from nothing on. */
const RANK: Record<Access, number> = { never: 0, reads: 1, fills: 2 }
const least = (a: Access, b: Access): Access => (RANK[a] < RANK[b] ? a : b)
const most = (a: Access, b: Access): Access => (RANK[a] < RANK[b] ? b : a)

/** What a turn may do with every place of a form. `turn` null: the one respondent of a form without turns. */
export interface View {
  turn: Turn | null
  at: readonly Access[]
}

/**
 * What a turn may do, by place order. A group or question follows what stands around it unless the turn names it. Office-only and private
 * questions are `never` to the others. A section or group is as open as the most open thing in it; a repeating group as closed as
 * the most closed: an entry is seen whole or not at all.
 */
export function viewOf(form: Form, places: readonly Place[], turn: Turn | null): View {
  const party = turn ? form.parties?.find(p => p.code === turn.party) : undefined
  const sections = new Set(form.sections.map(s => s.code))
  const named = (place: Place): Access | undefined =>
    turn === null ||
    (place.kind !== 'section' && sections.has(place.code)) ||
    !Object.hasOwn(turn.access, place.code)
      ? undefined
      : turn.access[place.code]
  const at: Access[] = []
  for (const place of places) {
    const around =
      place.kind === 'section'
        ? turn
          ? 'never'
          : 'fills'
        : (at[place.groups.at(-1)?.order ?? sectionOrder(places, place)] ?? 'never')
    at[place.order] = isKeptFrom(place, turn, party?.office === true) ? 'never' : (named(place) ?? around)
  }
  for (const place of places.toReversed()) {
    if (place.kind !== 'section' && !(place.kind === 'group')) continue
    const inside = places.filter(
      p =>
        p !== place &&
        p.kind !== 'note' &&
        (place.kind === 'section'
          ? p.section === place.section && p.kind !== 'section'
          : p.groups.some(g => g.order === place.order)),
    )
    const own = at[place.order] ?? 'never'
    if (place.kind === 'group' && place.node.repeat) {
      const closed = inside.reduce((done, p) => least(done, at[p.order] ?? 'never'), own)
      for (const p of places)
        if (p === place || p.groups.some(g => g.order === place.order)) at[p.order] = closed
    } else
      at[place.order] = inside.reduce(
        (done, p) => most(done, at[p.order] ?? 'never'),
        inside.length === 0 ? own : ('never' as Access),
      )
  }
  return { turn, at }
}

function isKeptFrom(place: Place, turn: Turn | null, office: boolean): boolean {
  if (place.kind !== 'question') return false
  if (place.node.officeOnly && !office) return true
  return place.node.privateTo !== undefined && place.node.privateTo !== turn?.party
}

const STARTS = new WeakMap<readonly Place[], number[]>()
function sectionOrder(places: readonly Place[], place: Place): number {
  const known = STARTS.get(places) ?? places.filter(p => p.kind === 'section').map(p => p.order)
  STARTS.set(places, known)
  return known[place.section] ?? 0
}

export const fills = (view: View, place: Place): boolean => view.at[place.order] === 'fills'
export const sees = (view: View, place: Place): boolean => view.at[place.order] !== 'never'
