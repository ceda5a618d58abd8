import type { Finding } from '../finding'
import { type Check, finding } from './check'
import type { Goal } from '../goals/goal'
import { example, section, text, yesNo } from './exampleForms'
import { isRepeated } from './neverInPlay'
import { undecidedFinding } from './undecided'

const kind = { code: 'unreachable-finish', severity: 'fault' } as const

/** What keeps everybody up before the finish. */
const BEFORE = ['unreachable-section', 'no-answer-fits'] as const

const checked = (second: string) =>
  example(
    section('boat', [yesNo('insured'), yesNo('known'), text('remarks')], {
      validWhen: [
        { rule: 'insured = true', message: 'Insure it.' },
        { rule: second, message: 'Don’t.' },
      ],
    }),
  )

export const unreachableFinish: Check = {
  ...kind,
  needs: ['unmeetable-valid', ...BEFORE],
  about: 'Nobody can ever send the form: no answers get through all that has to be met on the way.',
  raises: checked('insured = false'),
  spares: checked('known = false'),
  run: (inquiry): Finding[] => {
    const { sections } = inquiry.model.plan
    const last = sections.at(-1)
    if (!last) return []
    const goal: Goal = {
      key: 'finish',
      at: null,
      section: sections.length,
      names: [],
      literals: space => [space.reached(sections.length)],
      isExact: true,
      holds: () => true,
    }
    const decision = inquiry.decide(goal)
    if (decision.is === 'undecided')
      return [undecidedFinding(last.place, 'whether anybody can finish the form', decision.why)]
    // A check that nothing meets, or a question that nothing answers, says it by itself.
    if (
      decision.is !== 'impossible' ||
      isRepeated(inquiry, BEFORE, decision.conflict) ||
      decision.conflict.some(c =>
        inquiry.facts.has(['unmeetable-valid'], `${c.address}:${c.kind}:${c.index}`),
      )
    )
      return []
    return [
      finding(kind, null, 'Nobody can finish this form: no answers get through all of it.', {
        conflict: decision.conflict,
        witness: inquiry.wayTo(last.place.section),
      }),
    ]
  },
}
