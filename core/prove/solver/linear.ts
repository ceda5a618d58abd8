import { ONE, plus, times, ZERO, type Rational } from './rational'

/** A sum of multiples of variables, and a constant. */
export interface Linear {
  terms: ReadonlyMap<number, Rational>
  constant: Rational
}

export const constantOf = (constant: Rational): Linear => ({ terms: new Map(), constant })
export function linearSum(a: Linear, b: Linear, by: Rational = ONE): Linear {
  const terms = new Map(a.terms)
  for (const [v, f] of b.terms) {
    const sum = plus(terms.get(v) ?? ZERO, times(f, by))
    if (sum.n === 0n) terms.delete(v)
    else terms.set(v, sum)
  }
  return { terms, constant: plus(a.constant, times(b.constant, by)) }
}
export const linearTimes = (a: Linear, by: Rational): Linear => linearSum(constantOf(ZERO), a, by)
