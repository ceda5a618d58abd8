import { toCardinal } from 'n2words/en-GB'
import { isNumber, numberText, rounded, type Num } from '../expressions/decimal'
import type { Value } from '../expressions/types'
import { amountIn } from '../fill/amounts'
import { readableNumber } from '../fill/describeValue'
import type { Question } from '../form/questions'

/** What is told of a number beside its figures, and to how many places after the point; all of them where there is no `places`. */
interface NumberTold {
  amount: Value
  places?: number | undefined
  unit?: string | undefined
  isMoney: boolean
}

/** There are words for numbers of so many digits. */
const MOST_DIGITS = 66

/**
 * A number in words: `one hundred and five t`, `twelve point zero five`. An amount of money tells its hundredths as a fraction and its currency:
 * `twelve thousand five hundred and 50/100 EUR`. What is longer than there are words for stands in figures; blank, and what is no number, is nothing.
 * @param question whose answer it is; null for what is worked out in the quote itself
 */
export function sayInWords(value: Value, question: Question | null): string {
  const { amount, places, unit, isMoney } = numberTold(value, question)
  if (!isNumber(amount)) return ''
  const told = places === undefined ? amount : (rounded(amount, places, 'up') ?? amount)
  const words = isMoney ? moneyInWords(told) : inWords(told)
  return (words ?? readableNumber(told, places)) + (unit === undefined ? '' : `\u00a0${unit}`)
}

/** To how many places after the point a quote tells a number where it has no format of its own; undefined: to all that it has. */
export const placesToldOf = (question: Question | null): number | undefined =>
  numberTold(null, question).places

function numberTold(value: Value, question: Question | null): NumberTold {
  if (question?.type === 'money') {
    const { amount, currency } = amountIn(value, question)
    return { amount, places: 2, unit: currency, isMoney: true }
  }
  if (question?.type === 'value') {
    const { currency, unit, decimals } = question
    const places = decimals ?? (currency === undefined ? undefined : 2)
    return { amount: value, places, unit: currency ?? unit, isMoney: currency !== undefined && places === 2 }
  }
  const hasUnit = question?.type === 'integer' || question?.type === 'decimal'
  return { amount: value, unit: hasUnit ? question.unit : undefined, isMoney: false }
}

/** The whole part and the digits behind the point; null where there are no words for so many. */
function partsOf(amount: Num): { whole: string; digits: string } | null {
  const [whole = '', digits = ''] = numberText(amount).split('.')
  return whole.replace('-', '').length > MOST_DIGITS ? null : { whole, digits }
}

function inWords(amount: Num): string | null {
  const parts = partsOf(amount)
  if (!parts) return null
  const { whole, digits } = parts
  const after = [...digits].map(digit => toCardinal(digit)).join(' ')
  return after === '' ? wholeInWords(whole) : `${wholeInWords(whole)} point ${after}`
}

function moneyInWords(amount: Num): string | null {
  const parts = partsOf(amount)
  return parts && `${wholeInWords(parts.whole)} and ${parts.digits.padEnd(2, '0')}/100`
}

/** `-0` of −0.5 keeps its sign. */
const wholeInWords = (whole: string): string =>
  whole.startsWith('-') ? `minus ${toCardinal(whole.slice(1))}` : toCardinal(whole)
