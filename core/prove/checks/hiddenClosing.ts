import { print } from '../../expressions/print'
import { namesIn } from '../../expressions/tree'
import type { PlannedClosing } from '../../fill/planned'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, lookAtEach } from './check'
import { example, section, whole } from './exampleForms'

const kind = { code: 'hidden-closing', severity: 'risk' } as const
const closed = (second: string) => ({
  ...example(section('boat', [whole('tons')])),
  closings: [
    { code: 'heavy', when: 'tons > 10', text: 'We ring you about the crane.' },
    { code: 'very_heavy', when: second, text: 'We can’t lift her.' },
    { code: 'thanks', text: 'Thank you.' },
  ],
})

export const hiddenClosing: Check = {
  ...kind,
  about:
    'A closing is never said: one before it always comes first, or its condition is never true at the end.',
  raises: closed('tons > 20'),
  spares: closed('tons < 2'),
  run: inquiry =>
    lookAtEach(inquiry.model.plan.closings.keys(), index =>
      isNamed(inquiry, index) ? [] : unsaid(inquiry, index),
    ),
}

/** A closing that a route names is said whatever stands before it. */
const isNamed = ({ model: { plan } }: Inquiry, index: number): boolean =>
  plan.sections.some(s => s.routes.some(r => r.closing === plan.closings[index]?.closing.code))

function unsaid(inquiry: Inquiry, index: number): Finding[] {
  const { plan, rules } = inquiry.model
  const [own, place] = [plan.closings[index], plan.sections.at(-1)?.place]
  if (!own || !place) return []
  const before = plan.closings.slice(0, index)
  const name = `The closing “${own.closing.title ?? own.closing.code}”`
  const first = before.find(c => c.when === null)
  const rule = rules.find(r => r.kind === 'closing' && r.index === index)
  const about = { rule: rule?.id ?? null, conflict: [partAt(place, 'closing', index)] }
  if (first)
    return [
      finding(
        kind,
        place,
        `${name} is never said: “${first.closing.title ?? first.closing.code}” above it has no condition and always comes first.`,
        about,
      ),
    ]
  if (!own.when?.expr || before.some(c => !c.when?.expr)) return []
  if (inquiry.decide(saidGoal(inquiry, plan.closings, index)).is !== 'impossible') return []
  const reason =
    before.length > 0
      ? 'whenever it could be, one above it comes first'
      : 'its condition is never true at the end'
  return [finding(kind, place, `${name} is never said: ${reason}.`, about)]
}

/** The goal “at the end this closing is the first whose condition is true”. */
function saidGoal({ model: { plan } }: Inquiry, closings: readonly PlannedClosing[], index: number): Goal {
  const upTo = closings.slice(0, index + 1).map(c => c.when)
  return {
    // What the conditions say is in no place of the form: it is part of the goal.
    key: `closing:${upTo.map(when => (when?.expr ? print(when.expr) : '')).join(' | ')}`,
    at: null,
    section: plan.sections.length,
    names: upTo.flatMap(when => (when?.expr ? namesIn(when.expr) : [])),
    literals: space => [
      space.reached(plan.sections.length),
      ...upTo.map((when, i) => {
        const truth = when?.expr ? space.encoding.truth(when.expr).t : space.encoding.yes
        return i < index ? -truth : truth
      }),
    ],
    isExact: true,
    holds: state => upTo.findIndex(when => when === null || when.run(state.values) === true) === index,
  }
}
