import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  dateFromText,
  dateTimeFromText,
  dayNumber,
  FIRST_DAY,
  isoFromDay,
  LAST_DAY,
  monthsBetween,
  moveDate,
  partOf,
  readableDate,
  readableDateTime,
} from './dates'
import {
  absolute,
  add,
  compareNumbers,
  divide,
  floor,
  modulo,
  multiply,
  numberFromDouble,
  numberFromText,
  numberText,
  rounded,
  subtract,
  type Num,
} from './decimal'

/** A decimal as its digits and the places after the point: what it is, exactly. */
interface Digits {
  digits: bigint
  places: number
}
const digits: fc.Arbitrary<Digits> = fc.record({
  digits: fc.bigInt({ min: -(10n ** 14n), max: 10n ** 14n }),
  places: fc.nat(6),
})
const textOf = ({ digits: d, places }: Digits): string => {
  const plain = (d < 0n ? -d : d).toString().padStart(places + 1, '0')
  return `${d < 0n ? '-' : ''}${plain.slice(0, plain.length - places)}${places > 0 ? `.${plain.slice(plain.length - places)}` : ''}`
}
const num = (d: Digits): Num => {
  const n = numberFromText(textOf(d))
  if (n === null) throw new Error(`${textOf(d)} is no number.`)
  return n
}
const at = (d: Digits, places: number): bigint => d.digits * 10n ** BigInt(places - d.places)
const isExactly = (n: Num | null, d: Digits) => n !== null && compareNumbers(n, num(d)) === 0

describe('a number and its text', () => {
  it('are the same number, whether they come as a number or as its text', () => {
    const whole = fc.maxSafeInteger()
    const broken = fc.integer({ min: -(10 ** 9), max: 10 ** 9 }).map(n => n / 10_000)
    fc.assert(
      fc.property(fc.oneof(whole, broken), n => {
        expect(numberFromDouble(n)).toEqual(numberFromText(String(n)))
      }),
      { numRuns: 2_000, examples: [[1745777835738472], [-1745777835738472], [1e15], [999999999999999]] },
    )
  })
})

describe('decimals', () => {
  it('add, subtract, multiply and compare exactly', () => {
    fc.assert(
      fc.property(digits, digits, (a, b) => {
        const places = Math.max(a.places, b.places)
        expect(isExactly(add(num(a), num(b)), { digits: at(a, places) + at(b, places), places })).toBe(true)
        expect(isExactly(subtract(num(a), num(b)), { digits: at(a, places) - at(b, places), places })).toBe(
          true,
        )
        expect(
          isExactly(multiply(num(a), num(b)), { digits: a.digits * b.digits, places: a.places + b.places }),
        ).toBe(true)
        expect(Math.sign(compareNumbers(num(a), num(b)))).toBe(
          Number(at(a, places) > at(b, places)) - Number(at(a, places) < at(b, places)),
        )
      }),
      { numRuns: 2_000 },
    )
  })

  it('divide back to what was multiplied; the remainder is below the divisor and of its sign', () => {
    fc.assert(
      fc.property(
        digits,
        digits.filter(d => d.digits !== 0n && d.digits < 10n ** 6n && d.digits > -(10n ** 6n)),
        (a, b) => {
          const product = multiply(num(a), num(b))
          expect(isExactly(product && divide(product, num(b)), a)).toBe(true)
          const rest = modulo(num(a), num(b))
          if (rest === null) throw new Error('There is no remainder.')
          expect(compareNumbers(absolute(rest) ?? 0, absolute(num(b)) ?? 0)).toBeLessThan(0)
          expect(compareNumbers(rest, 0) === 0 || compareNumbers(rest, 0) > 0 === b.digits > 0n).toBe(true)
        },
      ),
      { numRuns: 1_000 },
    )
    expect([divide(1, 0), modulo(1, 0)]).toEqual([null, null])
  })

  it('round halves as they are told, and read back as they are written', () => {
    fc.assert(
      fc.property(digits, fc.nat(3), (d, places) => {
        const up = rounded(num(d), places, 'up')
        const unit = 10n ** BigInt(Math.max(0, d.places - places))
        const [whole, rest] = [d.digits / unit, (d.digits % unit) * 2n]
        const half = rest < 0n ? -rest : rest
        const away = half >= unit && unit > 1n ? whole + (d.digits < 0n ? -1n : 1n) : whole
        expect(isExactly(up, { digits: away, places: Math.min(d.places, places) })).toBe(true)
        expect(isExactly(numberFromText(numberText(num(d))), d)).toBe(true)
        const below = floor(num(d))
        if (below === null) throw new Error('There is no whole number below.')
        expect([compareNumbers(below, num(d)) <= 0, compareNumbers(add(below, 1) ?? 0, num(d)) > 0]).toEqual([
          true,
          true,
        ])
      }),
      { numRuns: 1_000 },
    )
  })
})

