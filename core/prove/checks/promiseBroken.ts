import { namesIn } from '../../expressions/tree'
import { type Check, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { example, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'promise-broken', severity: 'fault' } as const
const promising = (holds: string) => ({
  ...example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18', required: true })])),
  promises: [{ code: 'minors', text: 'Nobody under 18 signs alone', holds }],
})

export const promiseBroken: Check = {
  ...kind,
  about:
    'Some complete response breaks a promise: its condition is false there, or unknown because something is blank.',
  raises: promising('if age < 21 then guardian != null else true'),
  spares: promising('if age < 18 then guardian != null else true'),
  run: inquiry =>
    lookAtEach(
      inquiry.model.rules.filter(r => r.kind === 'promise'),
      (rule): Finding[] => {
        const promise = rule.kind === 'promise' ? inquiry.form.promises?.[rule.index] : undefined
        if (!promise) return []
        const goal = promiseGoal(inquiry, rule.index)
        if (!goal) return []
        const decision = inquiry.decide(goal)
        const about = { rule: rule.id, conflict: [partAt(rule.place, 'promise', rule.index)] }
        if (decision.is === 'undecided')
          return [
            {
              ...undecidedFinding(
                rule.place,
                `whether the promise “${promise.text}” always holds`,
                decision.why,
              ),
              ...about,
            },
          ]
        return decision.is === 'possible'
          ? [
              finding(kind, null, `The promise “${promise.text}” is not kept: these answers break it.`, {
                ...about,
                witness: inquiry.witness(goal),
              }),
            ]
          : []
      },
    ),
}

/** The goal “a complete response breaks this promise”; null for one that can’t be read. */
export function promiseGoal({ model: { plan, rules } }: Inquiry, index: number): Goal | null {
  const rule = rules.find(r => r.kind === 'promise' && r.index === index)
  const { expr } = rule ?? {}
  if (!rule || !expr) return null
  const end = plan.sections.length
  return {
    key: `promise:${rule.text}`,
    at: null,
    section: end,
    names: namesIn(expr),
    literals: space => [space.reached(end), -space.encoding.truth(expr).t],
    isExact: true,
    holds: state => plan.promises[index]?.run(state.values) !== true,
  }
}
