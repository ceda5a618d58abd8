import { dayNumber, isoFromDay, timeFromSeconds } from '../expressions/dates'
import { likelyTexts } from '../form/likelyTexts'
import type { QuestionOf, QuestionType } from '../form/questions'
import { currenciesOf } from '../form/currencies'
import { gridSteps } from '../form/notApplicable'
import { WRITE_IN } from '../form/rows'
import type { Answer, Answers } from '../form/answers'
import { drawSteps, repairAnswers, type Drawing } from './draw'
import { Filling, problemsIn, type AnswerProblem } from './fill'
import { answersInPlay } from './keep'
import type { Plan, PlannedQuestion } from './planned'

/** Words for texts, by question code; null leaves the choice to the type. */
export type Words = (code: string) => readonly string[] | undefined
interface Making {
  next: () => number
  day: number
  words: Words
  /** Whether files that are nowhere kept stand in for real ones. */
  standIns: boolean
}
type Maker<T extends QuestionType> = (q: QuestionOf<T>, making: Making, step: PlannedQuestion) => Answer

const pick = <T>(items: readonly T[], next: () => number): T | undefined =>
  items[Math.floor(next() * items.length)]
const between = (low: number, high: number, next: () => number) => low + next() * Math.max(0, high - low)
const SPAN = 40
const REMARKS = ['As we spoke of.', 'Nothing further.', 'Please ring before noon.', 'The same as last year.']
const remark: Maker<'longText'> = (q, { next, words }) => pick(words(q.code) ?? REMARKS, next) ?? null

const numeric =
  (places: number) =>
  (q: { min?: number | undefined; max?: number | undefined }, { next }: Making): Answer => {
    const low = q.min ?? 1
    return Number(between(low, Math.min(q.max ?? low + SPAN, low + SPAN), next).toFixed(places))
  }
function day(
  q: { min?: string | undefined; max?: string | undefined },
  { next, day: today }: Making,
): string {
  const low = Math.max(dayNumber(q.min?.slice(0, 10) ?? '') ?? today - 3000, today - 3000)
  const high = Math.min(dayNumber(q.max?.slice(0, 10) ?? '') ?? today + 60, today + 60)
  return isoFromDay(Math.round(between(low, high, next)))
}
const clock = (next: () => number) => timeFromSeconds(28_800 + 900 * Math.floor(next() * 32)) ?? '10:00:00'
const shuffled = <T>(items: readonly T[], next: () => number): T[] =>
  items
    .map(item => [next(), item] as const)
    .sort((a, b) => a[0] - b[0])
    .map(([, item]) => item)
const codes = (step: PlannedQuestion) => [...(step.offer?.rows.keys() ?? [])]

/** A likely answer by type of question. */
const MAKERS: { readonly [T in QuestionType]: Maker<T> } = {
  text: (q, { next, words }) => pick(words(q.code) ?? likelyTexts(q), next) ?? null,
  longText: remark,
  email: (_, { next }) => `${pick(['ines', 'hanna', 'piet', 'lotte'], next)}@wherry.example`,
  phone: (_, { next }) => `01632 96${String(Math.floor(next() * 9000) + 1000)}`,
  url: () => 'https://wherry.example/boats',
  integer: numeric(0),
  decimal: (q, making) => numeric(q.decimals ?? 1)(q, making),
  money: (q, making) => {
    const amount = numeric(2)(q, making)
    return q.currencies
      ? { amount: String(amount), currency: pick(currenciesOf(q), making.next) ?? q.currency }
      : amount
  },
  scale: numeric(0),
  yesNo: (_, { next }) => next() < 0.6,
  choice: (q, { next }, step) => pick([...codes(step), ...(q.writeIn ? [WRITE_IN] : [])], next) ?? null,
  choices: (q, { next }, step) => {
    const most = Math.max(q.least ?? 1, Math.min(q.most ?? 3, 3))
    return shuffled(codes(step), next).slice(0, Math.max(q.least ?? 1, 1 + Math.floor(next() * most)))
  },
  date: day,
  time: (_, { next }) => clock(next),
  dateTime: (q, making) => `${day(q, making)}T${clock(making.next)}`,
  grid: (q, { next }) =>
    Object.fromEntries(q.rows.map(r => [r.code, pick(gridSteps(q), next)?.code ?? null])),
  ranking: (q, { next }) =>
    shuffled(q.options, next)
      .slice(0, q.most)
      .map(o => o.code),
  file: (q, { standIns }) => (standIns ? [standInFile(q)] : null),
  signature: (_, { next, words }) => ({
    typed: pick(words('signature') ?? ['I. Marlow'], next) ?? 'I. Marlow',
  }),
  value: () => null,
  hidden: q => FROM_LINK[q.holds ?? 'text'],
}

