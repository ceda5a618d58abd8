import { sayTwofold } from './typedNumber'
import { emailProblem, phoneProblem, urlProblem } from './contacts'
import { lookUp, tableOf } from './lookedUp'
import { valueInCurrency } from './amounts'
import { readChoice, readChoices } from './readChoices'
import { type GivenAnswer, type Offer, type AnswerReading, wrong, ok, BLANK } from './answerReading'
import {
  compareNumbers,
  decimalPlaces,
  isNumber,
  numberFromDouble,
  numberFromText,
  LONGEST_NUMBER,
  numberText,
  type Num,
} from '../expressions/decimal'
import {
  dateTimeText,
  dayNumber,
  readableDate,
  readableDateTime,
  readableTime,
  timeText,
} from '../expressions/dates'
import { patternOf } from '../expressions/patterns'
import type { Value } from '../expressions/types'
import { currenciesOf } from '../form/currencies'
import type { Form } from '../form/definition'
import { isDrawing } from './drawnSignature'
import { LIMITS } from '../form/limits'
import type { MessageKind } from '../form/messages'
import { gridSteps, mayNotApply, saysNotApplicable } from '../form/notApplicable'
import { ownWords } from '../form/ownWords'
import type { QuestionOf, QuestionType } from '../form/questions'
import { isRecord, type Answer } from '../form/answers'

type Read = (answer: GivenAnswer, offer: Offer) => AnswerReading
/** Prepares the reading of one question's answers. An answer that breaks its type's own limits is no answer: the rules see blank, the person an error. */
type Reader<T extends QuestionType> = (question: QuestionOf<T>) => Read

const unit = (u: string | undefined) => (u ? ` ${u}` : '')
interface Limits {
  min?: number | undefined
  max?: number | undefined
  unit?: string | undefined
}

function limits({ min, max, unit: u }: Limits): (n: Num) => AnswerReading | null {
  const low = min === undefined ? null : numberFromDouble(min)
  const high = max === undefined ? null : numberFromDouble(max)
  return n => {
    const isLow = low !== null && compareNumbers(n, low) < 0
    const isHigh = high !== null && compareNumbers(n, high) > 0
    if (!isLow && !isHigh) return null
    const why = isLow ? 'tooSmall' : 'tooLarge'
    if (min !== undefined && max !== undefined)
      return wrong(`This is ${numberText(n)}${unit(u)}; it must be between ${min} and ${max}${unit(u)}.`, why)
    const limit = isLow ? `at least ${min}` : `at most ${max}`
    return wrong(`This must be ${limit}${unit(u)}.`, why)
  }
}

/** A number as somebody might type it, whichever way it is sent: what is kept of it reads as the same again. */
function numberOf(answer: GivenAnswer): Num | null {
  if (typeof answer === 'string') return numberFromText(answer.trim())
  const n = typeof answer === 'number' ? numberFromDouble(answer) : null
  return n !== null && numberText(n).length <= LONGEST_NUMBER ? n : null
}
const numberAnswer = (n: Num): Answer => (typeof n === 'number' ? n : numberText(n))

function number(
  within: (n: Num) => AnswerReading | null,
  places: number | undefined,
  expected: string,
): Read {
  return answer => {
    const n = numberOf(answer)
    if (n === null) return wrong((typeof answer === 'string' && sayTwofold(answer)) || expected, 'notANumber')
    if (places === 0 && decimalPlaces(n) > 0) return wrong(expected, 'notANumber')
    if (places !== undefined && decimalPlaces(n) > places)
      return wrong(
        `Type at most ${places} ${places === 1 ? 'digit' : 'digits'} after the point.`,
        'tooPrecise',
      )
    return within(n) ?? ok(n, numberAnswer(n))
  }
}

function text(
  check: (text: string) => string | null,
  most: number = LIMITS.text,
  least?: number,
  why: MessageKind | null = null,
): Read {
  return answer => {
    if (typeof answer !== 'string') return wrong('A text is expected here.')
    if (answer.trim() === '') return BLANK
    const length =
      answer.length <= most && (least === undefined || answer.length >= least * 2)
        ? answer.length
        : [...answer].length
    if (length > most) return wrong(`This has ${length} characters; at most ${most} fit.`, 'tooLong')
    if (least !== undefined && length < least)
      return wrong(`This has ${length} characters; at least ${least} are needed.`, 'tooShort')
    const problem = check(answer)
    return problem === null ? ok(answer, answer) : wrong(problem, why)
  }
}

const pattern = (source: string | undefined, message: string | undefined) => {
  const compiled = source === undefined ? null : patternOf(source)
  return (t: string) =>
    compiled === null || compiled.matcher(t).matches()
      ? null
      : message || 'This does not have the form that is asked for.'
}

