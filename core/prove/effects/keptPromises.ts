import type { Answers } from '../../form/answers'
import type { Form } from '../../form/definition'
import { promiseGoal } from '../checks/promiseBroken'
import { Inquiry } from '../goals/inquiry'
import { dayOf } from '../goals/witness'

/**
 * What becomes of a promise that a version held: `kept` by the other one as well, `broken` by the answers of `witness` on the day `today` (ISO
 * date), `untold`: it speaks of something that the other one has not, else `undecided`. `isPromised`: the other version promises it, too.
 */
export interface PromiseOutcome {
  code: string
  text: string
  outcome: 'kept' | 'broken' | 'untold' | 'undecided'
  isPromised: boolean
  witness: Answers | null
  today: string
}

/**
 * Decides of every promise that a version keeps, as it is worded there, whether another version keeps it too: by the complete responses of the
 * other one. What the first one does not keep, or of which that is not decided, is left out.
 * @param today ISO date on which the responses are begun
 */
export function decidePromises(before: Form, after: Form, today: string): PromiseOutcome[] {
  const promises = before.promises ?? []
  if (promises.length === 0) return []
  const was = new Inquiry(before, today)
  const is = new Inquiry({ ...after, promises }, today)
  const promised = new Set(after.promises?.map(p => p.holds))
  return promises.flatMap(({ code, text, holds }, index): PromiseOutcome[] => {
    if (outcomeOf(was, index).outcome !== 'kept') return []
    return [{ code, text, isPromised: promised.has(holds), ...outcomeOf(is, index) }]
  })
}

function outcomeOf(inquiry: Inquiry, index: number): Pick<PromiseOutcome, 'outcome' | 'witness' | 'today'> {
  const { today } = inquiry
  const goal = promiseGoal(inquiry, index)
  if (!goal) return { outcome: 'untold', witness: null, today }
  const decision = inquiry.decide(goal, { withoutConflict: true })
  if (decision.is === 'impossible') return { outcome: 'kept', witness: null, today }
  const witness = decision.is === 'possible' ? inquiry.witness(goal) : null
  if (!witness) return { outcome: 'undecided', witness: null, today }
  return { outcome: 'broken', witness, today: dayOf(witness) ?? today }
}
