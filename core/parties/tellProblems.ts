import { allProblems, fill, type AnswerProblem, type Filled } from '../fill/fill'
import { tableOf } from '../fill/lookedUp'
import { planOf } from '../fill/plan'
import type { Answers } from '../form/answers'
import type { Turn } from '../form/turns'
import { redactForParty } from './redact'
import { turnProblems } from './turns'

/** Said of an answer whose own sentence would speak of what the party never sees. */
const UNSAID = 'This answer doesn’t fit.'

/**
 * What keeps a turn from being handed off, told to whoever fills it: the sentences are those of the form as it is cut for that party, so
 * none quotes what it never sees.
 * @param answers the answers of the whole response, as `filled` was made from them
 */
export function tellProblems(
  filled: Filled,
  turn: Turn | null,
  answers: Answers,
): { path: string; sentence: string }[] {
  const problems = turnProblems(filled, turn)
  if (problems.length === 0) return []
  const seen = redactForParty(filled, turn, answers)
  const cut = fill(planOf(seen.form), seen.answers, filled.today, filled.standing)
  const told = new Map(allProblems(cut).map(p => [p.path, p.sentence]))
  return problems.map(({ path, ...problem }) => ({
    path,
    sentence: told.get(path) ?? lookedUpWords(problem) ?? UNSAID,
  }))
}

/** What is said of an answer that its list does not take: the list is kept from the party, the message is for it. */
function lookedUpWords({ step, sentence }: Pick<AnswerProblem, 'step' | 'sentence'>): string | null {
  const table = 'is' in step && step.place.kind === 'question' ? tableOf(step.place.node) : undefined
  return table?.message === sentence ? sentence : null
}
