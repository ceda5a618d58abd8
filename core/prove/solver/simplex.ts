import {
  minus,
  negative,
  ONE,
  compareRationals,
  dividedBy,
  plus,
  times,
  ZERO,
  type Rational,
} from './rational'

/**
 * Linear inequalities over the rationals, decided exactly: the general simplex of Dutertre and de Moura, "A Fast
 * Linear-Arithmetic Solver for DPLL(T)", CAV 2006, with Bland's rule. Strict bounds are bounds plus an infinitely small part.
 */

/** A number plus an infinitely small multiple. */
export interface Near {
  r: Rational
  e: Rational
}
/** A bound of a variable, and what it comes from. */
export interface Bound<Reason> {
  at: Near
  reason: Reason
}

const nearOrder = (a: Near, b: Near): number => compareRationals(a.r, b.r) || compareRationals(a.e, b.e)
const nearPlus = (a: Near, b: Near): Near => ({ r: plus(a.r, b.r), e: plus(a.e, b.e) })
const nearMinus = (a: Near, b: Near): Near => ({ r: minus(a.r, b.r), e: minus(a.e, b.e) })
const nearTimes = (a: Near, by: Rational): Near => ({ r: times(a.r, by), e: times(a.e, by) })

const NOTHING: Near = { r: ZERO, e: ZERO }

/** The cheapest first; what has no known cost comes last. */
function byCost(a: Near | null, b: Near | null): number {
  if (a && b) return nearOrder(a, b)
  return a ? -1 : 1
}

/** Pivots after which it is given up. */
const MOST_PIVOTS = 5_000

export class Simplex<Reason> {
  private readonly low: (Bound<Reason> | null)[] = []
  private readonly high: (Bound<Reason> | null)[] = []
  /** Every bound, the tightest among them. */
  private readonly all: Record<'low' | 'high', (Bound<Reason>[] | undefined)[]> = { low: [], high: [] }
  private readonly value: Near[] = []
  /** By basic variable: what it is in terms of the others. */
  private readonly rows = new Map<number, Map<number, Rational>>()

  /** @param always the reason of bounds that hold in any case: the fewer others a contradiction needs, the more it rules out */
  constructor(private readonly always: Reason) {}

  /** A variable. `start`: its value unless bounds say otherwise. */
  variable(start: Rational = ZERO): number {
    this.low.push(null)
    this.high.push(null)
    return this.value.push({ r: start, e: ZERO }) - 1
  }

  /** A variable that is a sum of multiples of variables that were made by `variable`. */
  sum(terms: readonly (readonly [number, Rational])[]): number {
    const made = this.variable()
    this.value[made] = terms.reduce<Near>((total, [v, by]) => nearPlus(total, nearTimes(this.at(v), by)), {
      r: ZERO,
      e: ZERO,
    })
    this.rows.set(made, new Map(terms))
    return made
  }

  /** Bounds a variable from below or above; the reasons of a contradiction, or null. */
  bound(variable: number, side: 'low' | 'high', at: Near, reason: Reason): Reason[] | null {
    const known = this.all[side][variable]
    if (known) known.push({ at, reason })
    else this.all[side][variable] = [{ at, reason }]
    const than = this[side][variable]?.at
    if (than && (side === 'low' ? nearOrder(at, than) <= 0 : nearOrder(at, than) >= 0)) return null
    const opposite = this[side === 'low' ? 'high' : 'low'][variable]
    if (opposite && (side === 'low' ? nearOrder(at, opposite.at) > 0 : nearOrder(at, opposite.at) < 0))
      return [reason, opposite.reason]
    this[side][variable] = { at, reason }
    if (
      !this.rows.has(variable) &&
      (side === 'low' ? nearOrder(this.at(variable), at) < 0 : nearOrder(this.at(variable), at) > 0)
    )
      this.move(variable, at)
    return null
  }

  private at = (variable: number): Near => this.value[variable] ?? { r: ZERO, e: ZERO }

  /** Gives a variable that is not basic another value, and the basic ones theirs. */
  private move(variable: number, to: Near) {
    const by = nearMinus(to, this.at(variable))
    for (const [basic, row] of this.rows) {
      const factor = row.get(variable)
      if (factor) this.value[basic] = nearPlus(this.at(basic), nearTimes(by, factor))
    }
    this.value[variable] = to
  }

  /** Whether all bounds can hold at once: `null` when they can, else the reasons of bounds that can't; 'limit' when given up. */
  check(): Reason[] | 'limit' | null {
    for (let pivots = 0; pivots < MOST_PIVOTS; pivots++) {
      const broken = this.firstBroken()
      if (broken === null) return null
      const { variable, side, bound } = broken
      const row = this.rows.get(variable) ?? new Map<number, Rational>()
      const partner = [...row]
        .filter(([other, factor]) =>
          this.canMove(other, compareRationals(factor, ZERO) > 0 === (side === 'low')),
        )
        .map(([other]) => other)
        .sort((a, b) => a - b)[0]
      if (partner === undefined) return this.explain(variable, row, side, bound)
      this.pivot(variable, partner, bound.at)
    }
    return 'limit'
  }

