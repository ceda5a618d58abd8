import { TODAY_SLOT } from '../../expressions/compiled'
import { FIRST_DAY, isoFromDay, LAST_DAY } from '../../expressions/dates'
import { namesIn } from '../../expressions/tree'
import type { Place } from '../../form/walk'
import type { Value } from '../../expressions/types'
import type { Plan, PlannedQuestion, PlannedSection, Step } from '../../fill/planned'
import { isQuestion, isRepeating } from '../../fill/steps'
import { isNarrowed, isUnanswerable, mayOfferNothing } from './answerable'
import { isLockable } from './domains'
import { isParted } from './parts'
import { isPossible } from './sampleAnswers'
import type { PlannedTurn } from './turnPlan'
import type { Domain } from './domain'
import { BEYOND, neverFails } from './estimate'

/**
 * What can keep its section from being completed, by a check of its own or because it can't be answered. All others can always be completed, whatever the rest of the
 * answers: that is what makes it exact to leave them out of a goal that does not depend on them.
 */
export function blockersOf(
  plan: Plan,
  turns: readonly PlannedTurn[],
  domain: (code: string) => Domain,
): Blockers {
  const passing = new Map<PlannedQuestion, Value>()
  const passes = (question: PlannedQuestion) => {
    const value = passingValue(plan, question, domain)
    if (value !== undefined) passing.set(question, value)
    return value !== undefined
  }
  const blocking = plan.sections
    .flatMap((section): (Step | PlannedSection)[] => [section, ...section.all])
    .filter(step => {
      if ('is' in step && isNeverComplete(step)) return true
      const question = 'parent' in step && isQuestion(step) ? step : null
      if (question && mayBeKept(plan, turns, question, domain)) return true
      return step.checks.length > 0 && !(question && passes(question))
    })
  return { blocking, passing }
}

export interface Blockers {
  blocking: readonly (Step | PlannedSection)[]
  /** By question with checks that block nobody: a value that passes them, whatever else is answered. */
  passing: ReadonlyMap<PlannedQuestion, Value>
}

/** A group that needs more entries than fit, with something in each that has to be answered. */
export const isNeverComplete = (step: Step): boolean =>
  isRepeating(step) &&
  step.min > step.max &&
  step.steps.some(s => isQuestion(s) && s.required === true && s.shown === null && s.skips.length === 0)

/** It may be required and have no answer: read-only and beginning with nothing, without any that fits its limits, or with nothing on offer. */
function mayBeKept(
  plan: Plan,
  turns: readonly PlannedTurn[],
  question: PlannedQuestion,
  domain: (code: string) => Domain,
): boolean {
  if (question.required === null || question.value !== null) return false
  return (
    (question.default === null && isLockable(question, plan)) ||
    mayOfferNothing(plan, turns, question) ||
    isUnanswerable(question, domain(question.place.code))
  )
}

/** What stands in a repeating group that needs no entry holds nobody up. */
export const isAvoidable = (place: Place) =>
  place.groups.some(g => g.node.repeat !== undefined && (g.node.repeat.min ?? 0) === 0)

/** An answer that passes every check whatever else is answered; blank, where no answer is ever required. Undefined when none is known. */
function passingValue(
  plan: Plan,
  question: PlannedQuestion,
  domain: (code: string) => Domain,
): Value | undefined {
  const { opaque, many } = domain(question.place.code)
  // What is locked or not on offer may be just the answers that pass.
  if (opaque || many || isLockable(question, plan) || isNarrowed(question)) return undefined
  const candidates: Value[] = [
    ...domain(question.place.code).classes,
    ...farDays(question),
    ...farNumbers(question),
  ]
  if (question.required === null) candidates.push(null)
  const isAlone = question.checks.every(
    c => c.expr === null || namesIn(c.expr).every(name => name === question.place.code),
  )
  const holds = isAlone ? passes : passesWhateverElse
  return candidates.find(value => holds(plan, question, value))
}

/** Whether a value passes the checks of its question with any other answers. */
const passesWhateverElse = (plan: Plan, question: PlannedQuestion, value: Value): boolean =>
  question.place.entryOf === null &&
  question.checks.every(c => c.expr === null || neverFails(plan, c.expr, question, value))

/** The ends of what may be given as a number. */
function farNumbers(question: PlannedQuestion): Value[] {
  const { node } = question.place
  if (node.type !== 'integer' && node.type !== 'decimal' && node.type !== 'money') return []
  if (isParted(node)) return []
  return [node.min ?? -BEYOND, node.max ?? BEYOND].filter(n => isPossible(n, question))
}

/** A day before and after any today tells how a check with `today()` turns out for every today. */
function farDays(question: PlannedQuestion): Value[] {
  if (question.place.node.type !== 'date') return []
  return [isoFromDay(FIRST_DAY), isoFromDay(LAST_DAY)].filter(day => isPossible(day, question))
}

const SOME_DAYS = ['2026-01-01', '2046-01-01'] as const

function passes(plan: Plan, question: PlannedQuestion, value: Value): boolean {
  const values = new Array<Value>(plan.size).fill(null)
  values[question.slot] = value
  return SOME_DAYS.every(today => {
    values[TODAY_SLOT] = today
    return question.checks.every(c => c.run(values) !== false)
  })
}
