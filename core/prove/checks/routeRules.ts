import { namesIn } from '../../expressions/tree'
import type { Finding } from '../finding'
import { called, finding, partAt, type Check, type Goal, type Inquiry } from '../goals/inquiry'
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
  about: 'A route can never be taken: its condition is never true when its section is left.',
  raises: routed({ when: 'insured = null', to: 'hire' }),
  spares: routed({ when: 'insured = false', to: 'hire' }),
  run: inquiry => untaken(inquiry).filter(f => f.code === never.code || f.code === 'undecided'),
}

export const shadowedRoute: Check = {
  ...shadowed,
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
  const found = inquiry.model.plan.sections.flatMap(section =>
    section.routes.flatMap((route, at): Finding[] => {
      const { place } = section
      if (inquiry.impossible.has(place.order)) return []
      const goal: Goal = {
        key: `route:${place.address}:${route.index}`,
        at: place,
        section: place.section + 1,
        leaving: true,
        names: [
          ...(section.shown?.expr ? namesIn(section.shown.expr) : []),
          ...section.routes.slice(0, at + 1).flatMap(r => (r.when?.expr ? namesIn(r.when.expr) : [])),
        ],
        literals: space => [space.routesTaken(place.section)[at] ?? space.encoding.yes],
        holds: state =>
          section.routes.findIndex(r => r.when === null || r.when.run(state.values) === true) === at,
      }
      const decision = inquiry.decide(goal)
      const about = { rule: `${place.address}:route:${route.index}` }
      if (decision.is === 'undecided')
        return [
          {
            ...undecidedFinding(
              place,
              `whether route ${route.index + 1} of ${called(place)} is ever taken`,
              decision.why,
            ),
            ...about,
          },
        ]
      if (decision.is !== 'impossible') return []
      const above = decision.conflict.filter(
        c => c.address === place.address && c.kind === 'route' && c.index < route.index,
      )
      const conflict =
        decision.conflict.length > 0 ? decision.conflict : [partAt(place, 'route', route.index)]
      const mend = {
        words: 'Take the route away',
        edits: [
          {
            do: 'change' as const,
            what: place.address,
            set: {
              routes:
                'routes' in place.node ? (place.node.routes ?? []).filter((_, i) => i !== route.index) : [],
            },
          },
        ],
      }
      const more = { ...about, conflict, witness: inquiry.wayTo(place.section), mend }
      return [
        above.length > 0
          ? finding(
              shadowed,
              place,
              `Route ${route.index + 1} of ${called(place)} is never taken: ${above.length === 1 ? `route ${(above[0]?.index ?? 0) + 1} above it` : 'the routes above it'} always ${above.length === 1 ? 'comes' : 'come'} first.`,
              more,
            )
          : finding(
              never,
              place,
              `Route ${route.index + 1} of ${called(place)} is never taken: its condition is not true in any case in which the section is left.`,
              more,
            ),
      ]
    }),
  )
  FOUND.set(inquiry, found)
  return found
}
