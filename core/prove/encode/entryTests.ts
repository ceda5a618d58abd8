import { compareNumbers, type Num } from '../../expressions/decimal'
import { print } from '../../expressions/print'
import type { Expr, ExprOf } from '../../expressions/tree'
import { constantOf, linearSum, linearTimes, type Linear } from '../solver/linear'
import type { Encoding, Truth } from './encoding'
import { codeAt, ofItem, ofValue, ofVariable, sourceOf, type Entries, type Source } from '../model/entries'
import { HERE } from '../model/rewritten'
import {
  floorOf,
  fromDecimal,
  minus,
  over,
  plus,
  rational,
  times,
  toDecimal,
  ZERO,
  type Rational,
} from '../solver/rational'
import type { Literal } from '../solver/literal'
import type { Term } from './terms'

/** A number as a sum of so many that differ by a unit at most; the last takes what is left below a unit. */
function evenly(all: Rational, into: number, unit: Rational): Rational[] {
  const units = floorOf(over(all, unit))
  const each = floorOf(rational(units, BigInt(into)))
  const left = minus(all, times(unit, rational(units)))
  return Array.from({ length: into }, (_, i) => {
    const part = times(unit, rational(each + (BigInt(i) < units - each * BigInt(into) ? 1n : 0n)))
    return i === into - 1 ? plus(part, left) : part
  })
}

/** A repeating group in the solver. */
export interface EntryLiterals {
  /** The group is not in play. */
  blank: Literal
  /** How many entries it has. */
  count: Linear
  index: number
  /** By entry that is told apart: it is there. */
  exists: readonly Literal[]
  /** There are further ones, of which nothing is known; null where there can't be. */
  more: Literal | null
}

/** A number in the solver. */
interface Unknown {
  index: number
  linear: Linear
}

/** A member's numbers in the further entries that are like one that is told apart, all together. */
interface Beyond extends Unknown {
  /** That one is among those that some sum takes. */
  taken: Literal[]
}

/** Digits after the point of numbers that add up to one, where the question sets none. */
const PLACES = 6

const MINUS = rational(-1)

/**
 * What rules ask of the entries of a repeating group from outside of it: `some`, `every`, counts, sums, least and most. Some entries are told
 * apart, each with answers of its own. Where they are not enough (see `entries.ts`), what further ones hold is anything: what is impossible
 * then stays a proof. An example is looked for among those in which each of the further ones is like one that is told apart (`alike`), and replayed.
 */
export class Entered {
  private readonly made = new Map<string, EntryLiterals>()
  private readonly asked = new Map<string, { result: unknown; isOpen: boolean }>()
  private readonly kindsOf = new Map<string, Unknown[]>()
  private readonly beyond = new Map<string, Beyond[]>()
  private readonly alikeLiteral: Literal
  private readonly fewLiteral: Literal

  constructor(private readonly encoding: Encoding) {
    this.alikeLiteral = encoding.solver.newVariable()
    this.fewLiteral = encoding.solver.newVariable()
  }

  /**
   * Brings with it that every entry which is not told apart is like one that is: first without such entries where something is summed or
   * counted, then with them, where their numbers may differ as long as they add up.
   */
  alike(): Literal[][] {
    if (this.made.size === 0) return [[]]
    return [[this.alikeLiteral, this.fewLiteral], ...(this.kindsOf.size > 0 ? [[this.alikeLiteral]] : [])]
  }

