import { isoFromDay, dayNumber } from '../core/expressions/dates'
import { allProblems, answersInPlay, fill } from '../core/fill/fill'
import { planOf, type Plan, type PlannedQuestion } from '../core/fill/plan'
import type { Answer, Answers } from '../core/fill/answers'
import type { Form, QuestionOf, QuestionType } from '../core/form/definition'
import { rowsOf } from '../core/form/walk'
import { random } from '../core/prove/runs'

/** Words of the Wherry Reach scenario for short texts, by question code; other texts get a plain remark. */
const WORDS: Readonly<Record<string, readonly string[]>> = {
  owner_name: ['Ines Marlow', 'Tobias Rudd', 'Hanna Oakes', 'Piet Sorrel', 'Margit Elder', 'Caspar Wren', 'Lotte Fenn', 'Edmund Tarn'],
  reporter: ['Ines Marlow', 'Caspar Wren', 'Lotte Fenn'],
  guardian: ['Hanna Oakes', 'Edmund Tarn'],
  doctor_name: ['Dr Sorrel', 'the harbour medic'],
  boat_name: ['Grey Wagtail', 'Samphire', 'Little Egret', 'Marsh Light', 'Teasel', 'Dunlin', 'Ruddock', 'Sea Holly'],
  insurer: ['Reach Mutual', 'Saltmarsh Marine', 'Tern & Daughters'],
  repair_what: ['Plank in way of the stem', 'Rudder bearing', 'Osmosis below the waterline', 'Bent stanchion'],
  damaged: ['A cradle arm', 'The winch cable', 'A dinghy on its trolley'],
  told: ['The cradle slipped a hand’s breadth and held.', 'Wet weed on the slip.', 'Nobody stood at the brake.'],
  phone_no: ['01632 960112', '01632 960431'],
  mail_to: ['owner@wherry.example', 'crew@samphire.example'],
}
const REMARKS = ['Please call before the lift.', 'Low water springs suit us best.', 'Key is with the harbour office.', 'No hurry.']

type Maker<T extends QuestionType> = (q: QuestionOf<T>, next: () => number, form: Form, day: number) => Answer
const pick = <T>(items: readonly T[], next: () => number): T | undefined => items[Math.floor(next() * items.length)]
const between = (low: number, high: number, next: () => number) => low + next() * (high - low)

/** A likely answer by type of question. */
const MAKERS: { readonly [T in QuestionType]: Maker<T> } = {
  text: (q, next) => pick(WORDS[q.code] ?? REMARKS, next) ?? null,
  integer: (q, next) => Math.round(between(q.min ?? 1, Math.min(q.max ?? 20, (q.min ?? 1) + 40), next)),
  decimal: (q, next) => Number(between(q.min ?? 1, Math.min(q.max ?? 20, (q.min ?? 1) + 14), next).toFixed(q.decimals ?? 1)),
  yesNo: (_, next) => next() < 0.6,
  choice: (q, next, form) => pick(rowsOf(form, q) ?? [], next)?.code ?? null,
  date: (q, next, _form, day) => {
    const low = Math.max(dayNumber(q.min ?? '') ?? day - 3000, day - 3000)
    const high = Math.min(dayNumber(q.max ?? '') ?? day + 60, day + 60)
    return isoFromDay(Math.round(between(low, Math.max(low, high), next)))
  },
}

const makeAnswer = <T extends QuestionType>(q: QuestionOf<T>, next: () => number, form: Form, day: number): Answer => MAKERS[q.type](q, next, form, day)

const TRIES = 60

/**
 * Made-up complete responses to a form, spread over the year before a day.
 * @throws Error when no complete response is found, which says that the form can't be finished
 */
export function madeUpResponses(form: Form, count: number, today: string, seed: number): { begunOn: string, answers: Answers }[] {
  const plan = planOf(form)
  const next = random(seed)
  const last = dayNumber(today) ?? 0
  return Array.from({ length: count }, (_, i) => {
    const day = last - Math.floor((i + next()) * 365 / count)
    return { begunOn: isoFromDay(day), answers: oneResponse(plan, next, day) }
  })
}

function oneResponse(plan: Plan, next: () => number, day: number): Answers {
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const answers: Record<string, Answer> = {}
    for (const q of plan.questions) if (wanted(q, next)) answers[q.place.code] = makeAnswer(q.place.node, next, plan.form, day)
    const filled = fill(plan, answers, isoFromDay(day))
    if (allProblems(filled).length === 0) return answersInPlay(filled)
  }
  throw new Error(`No complete response to “${plan.form.title}” was found.`)
}

const wanted = (q: PlannedQuestion, next: () => number) => q.required !== null || next() < 0.4
