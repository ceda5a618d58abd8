import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numberFromText, numberText, type Num } from '../expressions/decimal'
import type { Question } from '../form/questions'
import { sayInWords } from './inWords'

const SMALL = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'].concat([
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
  'seventeen',
  'eighteen',
  'nineteen',
])
const TENS = ['twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety']
const LARGE = ['thousand', 'million', 'billion', 'trillion', 'quadrillion']

/** A whole number read out of its words again. */
function wholeOf(words: string): bigint {
  let [total, group] = [0n, 0n]
  for (const word of words.split(/[ -]/).filter(w => w !== 'and')) {
    const large = LARGE.indexOf(word)
    if (SMALL.includes(word)) group += BigInt(SMALL.indexOf(word))
    else if (TENS.includes(word)) group += BigInt(20 + 10 * TENS.indexOf(word))
    else if (word === 'hundred') group *= 100n
    else if (large >= 0) [total, group] = [total + group * 1000n ** BigInt(large + 1), 0n]
    else throw new Error(`No number is called “${word}”.`)
  }
  return total + group
}

/** A number read out of its words again. */
function numberOf(words: string): string {
  const [, minus, rest = ''] = /^(minus )?(.*)$/.exec(words) ?? []
  const [whole = '', after = ''] = rest.split(' point ')
  const digits =
    after === ''
      ? ''
      : `.${after
          .split(' ')
          .map(word => SMALL.indexOf(word))
          .join('')}`
  return `${minus ? '-' : ''}${wholeOf(whole)}${digits}`
}

const money: Question = { kind: 'question', type: 'money', code: 'price', label: 'Price', currency: 'EUR' }
const number = (text: string): Num => {
  const read = numberFromText(text)
  if (read === null) throw new Error(`“${text}” is no number.`)
  return read
}

describe('a number in words', () => {
  it('is the number, read out of them again', () => {
    const digits = fc.bigInt({ min: 0n, max: 10n ** 18n - 1n })
    fc.assert(
      fc.property(
        digits,
        fc.nat({ max: 9_999 }),
        fc.integer({ min: 0, max: 4 }),
        fc.boolean(),
        (n, part, places, isBelow) => {
          const after = places === 0 ? '' : `.${String(part % 10 ** places).padStart(places, '0')}`
          const value = number(`${isBelow ? '-' : ''}${n}${after}`)
          expect(number(numberOf(sayInWords(value, null)))).toEqual(value)
        },
      ),
    )
  })

  it('tells amounts with their hundredths and their currency, rounded as in figures', () => {
    expect(sayInWords(number('12500.5'), money)).toBe('twelve thousand five hundred and 50/100\u00a0EUR')
    expect(sayInWords(number('-0.005'), money)).toBe('minus zero and 01/100\u00a0EUR')
    expect(sayInWords(null, money)).toBe('')
  })

  it('stands in figures where there are no words for so much', () => {
    const huge = number(`1${'0'.repeat(33)}`)
    expect(sayInWords(huge, null)).toBe('one decillion')
    expect(numberText(huge)).toHaveLength(34)
  })
})
