import type { ConflictPart, Finding } from '../finding'
import type { PlannedSection } from '../../fill/planned'
import { NEVER_IN_PLAY, isNeverInPlay } from './neverInPlay'
import { namesOfSkips } from '../../fill/steps'
import { wayOut } from '../../fill/wayOut'
import { namesIn } from '../../expressions/tree'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, section, text, yesNo } from './exampleForms'
import { undecidedFinding } from './undecided'

const never = { code: 'never-taken', severity: 'risk' } as const
const shadowed = { code: 'shadowed-route', severity: 'risk' } as const
const routed = (...routes: { when?: string; to: string }[]) =>
  example(
    section('boat', [yesNo('insured')], { routes }),
    section('cover', [text('insurer')], { routes: [{ to: 'end' }] }),
    section('hire', [text('days')]),
    section('end', [text('remarks')]),
  )

export const neverTaken: Check = {
  ...never,
  needs: NEVER_IN_PLAY,
  about: 'A route can never be taken: its condition is never true when its section is left.',
  raises: routed({ when: 'insured = null', to: 'hire' }),
  spares: routed({ when: 'insured = false', to: 'hire' }),
  run: inquiry => untaken(inquiry).filter(f => f.code === never.code || f.code === 'undecided'),
}

export const shadowedRoute: Check = {
  ...shadowed,
  needs: NEVER_IN_PLAY,
  about: 'A route can never be taken because those above it always come first.',
  raises: routed({ when: 'insured in [true, false]', to: 'cover' }, { when: 'insured = false', to: 'hire' }),
  spares: routed({ when: 'insured = true', to: 'cover' }, { when: 'insured = false', to: 'hire' }),
  run: inquiry => untaken(inquiry).filter(f => f.code === shadowed.code),
}

const FOUND = new WeakMap<Inquiry, Finding[]>()

/** Every route that can’t be taken, and whether those above it are the reason. */
function untaken(inquiry: Inquiry): Finding[] {
  const known = FOUND.get(inquiry)
  if (known) return known
  const found = inquiry.model.plan.sections
    .filter(section => !isNeverInPlay(inquiry, section.place.order))
    .flatMap(section => section.routes.flatMap((_, at) => untakenRoute(inquiry, section, at)))
  FOUND.set(inquiry, found)
  return found
}

function untakenRoute(inquiry: Inquiry, section: PlannedSection, at: number): Finding[] {
  const { place } = section
  const route = section.routes[at]
  if (!route) return []
  const about = { rule: `${place.address}:route:${route.index}` }
  const name = `Route ${route.index + 1} of ${quotedName(place)}`
  const decision = inquiry.decide(takenGoal(section, at))
  if (decision.is === 'undecided') {
    const question = `whether route ${route.index + 1} of ${quotedName(place)} is ever taken`
    return [{ ...undecidedFinding(place, question, decision.why), ...about }]
  }
  if (decision.is !== 'impossible') return []
  const reasons = conflictOf(inquiry, section, at) ?? decision.conflict
  const above = reasons.filter(
    c => c.address === place.address && c.kind === 'route' && c.index < route.index,
  )
  const [check, reason] = above.length > 0 ? [shadowed, shadowedBy(above)] : [never, NEVER_TRUE]
  return [
    finding(check, place, `${name} is never taken: ${reason}.`, {
      ...about,
      conflict: reasons.length > 0 ? reasons : [partAt(place, 'route', route.index)],
      witness: inquiry.wayTo(place.section),
      mend: withoutRoute(section, route.index),
    }),
  ]
}

/** Why the condition of a route is not even true by itself when its section is left; null where only those above it are the reason. */
function conflictOf(inquiry: Inquiry, section: PlannedSection, at: number): ConflictPart[] | null {
  const { place, routes } = section
  const route = routes[at]
  if (at === 0 || !route?.when) return null
  const { when, index } = route
  const goal: Goal = {
    ...takenGoal({ ...section, routes: [route] }, 0),
    key: `route alone:${place.address}:${index}`,
    literals: space => [
      space.reached(place.section),
      space.sectionShown(place.section),
      space.rule(when, place, 'route', index),
      ...section.exits.map(exit => -space.skipTaken(exit)),
    ],
  }
  const alone = inquiry.decide(goal, { aside: true, onlyProof: true })
  return alone.is === 'impossible' ? alone.conflict : null
}

const NEVER_TRUE = 'its condition is not true in any case in which the section is left'
function shadowedBy([first, ...more]: readonly ConflictPart[]): string {
  if (more.length > 0) return 'the routes above it always come first'
  return `route ${(first?.index ?? 0) + 1} above it always comes first`
}

/** The goal “leaving the section takes this route”. */
function takenGoal(section: PlannedSection, at: number): Goal {
  const { place, shown, routes, exits } = section
  const rules = [shown, ...routes.slice(0, at + 1).map(r => r.when)]
  return {
    key: `route:${place.address}:${routes[at]?.index}`,
    at: place,
    section: place.section + 1,
    leaving: true,
    names: [...rules.flatMap(rule => (rule?.expr ? namesIn(rule.expr) : [])), ...namesOfSkips(exits)],
    literals: space => [space.routesTaken(place.section)[at] ?? space.encoding.yes],
    isExact: true,
    holds: state => wayOut(section, state) === routes[at],
  }
}

const withoutRoute = ({ place }: PlannedSection, index: number): Finding['mend'] => ({
  words: 'Take the route away',
  edits: [
    {
      do: 'change',
      what: place.address,
      set: { routes: (place.node.routes ?? []).filter((_, i) => i !== index) },
    },
  ],
})