describe('days of the calendar', () => {
  const day = fc.integer({ min: dayNumber('1600-01-01') ?? 0, max: dayNumber('2400-12-31') ?? 0 })

  it('count as the calendar does', () => {
    fc.assert(
      fc.property(day, n => {
        const iso = isoFromDay(n)
        const date = new Date(`${iso}T00:00:00Z`)
        expect([date.toISOString().slice(0, 10), dayNumber(iso), date.getTime() / 86_400_000]).toEqual([
          iso,
          n,
          n - (dayNumber('1970-01-01') ?? 0),
        ])
        const clock = `${iso}T${String(n & 15).padStart(2, '0')}:05:${n % 2 === 0 ? '00' : '07'}`
        expect([dateFromText(readableDate(iso)), dateFromText(iso)]).toEqual([iso, iso])
        expect([dateTimeFromText(readableDateTime(clock)), dateTimeFromText(clock)]).toEqual([clock, clock])
        expect([
          partOf(iso, 'year'),
          partOf(iso, 'month'),
          partOf(iso, 'day'),
          partOf(iso, 'weekday'),
        ]).toEqual([date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate(), date.getUTCDay() || 7])
      }),
      { numRuns: 1_000 },
    )
    for (const text of ['03/04/2026', '3.4.2026', '31 Feb 2026', 'Nov 2026', '27 Nov', ''])
      expect(dateFromText(text)).toBeNull()
    for (const text of ['2026-02-29', '2026-13-01', '2026-04-31', '26-01-01', 'today'])
      expect(dayNumber(text)).toBeNull()
    expect([dayNumber(isoFromDay(FIRST_DAY)), dayNumber(isoFromDay(LAST_DAY))]).toEqual([FIRST_DAY, LAST_DAY])
  })

  it('moved by months keep their day where there is one, and the months between are those moved', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: -600, max: 600 }), (n, months) => {
        const from = isoFromDay(n)
        const to = moveDate(from, { unit: 'months', amount: months })
        if (to === null) throw new Error('It can’t be moved.')
        const [start, end] = [new Date(`${from}T00:00:00Z`), new Date(`${to}T00:00:00Z`)]
        expect(
          (end.getUTCFullYear() - start.getUTCFullYear()) * 12 + end.getUTCMonth() - start.getUTCMonth(),
        ).toBe(months)
        const lastOfMonth = new Date(Date.UTC(end.getUTCFullYear(), end.getUTCMonth() + 1, 0)).getUTCDate()
        expect(end.getUTCDate()).toBe(Math.min(start.getUTCDate(), lastOfMonth))
        // The last of a shorter month is not quite a month later.
        if (end.getUTCDate() === start.getUTCDate())
          expect(monthsBetween(from, to)).toEqual({ unit: 'months', amount: months })
        expect(monthsBetween(to, to)).toEqual({ unit: 'months', amount: 0 })
      }),
      { numRuns: 1_000 },
    )
  })
})
