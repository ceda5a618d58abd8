import { ExpressionError, parseCached } from '../expressions/parse'
import { membersIn, namesIn, type Expr } from '../expressions/tree'
import { rulesAt } from './rules'
import type { Address, Place } from './walk'

/** A question that rules depend on, with what depends on it and where it leads on, as a line in the margin of the script. */
export interface Thread {
  from: Address
  to: readonly Address[]
  lane: number
}

/**
 * The threads of a form: one for every question that a rule elsewhere names. Lanes are given so that two threads that
 * overlap never share one.
 * @param lanes how many lanes there are; threads beyond them are left out
 */
export function threadsOf(places: readonly Place[], lanes: number): Thread[] {
  const byAddress = new Map<string, Place>(places.map(p => [p.address, p] as const))
  const namedIn = placeReader(places)
  const dependants = new Map<Place, Set<Address>>()
  for (const place of places) {
    const led = skipsOf(place).flatMap(s => byAddress.get(s.to)?.address ?? [])
    if (led.length > 0) dependants.set(place, new Set([...(dependants.get(place) ?? []), ...led]))
    for (const gate of rulesOn(place).flatMap(namedIn)) {
      if (gate.address === place.address || place.groups.some(g => g.address === gate.address)) continue
      dependants.set(gate, (dependants.get(gate) ?? new Set()).add(place.address))
    }
  }
  const ends: number[] = []
  return [...dependants]
    .sort(([a], [b]) => a.order - b.order)
    .flatMap(([gate, to]): Thread[] => {
      const orders = [gate.order, ...[...to].map(a => byAddress.get(a)?.order ?? 0)]
      const [first, last] = [Math.min(...orders), Math.max(...orders)]
      const lane = Array.from({ length: lanes }, (_, i) => i).find(i => (ends[i] ?? -1) < first)
      if (lane === undefined) return []
      ends[lane] = last
      return [{ from: gate.address, to: [...to], lane }]
    })
}

/** Whether two states of a place are the same as far as threads go: it stands where it stood, and its rules say what they said. */
export function isThreadedAlike(a: Place, b: Place): boolean {
  if (a === b) return true
  const isAtSamePlace =
    a.address === b.address &&
    a.order === b.order &&
    (a.entryOf === null) === (b.entryOf === null) &&
    isSameList(
      a.groups.map(g => g.address),
      b.groups.map(g => g.address),
    )
  const targetsOf = (place: Place) => skipsOf(place).map(s => s.to)
  return isAtSamePlace && isSameList(rulesOn(a), rulesOn(b)) && isSameList(targetsOf(a), targetsOf(b))
}
const skipsOf = ({ node }: Place) => ('skips' in node ? (node.skips ?? []) : [])
const isSameList = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((item, i) => item === b[i])

const RULES = new WeakMap<Place['node'], readonly string[]>()
/** The rules at a place; kept by its node, since most rows stay as they are from one edit to the next. */
function rulesOn(place: Place): readonly string[] {
  const known = RULES.get(place.node)
  if (known) return known
  const rules = rulesAt(place).map(rule => rule.text)
  RULES.set(place.node, rules)
  return rules
}

/** The codes a rule uses; none when it can't be read. Of answers inside entries (`crew.age`) it is the group's. */
export const namesUsed = (text: string): readonly string[] => readSafely(text)?.names ?? []

/** Reads from rules the codes of questions inside entries that they ask for through their group: `age` of `crew.age` or `some p in crew satisfies p.age > 5`. */
export function memberNamesReader(places: readonly Place[]): (text: string) => string[] {
  const groupsOf = new Map(
    places.flatMap(p => (p.entryOf ? [[p.code, p.groups.map(g => g.code)] as const] : [])),
  )
  return text => {
    const read = groupsOf.size > 0 ? readSafely(text) : null
    return read?.members.filter(m => groupsOf.get(m)?.some(g => read.names.includes(g))) ?? []
  }
}

/** Reads from rules the questions and groups that they name; a group of which single answers are named stands for those. */
export function placeReader(places: readonly Place[]): (text: string) => Place[] {
  const byCode = new Map<string, Place>()
  for (const p of places)
    if ((p.kind === 'question' || p.kind === 'group') && !byCode.has(p.code)) byCode.set(p.code, p)
  const membersOf = memberNamesReader(places)
  return text => {
    const members = membersOf(text).flatMap(m => byCode.get(m) ?? [])
    const groups = new Set(members.flatMap(m => m.groups.map(g => g.code)))
    return [
      ...namesUsed(text)
        .filter(name => !groups.has(name))
        .flatMap(name => byCode.get(name) ?? []),
      ...members,
    ]
  }
}

interface Read {
  names: readonly string[]
  members: readonly string[]
}
const KNOWN = new WeakMap<Expr, Read>()
function readSafely(text: string): Read | null {
  try {
    const expr = parseCached(text)
    const known = KNOWN.get(expr)
    if (known) return known
    const read = {
      names: namesIn(expr),
      members: membersIn(expr),
    }
    KNOWN.set(expr, read)
    return read
  } catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
}
