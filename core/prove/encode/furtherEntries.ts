import type { Num } from '../../expressions/decimal'
import { codeAt } from '../model/entryCodes'
import type { Entries } from '../model/groupQuestions'
import { constantOf, linearSum, linearTimes, type Linear } from '../solver/linear'
import type { Literal } from '../solver/literal'
import {
  floorOf,
  fromDecimal,
  minus,
  dividedBy,
  plus,
  rational,
  times,
  toDecimal,
  ZERO,
  type Rational,
} from '../solver/rational'
import type { Encoder } from './encoder'
import type { GroupEntries } from './groupEntries'

/** A number as a sum of so many that differ by a unit at most; the last takes what is left below a unit. */
function shareEvenly(all: Rational, into: number, unit: Rational): Rational[] {
  const units = floorOf(dividedBy(all, unit))
  const each = floorOf(rational(units, BigInt(into)))
  const left = minus(all, times(unit, rational(units)))
  return Array.from({ length: into }, (_, i) => {
    const part = times(unit, rational(each + (BigInt(i) < units - each * BigInt(into) ? 1n : 0n)))
    return i === into - 1 ? plus(part, left) : part
  })
}

/** A number in the solver. */
export interface Unknown {
  index: number
  linear: Linear
}

/** A member's numbers in the further entries that are like one that is told apart, all together. */
export interface Beyond extends Unknown {
  /** That one is among those that some sum takes. */
  taken: Literal[]
}

/** An entry that is not told apart: the one that it is like (from 0 on), and what it answers otherwise. */
export interface FurtherEntry {
  like: number
  other: ReadonlyMap<string, Num | null>
}

/** Digits after the point of numbers that add up to one, where the question sets none. */
const PLACES = 6

const MINUS = rational(-1)

/** Entries of repeating groups beyond those that are told apart: an example is looked for among those in which each is like one that is. */
export class FurtherEntries {
  private readonly kindsOf = new Map<string, Unknown[]>()
  private readonly beyond = new Map<string, Beyond[]>()
  /** Every further entry is like one that is told apart. */
  readonly alikeLiteral: Literal
  /** There are none where something is summed or counted. */
  private readonly fewLiteral: Literal

  constructor(
    private readonly encoder: Encoder,
    private readonly groups: GroupEntries,
  ) {
    this.alikeLiteral = encoder.solver.newVariable()
    this.fewLiteral = encoder.solver.newVariable()
  }

  /**
   * Brings with it that every entry which is not told apart is like one that is: first without such entries where something is summed or
   * counted, then with them, where their numbers may differ as long as they add up.
   */
  alike(): Literal[][] {
    if (!this.groups.isUsed()) return [[]]
    return [[this.alikeLiteral, this.fewLiteral], ...(this.kindsOf.size > 0 ? [[this.alikeLiteral]] : [])]
  }

  /** The entries beyond those told apart in the model found last: which of these each is like (from 0 on), and what it answers otherwise. */
  further({ group, copies, members }: Entries, count: number): FurtherEntry[] {
    const { code } = group.place
    const made = (this.kindsOf.get(code) ?? []).flatMap(({ index }, like) => {
      const number = Number(floorOf(this.encoder.arithmetic.valueOf(index) ?? ZERO))
      const alike = Array.from({ length: Math.min(count, number) }, () => ({
        like,
        other: new Map<string, Num | null>(),
      }))
      for (const member of members) this.shareOut(code, member, like, alike)
      return alike
    })
    return Array.from(
      { length: Math.max(0, count - copies) },
      (_, i) => made[i] ?? { like: copies - 1, other: new Map() },
    )
  }

  /** Gives the entries that are like one their parts of the number that they have together. */
  private shareOut(
    code: string,
    member: string,
    like: number,
    entries: readonly { other: Map<string, Num | null> }[],
  ) {
    const { solver, arithmetic, model } = this.encoder
    const beyond = this.beyond.get(`${code} ${member}`)?.[like]
    const all = beyond?.taken.some(l => solver.isTrue(l)) ? arithmetic.valueOf(beyond.index) : null
    if (all === null || entries.length === 0) return
    const unit = rational(1, 10n ** BigInt(model.domain(member).places ?? PLACES))
    const parts = shareEvenly(all, entries.length, unit)
    entries.forEach((entry, i) => entry.other.set(member, toDecimal(parts[i] ?? ZERO)))
  }

