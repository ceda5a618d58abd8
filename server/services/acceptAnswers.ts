import { answersInPlay, fill, type Filled } from '../../core/fill/fill'
import type { Plan } from '../../core/fill/planned'
import type { Answers } from '../../core/form/answers'
import type { Row } from '../../core/form/choiceLists'
import { chosenPeople, mergePeople, type PeopleRows } from '../../core/lists/people'
import type { Standing } from '../../core/form/standing'
import type { Turn } from '../../core/form/turns'
import { tellProblems } from '../../core/parties/tellProblems'
import { filledBy, withTurn } from '../../core/parties/turns'
import { refuse } from '../http/refuse'

/** Answers without their files, in bytes: more than this no form of ours can ask for. */
export const LARGEST_SENDING = 4_000_000

/**
 * A response with what a turn gives: the rules are decided again here, by the same functions as in the browser. Refused with every problem
 * where the turn may not give it, or where something is missing.
 */
export function acceptAnswers(
  plan: Plan,
  turn: Turn | null,
  stored: Answers,
  sent: Answers,
  { begunOn, standing }: { begunOn: string; standing: Standing },
): Filled {
  const { answers, foreign } = withTurn(plan, turn, stored, sent)
  if (foreign.length > 0)
    refuse(
      422,
      'unknown-question',
      'The response answers questions that this form does not have; nothing was stored.',
      foreign.map(code => ({ path: code, sentence: `There is no question “${code}” to be answered here.` })),
    )
  const filled = fill(plan, answers, begunOn, standing)
  const problems = tellProblems(filled, turn, answers)
  if (problems.length > 0)
    refuse(422, 'wrong-answers', 'Some answers don’t fit; nothing was stored.', problems)
  return filled
}

/** What is stored after a turn: what is in play of its own answers and of those before, and whom of a team they choose. Defaults of later turns stay open. */
export function answersToStore(
  filled: Filled,
  turn: Turn | null,
  stored: Answers,
  people: PeopleRows | null,
): { answers: Answers; people: Record<string, Row[]> | null } {
  const own = filledBy(filled.plan, turn)
  const kept = Object.entries(answersInPlay(filled)).filter(
    ([code]) => own.has(code) || Object.hasOwn(stored, code),
  )
  const answers = Object.fromEntries(kept)
  const chosen = chosenPeople(filled.plan.form, answers)
  const isNone = Object.keys(chosen).length === 0 && people === null
  return { answers, people: isNone ? null : mergePeople(people ?? {}, chosen) }
}
