import { dayNumber, isoFromDay } from '../../expressions/dates'
import { likelyTexts } from '../../form/likelyTexts'
import type { Question, QuestionOf, QuestionType } from '../../form/questions'
import { isRecord, type Answer, type Answers } from '../../form/answers'
import type { Model } from '../model/model'
import type { WitnessGoal } from './goal'
import { replay } from './witness'

/** So much is worked out for likelier values, in questions filled; a long form gets fewer of them. */
const MOST_WORK = 6_000
const MOST_TRIES = 60

const SOMETIME = '10:00:00'
const DAYS_AHEAD = 14
const YEARS_BACK = 30

type Likely<T extends QuestionType> = (question: QuestionOf<T>, today: number) => Answer

/** By type, the likeliest answer, where one is likelier than others. */
const LIKELY: { readonly [T in QuestionType]?: Likely<T> } = {
  text: q => likelyTexts(q)[0] ?? null,
  longText: () => 'As we spoke of.',
  integer: q => Math.round(middle(q)),
  decimal: q => Number(middle(q).toFixed(Math.min(1, q.decimals ?? 1))),
  money: q => Math.round(middle(q)),
  scale: q => Math.round(middle(q)),
  date: (q, today) => isoFromDay(dayFor(q, today)),
  time: () => SOMETIME,
  dateTime: (q, today) => `${isoFromDay(dayFor(q, today))}T${SOMETIME}`,
  email: () => 'ines@wherry.example',
  phone: () => '01632 960104',
  url: () => 'https://wherry.example/boats',
}

function likelyAnswer<T extends QuestionType>(question: QuestionOf<T>, today: number): Answer {
  return LIKELY[question.type]?.(question, today) ?? null
}

const wordsOf = ({ label, code }: Question) => `${label} ${code.replaceAll('_', ' ')}`.toLowerCase()

/** The middle of what may be answered; near its one limit where it has one. */
function middle({ min, max }: { min?: number | undefined; max?: number | undefined }): number {
  if (min !== undefined && max !== undefined) return (min + max) / 2
  if (min !== undefined) return min + 10
  return max === undefined ? 12 : max - 10
}

/** A day soon, within the limits; of birth, one long ago. */
function dayFor(
  question: Question & { min?: string | undefined; max?: string | undefined },
  today: number,
): number {
  const wanted = /birth|born/.test(wordsOf(question))
    ? today - Math.round(YEARS_BACK * 365.25)
    : today + DAYS_AHEAD
  const least = dayNumber(question.min?.slice(0, 10) ?? '') ?? wanted
  const most = dayNumber(question.max?.slice(0, 10) ?? '') ?? wanted
  return Math.min(Math.max(wanted, least), most)
}

/** Answers with likelier values in some places; how many places there are, and how many of them changed. */
interface Likelier {
  answers: Answers
  places: number
  changed: number
}

/**
 * Answers with the likeliest in some places, those in entries of groups too; an answer stays where none is likelier.
 * @param dayAt by position among all places the day from which dates there are counted; null where the answer is to stay
 */
function withLikely(model: Model, given: Answers, dayAt: (at: number) => number | null): Likelier {
  let [places, changed] = [0, 0]
  const likelyFor = (question: Question, answer: Answer): Answer => {
    const day = dayAt(places++)
    const likely = day === null || answer === null ? null : likelyAnswer(question, day)
    if (likely === null || likely === answer) return answer
    changed += 1
    return likely
  }
  const inAll = (answers: Answers): Answers =>
    Object.fromEntries(
      Object.entries(answers).map(([code, answer]) => {
        const question = model.stepOf(code)?.place.node
        if (question) return [code, likelyFor(question, answer)]
        if (!model.plan.groups.has(code) || !Array.isArray(answer)) return [code, answer]
        const entries: readonly Answer[] = answer
        return [code, entries.map(entry => (isRecord(entry) ? inAll(entry) : entry))]
      }),
    )
  return { answers: inAll(given), places, changed }
}

/**
 * An example with values as people give them – a name for a name, a day soon, the middle of a range – wherever it still shows its goal with
 * them, so that what is at an edge has to be there.
 */
export function makePlausible(model: Model, goal: WitnessGoal, witness: Answers, today: string): Answers {
  const day = dayNumber(today) ?? 0
  const most = Math.min(MOST_TRIES, MOST_WORK / Math.max(1, model.plan.questions.length))
  const tried = (answers: Answers) => replay(model, goal, answers, today)
  // What depends on one another, such as two days, can only be changed together; each day is one later than the one before it.
  const together = withLikely(model, witness, at => day + at)
  const all = most >= 1 ? tried(together.answers) : null
  if (all) return all
  let best = witness
  let tries = most - 1
  for (let at = 0; at < together.places && tries >= 1; at++) {
    const { answers, changed } = withLikely(model, best, place => (place === at ? day : null))
    if (changed === 0) continue
    tries -= 1
    best = tried(answers) ?? best
  }
  return best
}