  /** What entries that are not told apart add: nothing while there are none. */
  rest(more: Literal, whole: boolean): Unknown {
    const { arithmetic } = this.encoder
    const made = arithmetic.variable(whole ? rational(1) : null)
    arithmetic.within(made.index, { literal: -more, low: ZERO, high: ZERO, strict: false })
    return made
  }

  /** By entry that is told apart: how many of the further ones are like it. */
  kinds(entries: Entries, more: Literal): Unknown[] {
    const { code } = entries.group.place
    const known = this.kindsOf.get(code)
    if (known) return known
    const { arithmetic, solver } = this.encoder
    const { count, exists } = this.groups.of(entries)
    const made = exists.map(() => this.rest(more, true))
    this.kindsOf.set(code, made)
    for (const { linear } of made) solver.addClause([arithmetic.atMostZero(linearTimes(linear, MINUS))])
    this.equal(
      made.reduce((sum, k) => linearSum(sum, k.linear), constantOf(rational(exists.length))),
      count,
      [-this.alikeLiteral, -more],
    )
    return made
  }

  /** A member's numbers in the further entries, by the one that they are like; null where a calculation makes them. */
  beyondOf(entries: Entries, member: string, more: Literal): Beyond[] | null {
    const { model } = this.encoder
    const key = `${entries.group.place.code} ${member}`
    const known = this.beyond.get(key)
    if (known) return known
    const { ranges, places } = model.domain(member)
    if (!ranges || model.stepOf(member)?.value !== null) return null
    const unit = rational(1, 10n ** BigInt(places ?? 0))
    const made = this.kinds(entries, more).map((kind, i): Beyond => {
      const all = this.rest(more, places === 0)
      // Alike to every condition, they lie in the same stretch.
      this.encoder.variable(codeAt(member, i + 1)).classes.forEach(({ literal }, at) => {
        const { low = null, high = null, isPoint = true } = ranges[at] ?? {}
        const inside = isPoint || places == null ? ZERO : unit
        const span = { low, high, inside }
        this.withinStretch(literal, kind.linear, all.linear, span)
      })
      return { ...all, taken: [] }
    })
    this.beyond.set(key, made)
    return made
  }

  /** So many numbers of one stretch add up to no less than that many of its lower end, and no more than of its upper. */
  private withinStretch(
    literal: Literal,
    count: Linear,
    all: Linear,
    { low, high, inside }: { low: Num | null; high: Num | null; inside: Rational },
  ) {
    const { arithmetic, solver } = this.encoder
    const atMost = (a: Linear, b: Linear) =>
      solver.addClause([-literal, arithmetic.atMostZero(linearSum(a, b, MINUS))])
    if (low !== null) atMost(linearTimes(count, plus(fromDecimal(low), inside)), all)
    if (high !== null) atMost(all, linearTimes(count, minus(fromDecimal(high), inside)))
  }

  /** Where further entries are like those that are told apart, they add what these stand for as far as they are chosen. Those that are few add nothing. */
  addAsChosen(rest: Linear, all: readonly Unknown[], chosen: readonly Literal[], more: Literal) {
    const { encoder } = this
    encoder.solver.addClause([-this.fewLiteral, -more])
    const parts = all.map(
      ({ linear }, i) =>
        encoder.among('number', [
          { when: chosen[i] ?? -more, linear, given: encoder.yes },
          { when: -(chosen[i] ?? -more), linear: constantOf(ZERO), given: encoder.yes },
        ]).linear,
    )
    this.equal(
      rest,
      parts.reduce((sum, part) => linearSum(sum, part), constantOf(ZERO)),
      [-this.alikeLiteral, -more],
    )
  }

  /** Two numbers are the same, unless one of the literals holds. */
  private equal(a: Linear, b: Linear, unless: readonly Literal[]) {
    const { arithmetic, solver } = this.encoder
    for (const by of [rational(1), MINUS])
      solver.addClause([...unless, arithmetic.atMostZero(linearTimes(linearSum(a, b, MINUS), by))])
  }

  /** A literal that holds where further entries are like those that are told apart. */
  otherwise(literal: Literal): Literal {
    this.encoder.solver.addClause([-this.alikeLiteral, literal])
    return literal
  }
}
