import { namesIn } from '../../expressions/tree'
import { holds } from '../../parties/deliveries'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import type { ReadRule } from '../model/readRule'

/** A condition that is asked when a turn ends (by its index), or when the response is complete: −1. `key` tells it from all others. */
export interface AskedAtEnd {
  key: string
  when: string | undefined
  rule: ReadRule | null
  turn: number
}

/** The goal “when it is asked, its condition is true”, or is not; without a condition it always is. */
export function askedGoal({ model }: Inquiry, { key, when, rule, turn }: AskedAtEnd, isTrue: boolean): Goal {
  const expr = rule?.expr ?? null
  const condition = when === undefined ? {} : { when }
  return {
    key: `${key}:${isTrue}:${when ?? ''}`,
    at: null,
    section: model.plan.sections.length,
    ...(turn < 0 ? {} : { turn }),
    names: expr ? namesIn(expr) : [],
    literals: space => {
      const truth = expr ? space.encoding.truth(expr).t : space.encoding.yes
      const end = turn < 0 ? [space.reached(model.plan.sections.length)] : []
      return [...end, isTrue ? truth : -truth]
    },
    holds: state => holds(state, condition) === isTrue,
  }
}