  /** The entries beyond those told apart in the model found last: which of these each is like (from 0 on), and what it answers otherwise. */
  further(
    {
      group: {
        place: { code },
      },
      copies,
      members,
    }: Entries,
    count: number,
  ): { like: number; other: ReadonlyMap<string, Num | null> }[] {
    const { solver, arithmetic, model } = this.encoding
    const made = (this.kindsOf.get(code) ?? []).flatMap(({ index }, like) => {
      const alike = Array.from(
        { length: Math.min(count, Number(floorOf(arithmetic.valueOf(index) ?? ZERO))) },
        () => ({ like, other: new Map<string, Num | null>() }),
      )
      for (const member of members) {
        const beyond = this.beyond.get(`${code} ${member}`)?.[like]
        const all = beyond?.taken.some(l => solver.isTrue(l)) ? arithmetic.valueOf(beyond.index) : null
        if (all === null || alike.length === 0) continue
        const parts = evenly(
          all,
          alike.length,
          rational(1, 10n ** BigInt(model.domain(member).places ?? PLACES)),
        )
        alike.forEach((entry, i) => entry.other.set(member, toDecimal(parts[i] ?? ZERO)))
      }
      return alike
    })
    return Array.from(
      { length: Math.max(0, count - copies) },
      (_, i) => made[i] ?? { like: copies - 1, other: new Map() },
    )
  }

  /** The groups looked into, with how many entries the model found last has. */
  counts(): Map<string, number> {
    const { solver, arithmetic } = this.encoding
    return new Map(
      [...this.made].flatMap(([code, { blank, index, exists }]): [string, number][] => {
        if (solver.isTrue(blank)) return []
        const found = arithmetic.valueOf(index)
        return [
          [code, found === null ? exists.filter(l => solver.isTrue(l)).length : Number(found.n / found.d)],
        ]
      }),
    )
  }

  of({ group, copies }: Entries): EntryLiterals {
    const known = this.made.get(group.place.code)
    if (known) return known
    const { arithmetic, and, yes } = this.encoding
    const { blank } = this.encoding.variable(group.place.code)
    const { index, linear: count } = arithmetic.variable(rational(1), rational(group.min))
    arithmetic.within(index, {
      literal: yes,
      low: rational(group.min),
      high: rational(Math.max(group.min, group.max)),
      strict: false,
    })
    const moreThan = (n: number): Literal =>
      n < group.min
        ? -blank
        : and([-blank, -arithmetic.atMostZero(linearSum(count, constantOf(rational(n)), MINUS))])
    const made = {
      blank,
      count,
      index,
      exists: Array.from({ length: copies }, (_, i) => moreThan(i)),
      more: group.max > copies ? moreThan(copies) : null,
    }
    this.made.set(group.place.code, made)
    return made
  }

  /** There are entries of which nothing is known; null where those told apart are enough, or all there can be. */
  private unknown = (entries: Entries): Literal | null => (entries.enough ? null : this.of(entries).more)

  /** By entry that is told apart: it is there, and among those that are asked for. */
  private chosen({ entries, by }: Source): Literal[] {
    return this.of(entries).exists.map((there, i) =>
      by ? this.encoding.and([there, this.encoding.truth(ofItem(by, entries.group, i + 1)).t]) : there,
    )
  }

  /** What a list holds, entry by entry: the entries of a group, or one answer of each. */
  private listed(list: Expr): { source: Source; member: string | null } | null {
    const { copies } = this.encoding.model
    const [of, member] = list.kind === 'path' ? [list.of, list.member] : [list, null]
    const source = sourceOf(of, copies)
    return source && (member === null || source.entries.members.includes(member)) ? { source, member } : null
  }

  /** What is asked in several places is the same everywhere, further entries included. */
  private once<T>(as: string, expr: Expr, make: () => T | null): T | null {
    if (this.encoding.model.copies.of.size === 0) return null
    const key = `${as} ${print(expr)}`
    const known = this.asked.get(key)
    if (known) {
      if (known.isOpen) this.encoding.widen()
      return known.result as T | null
    }
    const { result, isOpen } = this.encoding.watched(make)
    this.asked.set(key, { result, isOpen })
    return result
  }

  /** `some … satisfies`, `every … satisfies`. */
  quantified = (expr: ExprOf<'quantified'>): Truth | null =>
    this.once('truth', expr, () => this.quantify(expr))

