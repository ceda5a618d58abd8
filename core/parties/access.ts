import type { Form } from '../form/definition'
import type { Access, Turn } from '../form/turns'
import type { Place } from '../form/walk'

/** How much a party may do with a thing, from nothing on. */
const RANK: Record<Access, number> = { never: 0, reads: 1, fills: 2 }
const least = (a: Access, b: Access): Access => (RANK[a] < RANK[b] ? a : b)
const most = (a: Access, b: Access): Access => (RANK[a] < RANK[b] ? b : a)

/** What a turn may do with every place of a form. `turn` null: the one respondent of a form without turns. */
export interface AccessView {
  turn: Turn | null
  at: readonly Access[]
}

/**
 * What a turn may do, by place order. A group or question follows what stands around it unless the turn names it. Office-only and private
 * questions are `never` to the others. A section or group is as open as the most open thing in it. Entries of a repeating group are filled
 * whole or not at all, since they are added and taken out as such; where they are read, what the turn never sees is left out of each.
 */
export function accessViewOf(form: Form, places: readonly Place[], turn: Turn | null): AccessView {
  const views = VIEWS.get(places) ?? new Map<Turn | null, AccessView>()
  VIEWS.set(places, views)
  const known = views.get(turn)
  if (known) return known
  const view = makeView(form, places, turn)
  views.set(turn, view)
  return view
}

/** By the places of a form: they are made anew with each state of it. */
const VIEWS = new WeakMap<readonly Place[], Map<Turn | null, AccessView>>()

function makeView(form: Form, places: readonly Place[], turn: Turn | null): AccessView {
  const at = ownAccess(form, places, turn)
  for (const place of places.toReversed()) {
    if (place.kind === 'group' && place.node.repeat) closeEntries(place, places, at)
    else if (place.kind === 'section' || place.kind === 'group')
      at[place.order] = mostInside(place, places, at)
  }
  return { turn, at }
}

/** The repeating groups that a turn was to fill, but reads, since there is something inside that it does not fill. */
export function groupsLeftToRead(form: Form, places: readonly Place[], turn: Turn): [Place, Place][] {
  const own = ownAccess(form, places, turn)
  const { at } = accessViewOf(form, places, turn)
  return places.flatMap((group): [Place, Place][] => {
    if (group.kind !== 'group' || !group.node.repeat || own[group.order] !== 'fills') return []
    const kept = insideOf(group, places).find(p => own[p.order] !== 'fills')
    return kept && at[group.order] !== 'fills' ? [[group, kept]] : []
  })
}

/** What a turn may do, by place order, from what it names and from what stands around. */
function ownAccess(form: Form, places: readonly Place[], turn: Turn | null): Access[] {
  const party = turn ? form.parties?.find(p => p.code === turn.party) : undefined
  const sections = new Set(form.sections.map(s => s.code))
  const outermost: Access = turn ? 'never' : 'fills'
  const at: Access[] = []
  for (const place of places) {
    const outer = place.groups.at(-1)?.order ?? sectionOrder(places, place)
    const around = place.kind === 'section' ? outermost : (at[outer] ?? 'never')
    const own = isKeptFrom(place, turn, party?.office === true) ? 'never' : namedAccess(place, turn, sections)
    at[place.order] = own ?? around
  }
  return at
}

/** What a turn says of a place by its code; a section's code means the section. */
function namedAccess(place: Place, turn: Turn | null, sections: ReadonlySet<string>): Access | undefined {
  if (turn === null || (place.kind !== 'section' && sections.has(place.code))) return undefined
  return Object.hasOwn(turn.access, place.code) ? turn.access[place.code] : undefined
}

/** What stands in a section or group and can be answered: it comes right after it. */
function insideOf(place: Place, places: readonly Place[]): Place[] {
  const isInside = (p: Place) =>
    place.kind === 'section' ? p.section === place.section : p.groups.some(g => g.order === place.order)
  const inside: Place[] = []
  for (let at = place.order + 1; at < places.length; at++) {
    const p = places[at]
    if (!p || !isInside(p)) break
    if (p.kind !== 'note') inside.push(p)
  }
  return inside
}

/** Entries in which something is not filled are read, without what is never seen. */
function closeEntries(group: Place, places: readonly Place[], at: Access[]) {
  const inside = insideOf(group, places)
  const isFilled = [group, ...inside].every(p => at[p.order] === 'fills')
  if (isFilled) return
  for (const p of inside) at[p.order] = least(at[p.order] ?? 'never', 'reads')
  const seen = least(mostInside(group, places, at), 'reads')
  at[group.order] = seen
  for (const p of places)
    if (p.kind === 'note' && p.groups.some(g => g.order === group.order))
      at[p.order] = least(at[p.order] ?? 'never', seen)
}

/** The most that may be done with something inside; with nothing inside, what may be done with the thing itself. */
function mostInside(place: Place, places: readonly Place[], at: readonly Access[]): Access {
  const inside = insideOf(place, places)
  if (inside.length === 0) return at[place.order] ?? 'never'
  return inside.reduce<Access>((done, p) => most(done, at[p.order] ?? 'never'), 'never')
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

export const mayFill = (view: AccessView, place: Place): boolean => view.at[place.order] === 'fills'
export const maySee = (view: AccessView, place: Place): boolean => view.at[place.order] !== 'never'
