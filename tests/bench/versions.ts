import { applyEdits } from '../../core/form/edits'
import { describeEdits } from '../../core/form/describeEdits'
import { editsBetween } from '../../core/form/editsBetween'
import { decideEffects, type Effect } from '../../core/prove/effects/effects'
import { largeForm } from './forms'
import { realForm } from './real/realForm'
import { editRules } from './ruleEdits'

type Say = (what: string, value: string, goal: string) => void

/** What changes from one version to the next, in words and for whom, after edits of one rule each. */
export function versions(say: Say) {
  for (const [name, before] of [
    ['500 questions', largeForm(500)],
    ['500 questions as people write them', realForm(500)],
  ] as const)
    for (const count of [1, 20]) {
      const after = applyEdits(before, editRules(before, count, false)).form
      const begun = performance.now()
      const lines = describeEdits(before, editsBetween(before, after)).length
      const told = performance.now()
      const effects = decideEffects(before, after, '2026-11-24')
      const decided = performance.now()
      const number = (outcome: Effect['outcome']) => effects.filter(e => e.outcome === outcome).length
      say(`${name}: ${lines} changes in words`, `${(told - begun).toFixed(0)} ms`, 'under 500 ms')
      say(
        `  for whom: ${number('same')} same, ${number('differs')} other, ${number('undecided')} undecided`,
        `${((decided - told) / 1000).toFixed(2)} s`,
        'under 5 s',
      )
    }
}
