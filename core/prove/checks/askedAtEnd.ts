import { namesIn } from '../../expressions/tree'
import { holds } from '../../parties/deliveries'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import type { ConflictPart, Finding } from '../finding'
import type { ReadRule } from '../model/readRule'
import { finding, type Check } from './check'
import { undecidedFinding } from './undecided'

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

/** What is said where something never happens. `own`: the part that it stands in, named where no rules conflict; `question`: what is not decided else. */
interface Never {
  kind: Pick<Check, 'code' | 'severity'>
  own: ConflictPart[]
  sentence: string
  question: string
  rule?: ReadRule | undefined
}

/** The finding that a goal is never reached, with the rules that make it so, or that this is not decided. */
export function neverReached(
  inquiry: Inquiry,
  goal: Goal,
  { kind, own, sentence, question, rule }: Never,
): Finding[] {
  const decision = inquiry.decide(goal)
  const named = rule ? { rule: rule.id } : {}
  const place = inquiry.model.plan.sections.at(-1)?.place
  if (decision.is === 'undecided' && place)
    return [{ ...undecidedFinding(place, question, decision.why), ...named }]
  if (decision.is !== 'impossible') return []
  const conflict = decision.conflict.length > 0 ? decision.conflict : own
  return [finding(kind, null, sentence, { ...named, conflict })]
}