  private firstBroken(): { variable: number; side: 'low' | 'high'; bound: Bound<Reason> } | null {
    for (const variable of [...this.rows.keys()].sort((a, b) => a - b)) {
      const [low, high] = [this.low[variable], this.high[variable]]
      if (low && nearOrder(this.at(variable), low.at) < 0) return { variable, side: 'low', bound: low }
      if (high && nearOrder(this.at(variable), high.at) > 0) return { variable, side: 'high', bound: high }
    }
    return null
  }

  private canMove(variable: number, upwards: boolean): boolean {
    const limit = upwards ? this.high[variable] : this.low[variable]
    return (
      !limit ||
      (upwards ? nearOrder(this.at(variable), limit.at) < 0 : nearOrder(this.at(variable), limit.at) > 0)
    )
  }

  /**
   * Why a basic variable can't keep its bound: what the others in its row are held by. As long as they miss it all the same, each bound is
   * given up for the loosest that will do: one that holds in any case, or one with a reason that rules out more.
   */
  private explain(
    variable: number,
    row: ReadonlyMap<number, Rational>,
    side: 'low' | 'high',
    bound: Bound<Reason>,
  ): Reason[] {
    const reasons = [bound.reason]
    let gap = side === 'low' ? nearMinus(bound.at, this.at(variable)) : nearMinus(this.at(variable), bound.at)
    const held = [...row].flatMap(([other, factor]) => {
      const way = compareRationals(factor, ZERO) > 0 === (side === 'low') ? 'high' : 'low'
      const looser = this.looserBounds(other, way, factor)
      return looser.length > 0 ? [looser] : []
    })
    for (const looser of held.sort((a, b) => byCost(a[0]?.cost ?? null, b[0]?.cost ?? null))) {
      const chosen = looser.find(({ cost }) => nearOrder(nearMinus(gap, cost), NOTHING) > 0) ?? looser.at(-1)
      if (!chosen) continue
      gap = nearMinus(gap, chosen.cost)
      if (chosen.reason !== this.always) reasons.push(chosen.reason)
    }
    return reasons
  }

  /** The bounds that a variable has on one side, the loosest first, with what each costs beside the tightest in a row. */
  private looserBounds(
    variable: number,
    way: 'low' | 'high',
    factor: Rational,
  ): { reason: Reason; cost: Near }[] {
    const tightest = this[way][variable]
    if (!tightest) return []
    const size = compareRationals(factor, ZERO) > 0 ? factor : negative(factor)
    const costOf = (at: Near) =>
      nearTimes(way === 'high' ? nearMinus(at, tightest.at) : nearMinus(tightest.at, at), size)
    return (this.all[way][variable] ?? [tightest])
      .map(({ at, reason }) => ({ reason, cost: costOf(at) }))
      .sort((a, b) => nearOrder(b.cost, a.cost))
  }

  /** Makes `partner` basic in place of `basic`, which takes the value given. */
  private pivot(basic: number, partner: number, to: Near) {
    const row = this.rows.get(basic)
    const factor = row?.get(partner)
    if (!row || !factor) return
    const by = nearTimes(nearMinus(to, this.at(basic)), dividedBy(ONE, factor))
    this.value[basic] = to
    this.value[partner] = nearPlus(this.at(partner), by)
    for (const [other, otherRow] of this.rows) {
      const share = otherRow.get(partner)
      if (other !== basic && share) this.value[other] = nearPlus(this.at(other), nearTimes(by, share))
    }
    const solved = new Map<number, Rational>([[basic, dividedBy(ONE, factor)]])
    for (const [v, f] of row) if (v !== partner) solved.set(v, negative(dividedBy(f, factor)))
    this.rows.delete(basic)
    for (const [other, otherRow] of this.rows) {
      const share = otherRow.get(partner)
      if (!share) continue
      otherRow.delete(partner)
      for (const [v, f] of solved) {
        const sum = plus(otherRow.get(v) ?? ZERO, times(share, f))
        if (sum.n === 0n) otherRow.delete(v)
        else otherRow.set(v, sum)
      }
      this.rows.set(other, otherRow)
    }
    this.rows.set(partner, solved)
  }

  /** After a `check` without contradiction: a number for every variable, small enough a part taken for the infinitely small one. */
  values(): Rational[] {
    let small = ONE
    this.value.forEach((at, v) => {
      const [low, high] = [this.low[v], this.high[v]]
      for (const [less, more] of [
        [low?.at, at],
        [at, high?.at],
      ] as const) {
        if (!less || !more) continue
        const [gap, slope] = [minus(more.r, less.r), minus(less.e, more.e)]
        if (compareRationals(slope, ZERO) > 0 && compareRationals(gap, ZERO) > 0) {
          const most = dividedBy(gap, slope)
          if (compareRationals(most, small) < 0) small = most
        }
      }
    })
    // Powers of ten keep decimals short.
    let step = ONE
    while (compareRationals(step, small) > 0) step = dividedBy(step, { n: 10n, d: 1n })
    return this.value.map(at => plus(at.r, times(at.e, step)))
  }
}
