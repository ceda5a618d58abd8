import { dayNumber, isoFromDay } from '../../expressions/dates'
import type { Question, QuestionOf, QuestionType } from '../../form/questions'
import { isRecord, type Answer, type Answers } from '../../form/answers'
import type { Model } from '../model/model'
import type { WitnessGoal } from './goal'
import { replay } from './witness'

/** So much is worked out for likelier values, in questions filled; a long form gets fewer of them. */
const MOST_WORK = 6_000
const MOST_TRIES = 60

/** What texts are called, and what they are then likely to hold. */
const TEXTS: readonly (readonly [RegExp, string])[] = [
  [/boat|vessel|ship/, 'Sea Holly'],
  [/insurer|company|firm|club/, 'Tern Mutual'],
  [/your|full name|surname|owner|who|guardian|parent|contact|skipper/, 'Ines Marlow'],
  [/name/, 'Holly'],
  [/street|address|where/, 'Quay Road 4'],
  [/number|\bno\b|code|sign/, 'WR-104'],
  [/town|city|harbour/, 'Wherry Reach'],
]
const SOMETIME = '10:00:00'
const DAYS_AHEAD = 14
const YEARS_BACK = 30

type Likely<T extends QuestionType> = (question: QuestionOf<T>, today: number) => Answer

/** By type, the likeliest answer, where one is likelier than others. */
const LIKELY: { readonly [T in QuestionType]?: Likely<T> } = {
  text: textFor,
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
function textFor(question: QuestionOf<'text'>): Answer {
  return TEXTS.find(([pattern]) => pattern.test(wordsOf(question)))?.[1] ?? 'Something'
}

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

/** A place in answers where one answer stands: its question, and how the answers look with another there. */
interface Leaf {
  question: Question
  given: Answer
  within: (other: Answer) => Answers
}

function* leavesOf(model: Model, answers: Answers, within: (changed: Answers) => Answers): Generator<Leaf> {
  for (const [code, given] of Object.entries(answers)) {
    const question = model.stepOf(code)?.place.node
    if (question) yield { question, given, within: other => within({ ...answers, [code]: other }) }
    if (!model.plan.groups.has(code) || !Array.isArray(given)) continue
    const entries: readonly Answer[] = given
    for (const [i, entry] of entries.entries())
      if (isRecord(entry))
        yield* leavesOf(model, entry, changed =>
          within({ ...answers, [code]: entries.map((e, j) => (i === j ? changed : e)) }),
        )
  }
}

/**
 * An example with values as people give them – a name for a name, a day soon, the middle of a range – wherever it still shows its goal with
 * them, so that what is at an edge has to be there.
 */
export function makePlausible(model: Model, goal: WitnessGoal, witness: Answers, today: string): Answers {
  const day = dayNumber(today) ?? 0
  const count = [...leavesOf(model, witness, a => a)].length
  const most = Math.min(MOST_TRIES, MOST_WORK / Math.max(1, model.plan.questions.length))
  const tried = (answers: Answers) => replay(model, goal, answers, today)
  // What depends on one another, such as two days, can only be changed together.
  const together = allLikely(model, witness, count, day)
  let best = (most >= 1 ? tried(together) : null) ?? witness
  if (best !== witness) return best
  let tries = most - 1
  for (let at = 0; at < count && tries >= 1; at++) {
    const changed = withLikely(model, best, at, day)
    if (!changed) continue
    tries -= 1
    best = tried(changed) ?? best
  }
  return best
}

/** Answers with the likeliest in one place; null where it stands there already, or none is likelier. */
function withLikely(model: Model, answers: Answers, at: number, day: number): Answers | null {
  const leaf = [...leavesOf(model, answers, a => a)][at]
  const likely = leaf && leaf.given !== null ? likelyAnswer(leaf.question, day) : null
  return !leaf || likely === null || likely === leaf.given ? null : leaf.within(likely)
}

/** The same in every place; each day is one later than the one before it. */
function allLikely(model: Model, answers: Answers, count: number, day: number): Answers {
  let changed = answers
  for (let at = 0; at < count; at++) changed = withLikely(model, changed, at, day + at) ?? changed
  return changed
}