/** A temporal answer: normalised, then compared with its bounds as text. */
function temporal(
  normal: (text: string) => string | null,
  readable: (text: string) => string,
  expected: string,
  { min, max }: { min?: string | undefined; max?: string | undefined },
): Read {
  const [low, high] = [min === undefined ? null : normal(min), max === undefined ? null : normal(max)]
  return answer => {
    const value = typeof answer === 'string' ? normal(answer) : null
    if (value === null) return wrong(expected, 'notADate')
    if (low !== null && value < low) return wrong(`This must be ${readable(low)} or later.`, 'tooEarly')
    if (high !== null && value > high) return wrong(`This must be ${readable(high)} or earlier.`, 'tooLate')
    return ok(value, value)
  }
}

const trimmed =
  (read: Read): Read =>
  (answer, offer) =>
    read(typeof answer === 'string' ? answer.trim() : answer, offer)

/** Files as they are answered: where they are kept, and what they were called. */
export interface FileAnswer {
  readonly [key: string]: Answer
  readonly file: string
  readonly name: string
  readonly bytes: number
}
export const isFile = (answer: Answer): answer is FileAnswer =>
  isRecord(answer) &&
  typeof answer.file === 'string' &&
  typeof answer.name === 'string' &&
  typeof answer.bytes === 'number' &&
  Object.keys(answer).length === 3
export const DEFAULT_MEGABYTES = 10
const FILE_ID = /^[\w-]{8,64}$/

/** Reads an amount in one of the currencies of a question; of several, the value says which. */
function amountReader(q: QuestionOf<'money'>, currency: string): Read {
  const read = number(limits({ ...q, unit: currency }), 2, 'Type an amount, such as 480 or 12.50.')
  return (amount, offer) => {
    const reading = read(amount, offer)
    if (!isNumber(reading.value)) return reading
    const written = cents(reading.value)
    if (written.length > LONGEST_NUMBER) return wrong(`At most ${LONGEST_NUMBER} characters fit.`)
    const value = q.currencies ? valueInCurrency(q, currency, reading.value) : reading.value
    return { ...reading, value, answer: { amount: written, currency } }
  }
}

/** Reads answers by type. */
const READERS: { readonly [T in QuestionType]: Reader<T> } = {
  text: q => text(pattern(q.pattern, q.patternMessage), q.maxLength, q.minLength),
  longText: q => text(() => null, q.maxLength, q.minLength),
  integer: q => number(limits(q), 0, 'Type a whole number, such as 12.'),
  decimal: q =>
    number(limits(q), q.decimals, q.decimals === 0 ? 'Type a whole number.' : 'Type a number, such as 9.5.'),
  money: q => {
    const readers = new Map(currenciesOf(q).map(currency => [currency, amountReader(q, currency)]))
    return (answer, offer) => {
      const given = isRecord(answer) ? (answer.currency ?? q.currency) : q.currency
      const read = typeof given === 'string' ? readers.get(given) : undefined
      if (!read) return wrong(`The amount is asked for in ${currenciesOf(q).join(' or ')}.`)
      const amount = isRecord(answer) ? (answer.amount ?? null) : answer
      return amount === null || amount === '' ? BLANK : read(amount, offer)
    }
  },
  yesNo: () => answer =>
    typeof answer === 'boolean' ? ok(answer, answer) : wrong('Yes or no is expected here.'),
  choice: q => (answer, offer) => readChoice(q, answer, offer),
  choices: q => (answer, offer) => readChoices(q, answer, offer),
  date: q =>
    temporal(
      t => (dayNumber(t) === null ? null : t),
      readableDate,
      'Type a date of the calendar, such as 24 Nov 2026.',
      q,
    ),
  time: q => temporal(timeText, readableTime, 'Type a time, such as 10:30.', q),
  dateTime: q =>
    temporal(dateTimeText, readableDateTime, 'Type a date and a time, such as 24 Nov 2026, 10:30.', q),
  email: () => trimmed(text(emailProblem, LIMITS.text, undefined, 'notAnEmail')),
  phone: () => trimmed(text(phoneProblem, LIMITS.text, undefined, 'notAPhone')),
  url: () => trimmed(text(urlProblem, 2_000, undefined, 'notAUrl')),
  scale: q => {
    const read = number(limits(q), 0, 'Choose a place on the scale.')
    return (answer, offer) =>
      mayNotApply(q) && saysNotApplicable(answer) ? ok(null, answer) : read(answer, offer)
  },
  grid: q => {
    const options = new Set(gridSteps(q).map(o => o.code))
    return answer => {
      if (!isRecord(answer)) return wrong('An answer for each row is expected here.')
      const odd = Object.entries(answer).find(
        ([row, code]) =>
          !q.rows.some(r => r.code === row) ||
          (code !== null && (typeof code !== 'string' || !options.has(code))),
      )
      if (odd) return wrong('This answer is not on the scale.')
      const given = q.rows.flatMap((r): [string, string][] =>
        typeof answer[r.code] === 'string' ? [[r.code, String(answer[r.code])]] : [],
      )
      if (given.length === 0) return BLANK
      const values: Record<string, Value> = Object.fromEntries(q.rows.map(r => [r.code, null]))
      for (const [row, code] of given) values[row] = code
      return ok(values, Object.fromEntries(given))
    }
  },
  ranking: q => {
    const codes = new Set(q.options.map(o => o.code))
    const wanted = Math.min(q.most ?? codes.size, codes.size)
    return answer => {
      if (
        !isList(answer) ||
        answer.some(c => typeof c !== 'string' || !codes.has(c)) ||
        new Set(answer).size !== answer.length
      )
        return wrong('An order of the choices is expected here.')
      if (answer.length === 0) return BLANK
      if (answer.length > wanted) return wrong(`At most ${wanted} can be ranked.`, 'tooMany')
      return answer.length < wanted
        ? { ...wrong(`Rank ${wanted - answer.length} more.`, 'tooFew'), answer }
        : ok(answer.map(String), answer)
    }
  },
  file: q => answer => {
    const files = isList(answer) ? answer : [answer]
    if (files.length === 0) return BLANK
    if (
      !files.every(isFile) ||
      files.some(f => !isFile(f) || !FILE_ID.test(f.file) || f.name === '' || f.name.length > LIMITS.label)
    )
      return wrong('A file is expected here.')
    if (files.length > (q.most ?? 1))
      return wrong(
        `At most ${q.most ?? 1} ${(q.most ?? 1) === 1 ? 'file' : 'files'} can be given.`,
        'tooMany',
      )
    return ok(
      files.map(f => (isFile(f) ? f.name : '')),
      files,
    )
  },
  signature: () => readSignature,
  value: () => () => BLANK,
  hidden: q => HIDDEN[q.holds ?? 'text'],
}

