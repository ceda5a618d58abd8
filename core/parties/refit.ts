import { allProblems, fill } from '../fill/fill'
import type { Plan } from '../fill/planned'
import { isFile } from '../fill/readers'
import type { Standing } from '../form/standing'
import { isRecord, type Answer, type Answers } from '../form/answers'
import { withoutQuotes } from '../form/quotes'
import { placeName, type Place } from '../form/walk'
import { accessViewOf, mayFill } from './access'
import { turnOf } from './turns'

/** What would be wrong with a response under another version of its form: `missing` answers, `wrong` ones that don’t fit, and `unasked`: given, and not asked for any more. */
export interface Misfit {
  kind: 'missing' | 'wrong' | 'unasked'
  label: string
  sentence: string
}

/** A stored response as it is weighed: the turns that were handed off, or null where all that is needed should be there. */
export interface StoredResponse {
  answers: Answers
  begunOn: string
  turns: readonly string[] | null
  standing?: Standing
}

/**
 * What would be wrong with a stored response, were it one of another version. Of a response in progress only what the turns that were handed
 * off fill is asked for.
 * @param codeNow what a code of the response’s version is called in the other one
 */
export function findMisfits(
  plan: Plan,
  { answers, begunOn, turns, standing }: StoredResponse,
  codeNow: (code: string) => string,
): Misfit[] {
  const given = recoded(answers, codeNow)
  const filled = fill(plan, given, begunOn, standing)
  const views = turns?.map(code => accessViewOf(plan.form, plan.places, turnOf(plan.form, code)))
  const problems = allProblems(filled).filter(p => !views || views.some(view => mayFill(view, p.step.place)))
  const misfits = problems.map(({ step: { place }, kind, sentence }): Misfit => {
    return { kind: kind === 'missing' ? 'missing' : 'wrong', label: labelOf(place), sentence }
  })
  const isAsked = (code: string): boolean => {
    const place = (plan.byCode.get(code) ?? plan.groups.get(code))?.place
    return place !== undefined && filled.inPlay[place.order] === true
  }
  const unasked = Object.entries(given).filter(([code, answer]) => answer !== null && !isAsked(code))
  return [...misfits, ...unasked.map(([code]) => unaskedOf(plan, code))]
}

function unaskedOf(plan: Plan, code: string): Misfit {
  const place = plan.byCode.get(code)?.place ?? plan.groups.get(code)?.place
  if (!place) return { kind: 'unasked', label: code, sentence: 'There is no such question any more.' }
  return { kind: 'unasked', label: labelOf(place), sentence: 'It would not be asked.' }
}

const labelOf = (place: Place): string => withoutQuotes(placeName(place))

/** Answers under other codes, those in entries too. */
function recoded(answers: Answers, codeNow: (code: string) => string): Answers {
  return Object.fromEntries(
    Object.entries(answers).map(([code, answer]): [string, Answer] => [
      codeNow(code),
      Array.isArray(answer)
        ? answer.map(entry => (isEntry(entry) ? recoded(entry, codeNow) : entry))
        : answer,
    ]),
  )
}

/** An entry of a repeating group; a file is none. */
const isEntry = (entry: Answer): entry is Record<string, Answer> => isRecord(entry) && !isFile(entry)
