import type { Place } from '../form/walk'
import { isOutOfPlay, NEVER_IN_PLAY } from './checks/neverInPlay'
import type { ConflictPart, Finding } from './finding'
import type { Inquiry } from './goals/inquiry'

/** The findings that others are folded into, since they say why. */
const ROOTS: ReadonlySet<string> = new Set([
  'never-shown',
  'contradicts-outer',
  'unreachable-section',
  'no-answer-fits',
  'unmeetable-valid',
  'dead-end',
])
const STOPPING: ReadonlySet<string> = new Set(['no-answer-fits', 'unmeetable-valid', 'dead-end'])
const STOPS: ReadonlySet<string> = new Set(['required', 'validWhen', 'bound', 'narrowedBy', 'option'])

/**
 * Findings with what is folded into each: what can't come into play for the same reason, or since it stands inside, has no finding of its own.
 * What nothing leads to, since a question before it finds nothing on offer for anybody, is told there.
 */
export function withFolded(inquiry: Inquiry, findings: readonly Finding[]): Finding[] {
  const roots = findings.filter(f => ROOTS.has(f.code))
  if (roots.length === 0) return [...findings]
  const behind = new Map<Finding, Place[]>()
  const ownAt = new Map(roots.filter(f => f.code !== 'dead-end').map(f => [f.address, f] as const))
  const told = (root: Finding, place: Place) => behind.set(root, [...(behind.get(root) ?? []), place])
  for (const place of inquiry.model.plan.places) {
    if (ownAt.has(place.address) || !isOutOfPlay(inquiry, { place })) continue
    const root = rootAround(inquiry, place, ownAt) ?? rootOf(inquiry, place, roots)
    if (root) told(root, place)
  }
  const deadEnds = findings.filter(f => f.code === 'dead-end')
  const foldedAway = new Set<Finding>()
  for (const unreachable of findings.filter(f => f.code === 'unreachable-section')) {
    const end = deadEnds.find(d =>
      unreachable.conflict.some(p => p.address === d.address && STOPS.has(p.kind)),
    )
    const place = inquiry.model.plan.places.find(p => p.address === unreachable.address)
    if (!end || !place) continue
    foldedAway.add(unreachable)
    behind.set(end, [...(behind.get(end) ?? []), place, ...(behind.get(unreachable) ?? [])])
  }
  return findings
    .filter(f => !foldedAway.has(f))
    .map(f => {
      const places = behind.get(f)
      return places ? { ...f, folded: places.map(({ code, address }) => ({ code, address })) } : f
    })
}

/** The finding of the section or the innermost group in which something stands. */
function rootAround(
  inquiry: Inquiry,
  place: Place,
  ownAt: ReadonlyMap<string | null, Finding>,
): Finding | null {
  const section = inquiry.model.plan.sections[place.section]?.place
  const around = [...place.groups.toReversed(), ...(section && section !== place ? [section] : [])]
  for (const outer of around) {
    const found = ownAt.get(outer.address) ?? rootOf(inquiry, outer, [...ownAt.values()])
    if (found) return found
  }
  return null
}

/** The finding for the same reason as something can't come into play, or for a part of it. */
function rootOf({ facts }: Inquiry, { order }: Place, roots: readonly Finding[]): Finding | null {
  const conflict = facts.conflictsAt(NEVER_IN_PLAY, order)
  const reasons = new Set(conflict.map(partKey))
  const isReason = ({ conflict: parts }: Finding) => {
    const rules = parts.filter(p => p.kind !== 'limits')
    return rules.length > 0 && rules.every(p => reasons.has(partKey(p)))
  }
  // A question that nobody gets past is a reason by itself.
  const isPassedByNobody = (root: Finding) =>
    STOPPING.has(root.code) && conflict.some(p => p.address === root.address && STOPS.has(p.kind))
  return roots.find(isReason) ?? roots.find(isPassedByNobody) ?? null
}

const partKey = (part: ConflictPart) => `${part.address}:${part.kind}:${part.index}`