  private quantify({ mode, variable, over, satisfies }: ExprOf<'quantified'>): Truth | null {
    const found = this.listed(over)
    if (!found) return null
    const { source, member } = found
    const { group } = source.entries
    const body = (entry: number): Expr =>
      member === null
        ? ofVariable(satisfies, variable, group, entry)
        : ofValue(satisfies, variable, codeAt(member, entry))
    return this.overAll(source, mode === 'some', entry => this.encoding.truth(body(entry)))
  }

  /** `list contains(guests.meal, "fish")`, `any(guests.pays)`, `all(guests.pays)`. */
  call = (expr: ExprOf<'call'>): Truth | null => this.once('truth', expr, () => this.test(expr))

  private test({ name, args: [list, element] }: ExprOf<'call'>): Truth | null {
    const found = list ? this.listed(list) : null
    if (!found || found.member === null) return null
    const { source, member } = found
    const answer = (entry: number): Expr => ({ kind: 'name', name: codeAt(member, entry), ...HERE })
    if (name === 'list contains' && element)
      return this.overAll(source, true, entry =>
        this.encoding.truth({ kind: 'compare', op: '=', left: answer(entry), right: element, ...HERE }),
      )
    return name === 'any' || name === 'all'
      ? this.overAll(source, name === 'any', entry => this.encoding.truth(answer(entry)))
      : null
  }

  /** Whether some of the entries asked for fulfil something, or all of them do. */
  private overAll(source: Source, some: boolean, truth: (entry: number) => Truth): Truth {
    const { and, or, solver } = this.encoding
    const { blank } = this.of(source.entries)
    const more = this.unknown(source.entries)
    const chosen = this.chosen(source)
    // “Every” is “not some not”.
    const truths = chosen.map((_, i) => truth(i + 1)).map(({ t, f }) => (some ? { t, f } : { t: f, f: t }))
    const holding = truths.map(({ t }, i) => and([chosen[i] ?? blank, t]))
    const failing = truths.map(({ f }, i) => or([-(chosen[i] ?? blank), f]))
    if (more !== null) {
      const rest = this.encoding.anything()
      holding.push(and([more, rest.t]))
      failing.push(or([-more, rest.f]))
      solver.addClause([-this.alikeLiteral, -more, -rest.t, ...holding.slice(0, chosen.length)])
      solver.addClause([-this.alikeLiteral, -more, rest.f, ...failing.slice(0, chosen.length).map(l => -l)])
    }
    const [t, f] = [and([-blank, or(holding)]), and([-blank, ...failing])]
    return some ? { t, f } : { t: f, f: t }
  }

  /** `count(guests)`, `sum(guests.age)`, `max(guests[pays = true].age)`; null for anything else. */
  aggregate = (expr: ExprOf<'call'>): Term | null => this.once('number', expr, () => this.work(expr))

  private work({ name, args: [list, ...more] }: ExprOf<'call'>): Term | null {
    return list && more.length === 0 ? this.over(name, list) : null
  }

  private over(name: string, list: Expr): Term | null {
    const found = this.listed(list)
    if (!found) return null
    if (name === 'count') return this.count(found.source)
    const { member, source } = found
    if (member === null || !['sum', 'min', 'max'].includes(name)) return null
    const { encoding } = this
    const chosen = this.chosen(source)
    const terms = chosen.map((_, i) => encoding.terms.question(codeAt(member, i + 1))).flatMap(t => t ?? [])
    const unit = terms[0]?.unit
    if (terms.length < chosen.length || unit === undefined || (name === 'sum' && unit !== 'number'))
      return null
    const { blank } = this.of(source.entries)
    const more = this.unknown(source.entries)
    // One blank answer among them leaves the whole without a value.
    const given = encoding.and([
      -blank,
      encoding.or(more === null ? chosen : [...chosen, more]),
      ...terms.map((t, i) => encoding.or([-(chosen[i] ?? blank), t.given])),
      ...(more === null ? [] : [encoding.or([-more, this.otherwise(encoding.anything().t)])]),
    ])
    const linear =
      name === 'sum'
        ? this.sum(source, member, terms, chosen)
        : this.extreme(terms, chosen, more, name === 'max')
    return { linear, unit, given }
  }

