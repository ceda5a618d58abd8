import { compareNumbers, decimalPlaces, isNumber, numberFromDouble, numberFromText, numberText, type Num } from '../expressions/decimal'
import { dayNumber, readableDate } from '../expressions/dates'
import type { Value } from '../expressions/types'
import type { Form, QuestionOf, QuestionType } from '../form/definition'
import { LIMITS } from '../form/definition'
import { rowsOf } from '../form/walk'

/**
 * An answer as files, requests and the store hold it: text, number, boolean, ISO date, code; null for blank. A number of
 * more than 15 digits is held as text.
 */
export type Answer = null | boolean | number | string
/** The answers of a response by question code. */
export type Answers = Readonly<Record<string, Answer>>

/** What an answer amounts to: a value for the rules, or a sentence that says what is wrong with it. */
export type Reading = { value: Value, wrong: null } | { value: null, wrong: string }

const ok = (value: Value): Reading => ({ value, wrong: null })
const wrong = (sentence: string): Reading => ({ value: null, wrong: sentence })

type Reader<T extends QuestionType> = (answer: Exclude<Answer, null>, question: QuestionOf<T>, form: Form) => Reading

const unit = (u: string | undefined) => u ? ` ${u}` : ''

function limited(n: Num, { min, max, unit: u }: { min?: number | undefined, max?: number | undefined, unit?: string | undefined }): Reading {
  const low = min !== undefined && compareNumbers(n, numberFromDouble(min) ?? 0) < 0
  const high = max !== undefined && compareNumbers(n, numberFromDouble(max) ?? 0) > 0
  if (!low && !high) return ok(n)
  if (min !== undefined && max !== undefined) return wrong(`This is ${numberText(n)}${unit(u)}; it must be between ${min} and ${max}${unit(u)}.`)
  return wrong(low ? `This must be at least ${min}${unit(u)}.` : `This must be at most ${max}${unit(u)}.`)
}

const numberOf = (answer: Exclude<Answer, null>): Num | null =>
  typeof answer === 'number' ? numberFromDouble(answer) : typeof answer === 'string' ? numberFromText(answer.trim()) : null

/** Reads answers by type. An answer that breaks its type's own limits is no answer: the rules see blank, the person an error. */
const READERS: { readonly [T in QuestionType]: Reader<T> } = {
  text: (answer, q) => {
    if (typeof answer !== 'string') return wrong('A text is expected here.')
    if (answer.trim() === '') return ok(null)
    const length = [...answer].length
    const most = q.maxLength ?? LIMITS.text
    if (length > most) return wrong(`This has ${length} characters; at most ${most} fit.`)
    if (q.minLength !== undefined && length < q.minLength) return wrong(`This has ${length} characters; at least ${q.minLength} are needed.`)
    return ok(answer)
  },
  integer: (answer, q) => {
    const n = numberOf(answer)
    if (n === null || decimalPlaces(n) > 0) return wrong('Type a whole number, such as 12.')
    return limited(n, q)
  },
  decimal: (answer, q) => {
    const n = numberOf(answer)
    if (n === null) return wrong('Type a number, such as 9.5.')
    if (q.decimals !== undefined && decimalPlaces(n) > q.decimals) return wrong(q.decimals === 0 ? 'Type a whole number.' : `Type at most ${q.decimals} digits after the point.`)
    return limited(n, q)
  },
  yesNo: answer => typeof answer === 'boolean' ? ok(answer) : wrong('Yes or no is expected here.'),
  choice: (answer, q, form) => {
    if (typeof answer !== 'string') return wrong('One of the choices is expected here.')
    return rowsOf(form, q)?.some(row => row.code === answer) ? ok(answer) : wrong('This choice is not on offer.')
  },
  date: (answer, q) => {
    if (typeof answer !== 'string' || dayNumber(answer) === null) return wrong('Type a date of the calendar, such as 24 Nov 2026.')
    if (q.min !== undefined && answer < q.min) return wrong(`This must be ${readableDate(q.min)} or later.`)
    if (q.max !== undefined && answer > q.max) return wrong(`This must be ${readableDate(q.max)} or earlier.`)
    return ok(answer)
  },
}

/** Reads one answer to a question; blank (null, undefined, empty text) is a value, too. */
export function readAnswer<T extends QuestionType>(answer: Answer | undefined, question: QuestionOf<T>, form: Form): Reading {
  if (answer === null || answer === undefined || answer === '') return ok(null)
  return READERS[question.type](answer, question, form)
}

/** A value as it is stored and sent. */
export function answerOf(value: Value): Answer {
  if (isNumber(value)) return typeof value === 'number' ? value : numberText(value)
  return typeof value === 'string' || typeof value === 'boolean' ? value : null
}
