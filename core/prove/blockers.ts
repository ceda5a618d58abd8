import { TODAY_SLOT } from '../expressions/compile'
import { FIRST_DAY, isoFromDay, LAST_DAY } from '../expressions/dates'
import { namesIn } from '../expressions/tree'
import type { Value } from '../expressions/types'
import { readAnswer } from '../fill/answers'
import type { Plan, PlannedQuestion } from '../fill/plan'
import type { Domain } from './domains'

/**
 * Questions that can keep their section from being completed. All others can always be completed, whatever the rest of the
 * answers: that is what makes it exact to leave them out of a goal that does not depend on them.
 */
export function blockersOf(plan: Plan, domain: (code: string) => Domain): PlannedQuestion[] {
  return plan.questions.filter(question => question.checks.length > 0 && !canAlwaysPass(plan, question, domain))
}

/** Some answer passes every check, seen alone; or blank does, where no answer is ever required. */
function canAlwaysPass(plan: Plan, question: PlannedQuestion, domain: (code: string) => Domain): boolean {
  const isAlone = question.checks.every(c => c.expr === null || namesIn(c.expr).every(name => name === question.place.code))
  if (!isAlone) return false
  const candidates: Value[] = [...domain(question.place.code).classes, ...farDays(plan, question)]
  if (question.required === null) candidates.push(null)
  return candidates.some(value => passes(plan, question, value))
}

/** A day before and after any today tells how a check with `today()` turns out for every today. */
function farDays(plan: Plan, question: PlannedQuestion): Value[] {
  if (question.place.node.type !== 'date') return []
  return [isoFromDay(FIRST_DAY), isoFromDay(LAST_DAY)].filter(day => readAnswer(day, question.place.node, plan.form).wrong === null)
}

const SOME_DAYS = ['2026-01-01', '2046-01-01'] as const

function passes(plan: Plan, question: PlannedQuestion, value: Value): boolean {
  const values = new Array<Value>(plan.size).fill(null)
  values[question.slot] = value
  return SOME_DAYS.every((today) => {
    values[TODAY_SLOT] = today
    return question.checks.every(c => c.run(values) !== false)
  })
}
