import fc from 'fast-check'

/**
 * Random forms with arithmetic over large ranges, each said twice from the start: in the language of forms, and in SMT-LIB 2.6 for a solver that
 * shares nothing with the prover.
 */

/** A number: when it has a value, and the value as a real. */
export interface Numeric {
  feel: string
  given: string
  value: string
}
/** A condition: when it is true, and when false. */
export interface Condition {
  feel: string
  t: string
  f: string
}
export type Kind = 'integer' | 'decimal' | 'date' | 'choices' | 'yesNo' | 'value'
export interface Asked {
  code: string
  kind: Kind
}

export const pick = <T>(...items: T[]) => fc.constantFrom(...items)
function real(n: number): string {
  if (n < 0) return `(- ${real(-n)})`
  return Number.isInteger(n) ? `${n}.0` : `${n}`
}
export const both = (a: Numeric, b: Numeric) => `(and ${a.given} ${b.given})`
export const OPTIONS = ['a', 'b', 'c']
const FIRST_DAY = Date.UTC(2026, 0, 1) / 86_400_000
export const dayText = (n: number) => new Date((FIRST_DAY + n) * 86_400_000).toISOString().slice(0, 10)

export const constant = (n: number): Numeric => ({ feel: `${n}`, given: 'true', value: real(n) })
/** The value of an answer as a real number. */
function valueOf(code: string, kind: Kind): string {
  if (kind === 'value') return `v_${code}`
  return kind === 'decimal' ? `(/ (to_real v_${code}) 100.0)` : `(to_real v_${code})`
}
const answerOf = ({ code, kind }: Asked): Numeric =>
  kind === 'choices'
    ? { feel: `count(${code})`, given: `a_${code}`, value: `(to_real v_${code})` }
    : {
        feel: code,
        given: `a_${code}`,
        value: valueOf(code, kind),
      }

function simple(asked: readonly Asked[]): fc.Arbitrary<Numeric> {
  const numbers = asked.filter(a => !['date', 'yesNo'].includes(a.kind)).map(answerOf)
  const dates = asked.filter(a => a.kind === 'date')
  const days =
    dates.length < 2
      ? []
      : [
          fc.tuple(pick(...dates), pick(...dates)).map(([a, b]): Numeric => ({
            feel: `(${a.code} - ${b.code}).days`,
            given: `(and a_${a.code} a_${b.code})`,
            value: `(to_real (- v_${a.code} v_${b.code}))`,
          })),
        ]
  return fc.oneof(
    fc.integer({ min: -40, max: 400 }).map(constant),
    ...(numbers.length > 0 ? [pick(...numbers), pick(...numbers)] : []),
    ...days,
  )
}

export function numeric(asked: readonly Asked[]): fc.Arbitrary<Numeric> {
  const one = simple(asked)
  const two = fc.tuple(one, one)
  return fc.oneof(
    one,
    fc.tuple(one, pick('+', '-'), one).map(([a, op, b]): Numeric => ({
      feel: `(${a.feel} ${op} ${b.feel})`,
      given: both(a, b),
      value: `(${op} ${a.value} ${b.value})`,
    })),
    fc.tuple(pick(2, 3, 0.5, -1, 1.25), one).map(([n, a]): Numeric => ({
      feel: `(${n} * ${a.feel})`,
      given: a.given,
      value: `(* ${real(n)} ${a.value})`,
    })),
    one.map((a): Numeric => ({
      feel: `abs(${a.feel})`,
      given: a.given,
      value: `(ite (< ${a.value} 0.0) (- ${a.value}) ${a.value})`,
    })),
    fc.tuple(pick('min', 'max'), two).map(([f, [a, b]]): Numeric => ({
      feel: `${f}(${a.feel}, ${b.feel})`,
      given: both(a, b),
      value: `(ite (${f === 'min' ? '<' : '>'} ${a.value} ${b.value}) ${a.value} ${b.value})`,
    })),
    fc.tuple(one, pick(2, 3, 7)).map(([a, k]): Numeric => ({
      feel: `modulo(${a.feel}, ${k})`,
      given: a.given,
      value: `(- ${a.value} (* ${real(k)} (to_real (to_int (/ ${a.value} ${real(k)})))))`,
    })),
    fc.tuple(one, pick(2, 4)).map(([a, k]): Numeric => ({
      feel: `floor(${a.feel} / ${k})`,
      given: a.given,
      value: `(to_real (to_int (/ ${a.value} ${real(k)})))`,
    })),
    fc.tuple(two, two).map(([[a, b], [c, d]]): Numeric => {
      const test = `(and ${both(a, b)} (> ${a.value} ${b.value}))`
      return {
        feel: `(if ${a.feel} > ${b.feel} then ${c.feel} else ${d.feel})`,
        given: `(ite ${test} ${c.given} ${d.given})`,
        value: `(ite ${test} ${c.value} ${d.value})`,
      }
    }),
  )
}

function compared(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  return fc
    .tuple(numeric(asked), pick('=', '!=', '<', '<=', '>', '>='), numeric(asked))
    .map(([a, op, b]): Condition => {
      const feel = `${a.feel} ${op} ${b.feel}`
      // Two blanks are equal, a blank and a value are not; any other comparison with a blank is unknown.
      const same = `(or (and ${both(a, b)} (= ${a.value} ${b.value})) (not (or ${a.given} ${b.given})))`
      if (op === '=') return { feel, t: same, f: `(not ${same})` }
      if (op === '!=') return { feel, t: `(not ${same})`, f: same }
      const holds = `(${op} ${a.value} ${b.value})`
      return { feel, t: `(and ${both(a, b)} ${holds})`, f: `(and ${both(a, b)} (not ${holds}))` }
    })
}

function leaf(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  const yesNo = asked
    .filter(a => a.kind === 'yesNo')
    .map(({ code }): Condition => ({
      feel: `${code}`,
      t: `(and a_${code} b_${code})`,
      f: `(and a_${code} (not b_${code}))`,
    }))
  const blank = asked.map(({ code }): Condition => ({
    feel: `${code} = null`,
    t: `(not a_${code})`,
    f: `a_${code}`,
  }))
  return fc.oneof(
    { arbitrary: compared(asked), weight: 4 },
    ...(yesNo.length > 0 ? [{ arbitrary: pick(...yesNo), weight: 1 }] : []),
    ...(blank.length > 0 ? [{ arbitrary: pick(...blank), weight: 1 }] : []),
  )
}

export function condition(asked: readonly Asked[]): fc.Arbitrary<Condition> {
  const one = leaf(asked)
  return fc.oneof(
    one,
    one.map((c): Condition => ({ feel: `not(${c.feel})`, t: c.f, f: c.t })),
    fc.tuple(one, pick('and' as const, 'or' as const), one).map(([a, word, b]): Condition => {
      const other = word === 'and' ? 'or' : 'and'
      return {
        feel: `(${a.feel}) ${word} (${b.feel})`,
        t: `(${word} ${a.t} ${b.t})`,
        f: `(${other} ${a.f} ${b.f})`,
      }
    }),
  )
}
export const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })
