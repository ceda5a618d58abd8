import type { Filled } from '../../fill/frame'
import { problemsIn, type AnswerProblem } from '../../fill/fill'
import { answerOf } from '../../fill/answers'
import { sameAnswer } from '../../form/answers'
import { turnsTaken } from '../../parties/turns'
import type { PlannedQuestion } from '../../fill/planned'
import type { Model } from '../model/model'
import { seeing, type PlannedTurn } from '../model/turnPlan'
import { lacksDemanded } from './demands'
import type { WitnessGoal } from './goal'
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

/** Which goals a state of a form with turns is one of: for some turn of its chain, what the turns up to it fill is complete before the section, and nothing is answered that none of them fills. */
export class TurnStanding {
  private readonly chain: readonly PlannedTurn[]
  private readonly isFinished: boolean
  private readonly problems = new Map<number, AnswerProblem[]>()
  private readonly unfilled = new Map<number, boolean>()
  private answered: readonly PlannedQuestion[] | null = null

  /** @param state may not change from then on */
  constructor(
    private readonly model: Model,
    private readonly state: Filled,
  ) {
    const { chain, isFinished } = chainOf(model, state)
    this.chain = chain
    this.isFinished = isFinished
  }

  standsFor(goal: WitnessGoal): boolean {
    const { section, leaving, turn } = goal
    const isEnd = section === this.model.plan.sections.length && !leaving && turn === undefined
    if ((isEnd || turn === 'any') && this.isFinished && this.stands(this.chain.length, goal)) return true
    const own = new Set(turnsOf(this.model, goal))
    return !isEnd && this.chain.some((t, i) => own.has(t) && this.stands(i + 1, goal))
  }

  /** Whether the first so many turns of the chain fill what they have to before a section, and nothing else is answered. */
  private stands(count: number, goal: WitnessGoal): boolean {
    const { section } = goal
    const turns = this.chain.slice(0, count)
    const theirs = (index: number) =>
      this.problemsIn(index).filter(p => turns.some(t => t.fills(p.step.place)))
    if (this.state.path.some(index => index < section && theirs(index).length > 0)) return false
    if (goal.answered && lacksDemanded(this.model, goal, theirs(section))) return false
    const known = this.unfilled.get(count)
    const isOnlyTheirs = known ?? this.answeredQuestions().every(q => turns.some(t => t.fills(q.place)))
    this.unfilled.set(count, isOnlyTheirs)
    return isOnlyTheirs
  }

  private problemsIn(section: number): AnswerProblem[] {
    const known = this.problems.get(section)
    if (known) return known
    const found = problemsOf(this.state, section, null)
    this.problems.set(section, found)
    return found
  }

  /** The questions with another answer than they begin with. */
  private answeredQuestions(): readonly PlannedQuestion[] {
    const { values } = this.state
    return (this.answered ??= this.state.plan.questions.filter(q => {
      if (q.place.entryOf !== null || q.value !== null) return false
      const value = values[q.slot] ?? null
      return value !== null && !sameAnswer(answerOf(value), answerOf(q.default?.run(values) ?? null))
    }))
  }
}

/** The turns whose states a goal is about. */
function turnsOf({ turns }: Model, { section, leaving, turn }: Standing): readonly PlannedTurn[] {
  if (turn === 'any') return turns
  if (turn !== undefined) return turns.filter(t => t.index === turn)
  return seeing(turns, leaving ? section - 1 : section)
}
