import type { Plan } from '../../fill/planned'
import type { Section } from '../../form/definition'
import { rulesAt } from '../../form/rules'
import { isSameJson } from '../../form/sameJson'
import { decidingCodes } from '../../parties/decidingCodes'
import type { Aspect } from './aspects'

/** What decides something in one version: the questions and groups in their order, the sections up to it with their ways, and the lists. */
function coneOf(plan: Plan, { code, address }: Aspect): unknown[] | null {
  const places = plan.places.filter(p => p.address === address)
  const [place] = places
  if (!place || places.length > 1) return null
  const ways = plan.form.sections.slice(0, place.section + 1).flatMap(textsOfWays)
  // Groups that don't repeat are named by nobody: what decides them is what their rules ask for.
  const own = [place, ...place.groups].flatMap(p => rulesAt(p).map(rule => rule.text))
  const codes = new Set([code, ...decidingCodes(plan, [code, ...own, ...ways])])
  const sections = plan.form.sections
    .slice(0, place.section + 1)
    .map(({ items: _, title: _t, ...rest }) => rest)
  const deciding = plan.places.filter(p => p.order === place.order || codes.has(p.code))
  const around = new Set(deciding.flatMap(p => [p.order, ...p.groups.map(g => g.order)]))
  const nodes = plan.places.flatMap((p): unknown[] => {
    if (p.kind === 'section' || !around.has(p.order)) return []
    const inside = 'items' in p.node ? { ...p.node, items: null } : p.node
    return [[p.section, p.groups.map(g => g.code), inside]]
  })
  // A route to what is not there any more leads nowhere, though it reads the same; all that leads past the place is alike.
  const past = place.section + 1
  const targets = plan.sections
    .slice(0, past)
    .map(s => s.routes.map(r => [r.index, Math.min(r.target, past)]))
  return [sections, targets, nodes, plan.form.lists ?? []]
}

/** Whether everything that decides an aspect is the same in two versions. */
export function hasSameCone(aspect: Aspect, before: Plan, after: Plan): boolean {
  // What skips pass over rests on where things stand.
  if (before.skips.length > 0 || after.skips.length > 0)
    return (
      isSameJson(before.form.sections, after.form.sections) && isSameJson(before.form.lists, after.form.lists)
    )
  const [was, is] = [coneOf(before, aspect), coneOf(after, aspect)]
  return was !== null && is !== null && isSameJson(was, is)
}

/** The conditions by which a section is shown and left. */
const textsOfWays = ({ shownWhen, routes = [] }: Section): string[] =>
  [shownWhen, ...routes.map(r => r.when)].filter(text => text !== undefined)