const ENDINGS = { image: 'png', pdf: 'pdf', document: 'odt', spreadsheet: 'ods', text: 'txt' } as const
/** A file for practice: it has a name and a size, and nothing in it. */
const standInFile = ({ code, kinds }: QuestionOf<'file'>): Answer => ({
  file: `rehearsal-${code}`,
  name: `stand-in.${ENDINGS[kinds?.[0] ?? 'pdf']}`,
  bytes: 1_000,
})

/** What a link brings, by what the hidden value holds. */
const FROM_LINK = { text: 'from the link', number: 12, yesNo: true, date: '2026-05-01' } as const

const make = <T extends QuestionType>(q: QuestionOf<T>, making: Making, step: PlannedQuestion): Answer =>
  MAKERS[q.type](q, making, step)

/** A pool of likely answers for a drawing: a few of each question's type, those that its type takes. */
const pooled =
  (making: Making) =>
  (step: PlannedQuestion): Answer[] => {
    const made = Array.from({ length: 3 }, () => make(step.place.node, making, step))
    return made.map(a => (a === WRITE_IN ? { [WRITE_IN]: 'Something of my own' } : a))
  }

const TRIES = 40

/**
 * Likely answers to a whole form, around those given, which stay as they are; each section is drawn until it is complete.
 * @returns the answers that count, or null when no complete response was found
 */
export function drawPlausibleAnswers(
  plan: Plan,
  given: Answers,
  today: string,
  next: () => number,
  words: Words = () => undefined,
  blanks = 0.5,
): Answers | null {
  const making: Making = { next, day: dayNumber(today) ?? 0, words, standIns: false }
  const drawn = drawAll(plan, given, today, making, blanks)
  return 'answers' in drawn ? drawn.answers : null
}

/** How often likely answers to what is blank are drawn until a set is complete. */
const MOST_DRAWN = 10

/**
 * Practice answers to what is blank, with stand-ins for files.
 * @returns the answers that count, or what keeps the response from being complete
 */
export function drawRest(plan: Plan, answers: Answers, today: string, next: () => number): DrawnAnswers {
  const given = Object.fromEntries(Object.entries(answers).filter(([, v]) => v !== null))
  const making: Making = { next, day: dayNumber(today) ?? 0, words: () => undefined, standIns: true }
  let drawn = drawAll(plan, given, today, making, 0)
  for (let attempt = 1; attempt < MOST_DRAWN && 'defeatedBy' in drawn; attempt++)
    drawn = drawAll(plan, given, today, making, 0)
  return drawn
}

/** Answers that complete a form, or the first thing that no draw made right. */
export type DrawnAnswers = { answers: Answers } | { defeatedBy: AnswerProblem }

function drawAll(plan: Plan, given: Answers, today: string, making: Making, blanks: number): DrawnAnswers {
  const drawing: Drawing = { next: making.next, blanks, pool: pooled(making) }
  const answers: Record<string, Answer> = {}
  const filling = new Filling(plan, today)
  const keepGiven = () => {
    Object.assign(answers, given)
  }
  for (let index = 0; index < plan.sections.length; index = filling.leave(index)) {
    const section = plan.sections[index]
    if (!section) break
    Object.assign(answers, drawSteps(section.steps, drawing), given)
    if (!filling.enter(index, answers)) continue
    repairAnswers(filling, section, answers, drawing, TRIES, keepGiven)
    const [defeatedBy] = problemsIn(filling.state, section)
    if (defeatedBy) return { defeatedBy }
  }
  return { answers: answersInPlay(filling.state) }
}