  private sum(source: Source, member: string, terms: readonly Term[], chosen: readonly Literal[]): Linear {
    const { encoding } = this
    const { arithmetic, solver } = encoding
    const parts = terms.map(
      (t, i) =>
        encoding.terms.among('number', [
          { when: chosen[i] ?? 0, linear: t.linear, given: t.given },
          { when: -(chosen[i] ?? 0), linear: constantOf(ZERO), given: encoding.yes },
        ]).linear,
    )
    const { count, more, exists } = this.of(source.entries)
    if (more !== null) {
      encoding.widen()
      const rest = this.rest(more, false).linear
      parts.push(rest)
      // Each of the further ones adds at least the least answer, and at most the greatest; one that is left out adds nothing.
      const others = linearSum(count, constantOf(rational(-exists.length)))
      const ranges = encoding.model.domain(member).ranges ?? []
      const [low, high] = [ranges[0]?.low ?? null, ranges[ranges.length - 1]?.high ?? null]
      const limit = (n: Num, less: boolean): Rational =>
        source.by !== null && (less ? compareNumbers(n, 0) > 0 : compareNumbers(n, 0) < 0)
          ? ZERO
          : fromDecimal(n)
      if (low !== null)
        solver.addClause([
          -more,
          arithmetic.atMostZero(linearSum(linearTimes(others, limit(low, true)), rest, MINUS)),
        ])
      if (high !== null)
        solver.addClause([
          -more,
          arithmetic.atMostZero(linearSum(rest, linearTimes(others, limit(high, false)), MINUS)),
        ])
      const beyond = this.beyondOf(source.entries, member, more)
      if (beyond) this.asChosen(rest, beyond, chosen, more)
      else solver.addClause([-this.alikeLiteral, -more])
      beyond?.forEach((b, i) => b.taken.push(chosen[i] ?? -more))
    }
    return parts.reduce((sum, part) => linearSum(sum, part), constantOf(ZERO))
  }

  /** What entries that are not told apart add: nothing while there are none. */
  private rest(more: Literal, whole: boolean): Unknown {
    const { arithmetic } = this.encoding
    const made = arithmetic.variable(whole ? rational(1) : null)
    arithmetic.within(made.index, { literal: -more, low: ZERO, high: ZERO, strict: false })
    return made
  }

