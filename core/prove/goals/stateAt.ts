import { framesOf } from '../../fill/draw'
import { allProblems, fill, offeredNow, problemsIn, type AnswerProblem, type Filled } from '../../fill/fill'
import type { Answers } from '../../form/answers'
import { filledBy, turnOf, turnProblems, turnsTaken } from '../../parties/turns'
import type { Model } from '../model/model'

/** How a state stands to its current section. */
export interface Standing {
  /** The section before is complete and being left, wherever its routes lead. */
  leaving?: boolean
  /** The routes lead there, shown or not. */
  reaching?: boolean
}

/**
 * The state of a set of answers whose current section is the given one: everything before it is complete. The number of sections means the
 * finish. Null when the answers are no such state.
 */
export function stateAt(
  model: Model,
  answers: Answers,
  section: number,
  today: string,
  { leaving = false, reaching = false }: Standing = {},
): Filled | null {
  const state = fill(model.plan, answers, today)
  if (section >= model.plan.sections.length && !leaving) return isComplete(model, state) ? state : null
  const isThere = state.path.includes(leaving ? section - 1 : section)
  if (!isThere && !(reaching && leadsTo(state, section))) return null
  const before = state.path.filter(index => index < section)
  if (before.some(index => isIncomplete(model, state, index))) return null
  return leaving || reaching || before.length < state.path.length ? state : null
}

/** Whether something is missing or wrong in a section. */
function isIncomplete(model: Model, state: Filled, index: number): boolean {
  const section = model.plan.sections[index]
  return section !== undefined && problemsIn(state, section).some(p => !isDeadEnd(model, state, p))
}

/** Whether the way of a response comes to a section, to enter it or to pass it over. */
function leadsTo(state: Filled, section: number): boolean {
  const before = state.path.findLast(index => index < section)
  const taken =
    before === undefined
      ? undefined
      : state.plan.sections[before]?.routes.find(r => r.when === null || r.when.run(state.values) === true)
  return before === undefined || (taken?.target ?? before + 1) <= section
}

/** Whether nothing is missing or wrong; with turns, in those that are taken, and nothing is answered that none of them fills. */
function isComplete(model: Model, state: Filled): boolean {
  const { plan } = model
  const turns = turnsTaken(state).flatMap(code => turnOf(plan.form, code) ?? [])
  const problems = turns.length > 0 ? turns.flatMap(turn => turnProblems(state, turn)) : allProblems(state)
  if (problems.some(p => !isDeadEnd(model, state, p))) return false
  if (turns.length === 0) return true
  const filled = new Set(turns.flatMap(turn => [...filledBy(plan, turn)]))
  return plan.questions.every(
    q =>
      q.place.entryOf !== null ||
      q.value !== null ||
      filled.has(q.place.code) ||
      (state.values[q.slot] ?? null) === null,
  )
}

/** A required question that has nothing to offer stays blank, and a finding of its own speaks of that. */
const isDeadEnd = (model: Model, state: Filled, { step, kind }: AnswerProblem): boolean =>
  kind === 'missing' &&
  'read' in step &&
  (model.domain(step.place.code).classes.length === 0 ||
    framesOf(state, step).some(
      f => f.offered.get(step.slot)?.size === 0 || (step.offer !== null && offeredNow(f, step)?.size === 0),
    ))
