import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numberText } from '../expressions/decimal'
import { sayTwofold, readTypedNumber, type NumberWriting } from './typedNumber'

const said = (typed: string, writing: Partial<NumberWriting> = {}): string => {
  const read = readTypedNumber(typed, { language: 'en', ...writing })
  if (read.is === 'number') return numberText(read.number)
  return read.is === 'twofold' ? read.readings.map(numberText).join(' or ') : 'none'
}
const EURO = { unit: 'EUR', places: 2 }
const AMOUNTS = {
  '1,000': '1000',
  '1.000': '1000',
  '1.000,50': '1000.5',
  '12,345.67': '12345.67',
  '€ 500': '500',
  '500 EUR': '500',
  '500€': '500',
  '1 000,5': '1000.5',
  '−12,50': '-12.5',
  '-€12.50': '-12.5',
  '+3': '3',
  "1'000": '1000',
  '1,000,000': '1000000',
  '0,5': '0.5',
}
const LANGUAGES = ['en', 'de', 'de-CH', 'fr', 'es', 'sv', 'pt-BR', 'pl']

describe('numbers as they are typed', () => {
  it('are amounts with thousands, points, commas, signs and currencies', () => {
    expect(Object.keys(AMOUNTS).map(a => said(a, EURO))).toEqual(Object.values(AMOUNTS))
  })

  it('are refused where they are none', () => {
    const odd = [
      '1,00,0',
      '1.2.3',
      '12,34,5',
      '1,000.00.0',
      'twelve',
      '--5',
      '5-',
      '1,000,00',
      '',
      '.',
      ',5 EUR USD',
    ]
    expect(odd.map(a => said(a, EURO))).toEqual(odd.map(() => 'none'))
  })

  it('are twofold only where three digits may follow the point and the language does not decide', () => {
    expect(said('1,234', { language: 'en' })).toBe('1234 or 1.234')
    expect(said('1.234', { language: 'en' })).toBe('1.234')
    expect(said('1.234', { language: 'de' })).toBe('1234 or 1.234')
    expect(said('1,234', { language: 'de' })).toBe('1.234')
    expect(said('1,234', { language: 'en', places: 2 })).toBe('1234')
    expect(said('1234,567')).toBe('1234.567')
    expect(said('0,123')).toBe('0.123')
    expect(sayTwofold('1,234')).toBe('“1,234” can be read as 1234 or as 1.234: type one of these.')
    expect(sayTwofold('12.5')).toBeNull()
  })
})

describe('numbers of any size', () => {
  it('are read back as languages write them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: 0, max: 2 }),
        fc.constantFrom(...LANGUAGES),
        fc.boolean(),
        (cents, places, language, isAmount) => {
          // Without the zero below zero.
          const n = Math.trunc(cents / 10 ** (2 - places)) / 10 ** places + 0
          const style = isAmount ? { style: 'currency' as const, currency: 'EUR' } : {}
          const format = new Intl.NumberFormat(language, {
            ...style,
            minimumFractionDigits: places,
            maximumFractionDigits: places,
          })
          const read = readTypedNumber(format.format(n), { language, unit: 'EUR', places: 2 })
          expect([format.format(n), read.is === 'number' && Number(read.number)]).toEqual([
            format.format(n),
            n,
          ])
        },
      ),
      { numRuns: 1_000 },
    )
  })

  it('are what they are when they are written plainly', () => {
    fc.assert(
      fc.property(fc.integer(), fc.constantFrom(...LANGUAGES), (n, language) => {
        expect(readTypedNumber(String(n), { language, places: 0 })).toEqual({
          is: 'number',
          number: n,
          isPlain: true,
        })
      }),
    )
  })
})
