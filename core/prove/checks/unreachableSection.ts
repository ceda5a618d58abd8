import { isRepeated } from './neverInPlay'
import { type Check, quotedName, lookAtEach, finding } from './check'
import type { Goal } from '../goals/goal'
import type { Finding } from '../finding'
import { example, section, text, yesNo } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'unreachable-section', severity: 'fault' } as const

export const unreachableSection: Check = {
  ...kind,
  needs: ['no-answer-fits'],
  about:
    'No answers lead to this section: the routes always go past it, or nobody gets through what stands before it.',
  raises: example(
    section('boat', [yesNo('insured')], { routes: [{ when: 'insured = true', to: 'end' }, { to: 'end' }] }),
    section('cover', [text('insurer')]),
    section('end', [text('remarks')]),
  ),
  spares: example(
    section('boat', [yesNo('insured')], { routes: [{ when: 'insured = false', to: 'end' }] }),
    section('cover', [text('insurer')]),
    section('end', [text('remarks')]),
  ),
  run: inquiry =>
    lookAtEach(inquiry.model.plan.sections, ({ place }): Finding[] => {
      const index = place.section
      if (index === 0) return []
      const goal: Goal = {
        key: `reached:${place.address}`,
        at: place,
        section: index,
        reaching: true,
        names: [],
        literals: space => [space.reached(index)],
        isExact: true,
        holds: () => true,
      }
      const decision = inquiry.decide(goal, { seen: e => e.reached.has(index) })
      if (decision.is === 'undecided')
        return [undecidedFinding(place, `whether the form ever leads to ${quotedName(place)}`, decision.why)]
      if (decision.is !== 'impossible') return []
      const repeated = isRepeated(inquiry, ['unreachable-section', 'no-answer-fits'], decision.conflict)
      inquiry.facts.establish(place.order, decision.conflict)
      return repeated
        ? []
        : [
            finding(kind, place, `Nothing leads to ${quotedName(place)}: no answers get there.`, {
              conflict: decision.conflict,
              witness: inquiry.wayTo(index - 1),
            }),
          ]
    }),
}