  /** By entry that is told apart: how many of the further ones are like it. */
  private kinds(entries: Entries, more: Literal): Unknown[] {
    const { code } = entries.group.place
    const known = this.kindsOf.get(code)
    if (known) return known
    const { arithmetic, solver } = this.encoding
    const { count, exists } = this.of(entries)
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
  private beyondOf(entries: Entries, member: string, more: Literal): Beyond[] | null {
    const { arithmetic, solver, model } = this.encoding
    const key = `${entries.group.place.code} ${member}`
    const known = this.beyond.get(key)
    if (known) return known
    const { ranges, places } = model.domain(member)
    if (!ranges || model.stepOf(member)?.value !== null) return null
    const unit = rational(1, 10n ** BigInt(places ?? 0))
    const made = this.kinds(entries, more).map((kind, i): Beyond => {
      const all = this.rest(more, places === 0)
      // Alike to every condition, they lie in the same stretch.
      this.encoding.variable(codeAt(member, i + 1)).classes.forEach(({ literal }, at) => {
        const { low = null, high = null, isPoint = true } = ranges[at] ?? {}
        const inside = isPoint || places == null ? ZERO : unit
        if (low !== null)
          solver.addClause([
            -literal,
            arithmetic.atMostZero(
              linearSum(linearTimes(kind.linear, plus(fromDecimal(low), inside)), all.linear, MINUS),
            ),
          ])
        if (high !== null)
          solver.addClause([
            -literal,
            arithmetic.atMostZero(
              linearSum(all.linear, linearTimes(kind.linear, minus(fromDecimal(high), inside)), MINUS),
            ),
          ])
      })
      return { ...all, taken: [] }
    })
    this.beyond.set(key, made)
    return made
  }

  /** Where further entries are like those that are told apart, they add what these stand for as far as they are chosen. Those that are few add nothing. */
  private asChosen(rest: Linear, all: readonly Unknown[], chosen: readonly Literal[], more: Literal) {
    const { encoding } = this
    encoding.solver.addClause([-this.fewLiteral, -more])
    const parts = all.map(
      ({ linear }, i) =>
        encoding.terms.among('number', [
          { when: chosen[i] ?? -more, linear, given: encoding.yes },
          { when: -(chosen[i] ?? -more), linear: constantOf(ZERO), given: encoding.yes },
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
    const { arithmetic, solver } = this.encoding
    for (const by of [rational(1), MINUS])
      solver.addClause([...unless, arithmetic.atMostZero(linearTimes(linearSum(a, b, MINUS), by))])
  }

  /** A literal that holds where further entries are like those that are told apart. */
  private otherwise(literal: Literal): Literal {
    this.encoding.solver.addClause([-this.alikeLiteral, literal])
    return literal
  }

  private count(source: Source): Term {
    const { arithmetic, solver } = this.encoding
    const { blank, count, more, exists } = this.of(source.entries)
    if (source.by === null) return { linear: count, unit: 'number', given: -blank }
    const chosen = this.chosen(source)
    const ones = chosen.map(literal => {
      const { index, linear } = arithmetic.variable(rational(1))
      arithmetic.within(index, { literal, low: rational(1), high: rational(1), strict: false })
      arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
      return linear
    })
    if (more !== null) {
      this.encoding.widen()
      const rest = this.rest(more, true).linear
      // None to all of the further ones.
      solver.addClause([arithmetic.atMostZero(linearTimes(rest, MINUS))])
      solver.addClause([
        -more,
        arithmetic.atMostZero(linearSum(linearSum(rest, count, MINUS), constantOf(rational(exists.length)))),
      ])
      this.asChosen(rest, this.kinds(source.entries, more), chosen, more)
      if (source.entries.enough) {
        // One of those that are counted, and one that is not, can be taken to be told apart.
        solver.addClause([arithmetic.atMostZero(rest), ...chosen])
        solver.addClause([
          arithmetic.atMostZero(
            linearSum(linearSum(count, constantOf(rational(-exists.length))), rest, MINUS),
          ),
          ...exists.map((there, i) => this.encoding.and([there, -(chosen[i] ?? blank)])),
        ])
      }
      ones.push(rest)
    }
    return {
      linear: ones.reduce((sum, one) => linearSum(sum, one), constantOf(ZERO)),
      unit: 'number',
      given: -blank,
    }
  }

  private extreme(
    terms: readonly Term[],
    chosen: readonly Literal[],
    more: Literal | null,
    most: boolean,
  ): Linear {
    const { arithmetic, solver, and } = this.encoding
    const { linear } = arithmetic.variable(
      terms.every(t => arithmetic.isWhole(t.linear)) ? rational(1) : null,
    )
    const sign = rational(most ? 1 : -1)
    const beyond = (a: Linear, b: Linear) => arithmetic.atMostZero(linearTimes(linearSum(a, b, MINUS), sign))
    // Like those that are told apart, further ones are no greater than the greatest.
    const unknown = more === null ? [] : [this.encoding.and([more, -this.alikeLiteral])]
    terms.forEach((t, i) => solver.addClause([...unknown, -(chosen[i] ?? 0), beyond(t.linear, linear)]))
    solver.addClause([
      ...unknown,
      and(chosen.map(c => -c)),
      ...terms.map((t, i) => and([chosen[i] ?? 0, beyond(linear, t.linear)])),
    ])
    return linear
  }
}
