import { namesIn } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { isQuestion } from '../../fill/steps'
import type { PlannedRule, PlannedSection, Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'default-triggers', severity: 'advice' } as const

export const defaultTriggers: Check = {
  ...kind,
  about: 'A default answer makes a rule true before anyone has answered.',
  raises: example(
    section('cover', [
      yesNo('insured', { default: 'true' }),
      text('insurer', { shownWhen: 'insured = true' }),
    ]),
  ),
  spares: example(
    section('cover', [
      yesNo('insured', { default: 'false' }),
      text('insurer', { shownWhen: 'insured = true' }),
    ]),
  ),
  run: ({ model: { plan, circular } }) => {
    const givers = plan.questions.filter(
      q => q.default?.expr && namesIn(q.default.expr).length === 0 && q.readOnly === null,
    )
    if (givers.length === 0) return []
    const before = new Array<Value>(plan.size).fill(null)
    for (const q of givers) before[q.slot] = q.default?.run(before) ?? null
    const ruled = plan.sections
      .flatMap(s => [s, ...s.all])
      .flatMap((step): { place: Place; rule: PlannedRule; kind: 'shownWhen' | 'required' }[] => [
        ...(step.shown ? [{ place: step.place, rule: step.shown, kind: 'shownWhen' as const }] : []),
        ...requiredRule(step).map(rule => ({ place: step.place, rule, kind: 'required' as const })),
      ])
    return ruled.flatMap(({ place, rule, kind: of }): Finding[] => {
      if (!rule.expr || circular.has(place.code) || rule.run(before) !== true) return []
      const named = namesIn(rule.expr)
      const [giver] = givers.filter(q => {
        if (!named.includes(q.place.code)) return false
        const without = before.with(q.slot, null)
        return rule.run(without) !== true
      })
      if (!giver) return []
      return [
        finding(
          kind,
          place,
          `${quotedName(place)} is ${of === 'required' ? 'required' : 'shown'} before anyone has answered: ${quotedName(giver.place)} begins with an answer that makes its rule true.`,
          {
            rule: `${place.address}:${of}`,
            conflict: [partAt(place, of), partAt(giver.place, 'default')],
            witness: {},
          },
        ),
      ]
    })
  },
}

const requiredRule = (step: PlannedSection | Step): PlannedRule[] =>
  'parent' in step && isQuestion(step) && step.required !== null && step.required !== true
    ? [step.required]
    : []
