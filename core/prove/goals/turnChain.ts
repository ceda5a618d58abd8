import type { Filled } from '../../fill/frame'
import { problemsIn, type AnswerProblem } from '../../fill/fill'
import { answerOf } from '../../fill/answers'
import { sameAnswer } from '../../form/answers'
import { turnsTaken } from '../../parties/turns'
import type { Model } from '../model/model'
import { seeing, type PlannedTurn } from '../model/turnPlan'
import type { Standing } from './standing'

/** The turns that the evaluator says a response goes through, up to the first that hands back. */
function chainOf(model: Model, state: Filled): { chain: PlannedTurn[]; isFinished: boolean } {
  const chain: PlannedTurn[] = []
  for (const code of turnsTaken(state)) {
    const turn = model.turns.find(t => t.turn.code === code)
    if (!turn || turn.index <= (chain.at(-1)?.index ?? -1)) return { chain, isFinished: false }
    chain.push(turn)
  }
  return { chain, isFinished: true }
}

/** What is wrong or missing in a section for turns that fill it; in a form without turns, for the one respondent. */
export const problemsOf = (
  state: Filled,
  section: number,
  turns: readonly PlannedTurn[] | null,
): AnswerProblem[] => {
  const planned = state.plan.sections[section]
  if (!planned) return []
  return problemsIn(state, planned).filter(
    p => turns === null || turns.some(turn => turn.fills(p.step.place)),
  )
}

/**
 * Whether the state is one of a goal for some turn of its chain: what the turns up to it fill before the section is complete, and nothing is
 * answered that none of them fills.
 */
export function standsInTurns(model: Model, state: Filled, goal: Standing): boolean {
  const { section, leaving, turn } = goal
  const { chain, isFinished } = chainOf(model, state)
  const isEnd = section === model.plan.sections.length && !leaving && turn === undefined
  if ((isEnd || turn === 'any') && isFinished && stands(state, chain, section)) return true
  const own = new Set(turnsOf(model, goal))
  return !isEnd && chain.some((t, i) => own.has(t) && stands(state, chain.slice(0, i + 1), section))
}

/** The turns whose states a goal is about. */
function turnsOf({ turns }: Model, { section, leaving, turn }: Standing): readonly PlannedTurn[] {
  if (turn === 'any') return turns
  if (turn !== undefined) return turns.filter(t => t.index === turn)
  return seeing(turns, leaving ? section - 1 : section)
}

function stands(state: Filled, turns: readonly PlannedTurn[], section: number): boolean {
  const before = state.path.filter(index => index < section)
  if (before.some(index => problemsOf(state, index, turns).length > 0)) return false
  return state.plan.questions.every(q => {
    if (q.place.entryOf !== null || q.value !== null || turns.some(t => t.fills(q.place))) return true
    const value = state.values[q.slot] ?? null
    return value === null || sameAnswer(answerOf(value), answerOf(q.default?.run(state.values) ?? null))
  })
}
