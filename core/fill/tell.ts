import { numberText, isNumber } from '../expressions/decimal'
import { readableDate } from '../expressions/dates'
import type { Value } from '../expressions/types'
import type { Form, QuestionOf, QuestionType } from '../form/definition'
import { rowsOf } from '../form/walk'
import type { Answers } from './answers'
import { fill } from './fill'
import type { Plan } from './plan'

type Teller<T extends QuestionType> = (value: Exclude<Value, null>, question: QuestionOf<T>, form: Form) => string

const number = (value: Value, unit: string | undefined) => isNumber(value) ? numberText(value) + (unit ? ` ${unit}` : '') : ''

/** How an answer is written for people, by type. */
const TELLERS: { readonly [T in QuestionType]: Teller<T> } = {
  text: value => String(value),
  integer: (value, q) => number(value, q.unit),
  decimal: (value, q) => number(value, q.unit),
  yesNo: value => value === true ? 'Yes' : 'No',
  choice: (value, q, form) => rowsOf(form, q)?.find(r => r.code === value)?.label ?? String(value),
  date: value => readableDate(String(value)),
}

/** An answer as text for people; empty for blank. */
export const tellValue = <T extends QuestionType>(value: Value, question: QuestionOf<T>, form: Form): string =>
  value === null ? '' : TELLERS[question.type](value, question, form)

/** One question of a response as it is read: answered, left blank, or never asked. */
export interface ToldLine { code: string, label: string, state: 'answered' | 'blank' | 'unasked', text: string, section: number, heading: string | null }

/** A response question by question, in the order of the form; the first line of each section carries its title. */
export function tellResponse(plan: Plan, answers: Answers, today: string): ToldLine[] {
  const filled = fill(plan, answers, today)
  let section = -1
  return plan.questions.map(({ place, slot }) => {
    const value = filled.values[slot] ?? null
    const heading = place.section === section ? null : plan.sections[place.section]?.place.node.title ?? null
    section = place.section
    const state = value !== null ? 'answered' : filled.inPlay[place.order] === true ? 'blank' : 'unasked'
    return { code: place.code, label: place.node.label || place.code, state, text: tellValue(value, place.node, plan.form), section, heading }
  })
}