/** A signature: a name that was typed, or a path that was drawn. */
function readSignature(answer: GivenAnswer): AnswerReading {
  if (!isRecord(answer) || Object.keys(answer).length !== 1) return wrong('A signature is expected here.')
  const { typed, drawn } = answer
  if (typeof typed === 'string') {
    if (typed.trim() === '') return BLANK
    return typed.length > LONGEST_NAME ? wrong(`At most ${LONGEST_NAME} characters fit.`) : ok(true, answer)
  }
  return typeof drawn === 'string' && isDrawing(drawn)
    ? ok(true, answer)
    : wrong('A signature is expected here.')
}
const LONGEST_NAME = 200

const HIDDEN: Record<'text' | 'number' | 'yesNo' | 'date', Read> = {
  text: text(() => null, LIMITS.label),
  number: number(() => null, undefined, 'A number is expected here.'),
  yesNo: answer => {
    const value =
      typeof answer === 'string'
        ? { true: true, yes: true, 1: true, false: false, no: false, 0: false }[answer.toLowerCase()]
        : answer
    return typeof value === 'boolean' ? ok(value, value) : wrong('Yes or no is expected here.')
  },
  date: temporal(
    t => (dayNumber(t) === null ? null : t),
    readableDate,
    'A date such as 2026-05-01 is expected here.',
    {},
  ),
}

const isList = (answer: Answer): answer is readonly Answer[] => Array.isArray(answer)

/** An amount with its two digits: `480.00`. */
const cents = (n: Num): string => {
  const [whole = '0', part = ''] = numberText(n).split('.')
  return `${whole}.${part.padEnd(2, '0')}`
}

/**
 * Prepares the reading of a question's answers; blank (null, empty text, empty list) is read here for all types. What is wrong is said in the
 * question's own words, else in those of the form, else in ours.
 */
export function readerOf<T extends QuestionType>(
  question: QuestionOf<T>,
  form: Pick<Form, 'messages' | 'lists'> = {},
): (answer: Answer, offer: Offer) => AnswerReading {
  const read = READERS[question.type](question)
  const own = ownWords(question, form.messages)
  const table = tableOf(question)
  return (answer, offer) => {
    if (answer === null || answer === '') return BLANK
    const first = read(answer, offer)
    const reading = table ? lookUp(form, table, first) : first
    const said = reading.why === null ? undefined : own[reading.why]
    return said === undefined ? reading : { ...reading, wrong: said }
  }
}
