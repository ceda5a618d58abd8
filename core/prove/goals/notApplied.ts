import type { Plan } from '../../fill/planned'
import { isRecord, type Answer, type Answers } from '../../form/answers'
import { DOES_NOT_APPLY, mayNotApply } from '../../form/notApplicable'
import type { GroupPlace } from '../../form/walk'
import type { WitnessGoal } from './goal'

/** Answers of a state in which what may be said not to apply, and has no answer on the way, is said so: rules see blank either way. */
export function withNotApplicable(plan: Plan, goal: WitnessGoal, answers: Answers): Answers {
  const asked = plan.questions.filter(
    q =>
      q.said !== null &&
      mayNotApply(q.place.node) &&
      (goal.answered ? q.place.section <= goal.section : q.place.section < goal.section),
  )
  return asked.reduce((done, { place }) => {
    const around = place.groups.filter(g => g.node.repeat !== undefined)
    return saidIn(done, around, place.code)
  }, answers)
}

/** Answers with a question said not to apply where it is blank; in each entry of the groups around it. */
function saidIn(answers: Answers, [group, ...inner]: readonly GroupPlace[], code: string): Answers {
  if (!group) return answers[code] == null ? { ...answers, [code]: DOES_NOT_APPLY } : answers
  const entries = answers[group.code]
  if (!Array.isArray(entries)) return answers
  const said = entries.map((entry: Answer) => (isRecord(entry) ? saidIn(entry, inner, code) : entry))
  return { ...answers, [group.code]: said }
}
