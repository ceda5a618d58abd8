import { compareNumbers, type Num } from '../expressions/decimal'
import { print } from '../expressions/print'
import type { Expr, ExprOf } from '../expressions/tree'
import { constantOf, linearSum, linearTimes, type Linear } from './arithmetic'
import type { Encoding, Truth } from './encode'
import { codeAt, ofItem, ofValue, ofVariable, sourceOf, type Entries, type Source } from './entries'
import { HERE } from './rewritten'
import { fromDecimal, rational, ZERO, type Rational } from './rational'
import type { Literal } from './sat'
import type { Term } from './terms'

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

const MINUS = rational(-1)

/**
 * What rules ask of the entries of a repeating group from outside of it: `some`, `every`, counts, sums, least and most. Some entries are told
 * apart, each with answers of its own. Where they are not enough (see `entries.ts`), what further ones hold is anything: what is impossible
 * then stays a proof. An example is looked for among those in which further entries are like the last that is told apart (`alike`), and replayed.
 */
export class Entered {
  private readonly made = new Map<string, EntryLiterals>()
  private readonly asked = new Map<string, { result: unknown, isOpen: boolean }>()
  private readonly alikeLiteral: Literal

  constructor(private readonly encoding: Encoding) {
    this.alikeLiteral = encoding.solver.newVariable()
  }

  /** Brings with it that entries which are not told apart are like the last that is. */
  alike = (): Literal[] => this.made.size > 0 ? [this.alikeLiteral] : []

  /** The groups looked into, with how many entries the model found last has. */
  counts(): Map<string, number> {
    const { solver, arithmetic } = this.encoding
    return new Map([...this.made].flatMap(([code, { blank, index, exists }]): [string, number][] => {
      if (solver.isTrue(blank)) return []
      const found = arithmetic.valueOf(index)
      return [[code, found === null ? exists.filter(l => solver.isTrue(l)).length : Number(found.n / found.d)]]
    }))
  }

  of({ group, copies }: Entries): EntryLiterals {
    const known = this.made.get(group.place.code)
    if (known) return known
    const { arithmetic, and, yes } = this.encoding
    const { blank } = this.encoding.variable(group.place.code)
    const { index, linear: count } = arithmetic.variable(rational(1), rational(group.min))
    arithmetic.within(index, { literal: yes, low: rational(group.min), high: rational(Math.max(group.min, group.max)), strict: false })
    const moreThan = (n: number): Literal => n < group.min ? -blank : and([-blank, -arithmetic.atMostZero(linearSum(count, constantOf(rational(n)), MINUS))])
    const made = { blank, count, index, exists: Array.from({ length: copies }, (_, i) => moreThan(i)), more: group.max > copies ? moreThan(copies) : null }
    this.made.set(group.place.code, made)
    return made
  }

  /** There are entries of which nothing is known; null where those told apart are enough, or all there can be. */
  private unknown = (entries: Entries): Literal | null => entries.enough ? null : this.of(entries).more

  /** By entry that is told apart: it is there, and among those that are asked for. */
  private chosen({ entries, by }: Source): Literal[] {
    return this.of(entries).exists.map((there, i) => by ? this.encoding.and([there, this.encoding.truth(ofItem(by, entries.group, i + 1)).t]) : there)
  }

  /** What a list holds, entry by entry: the entries of a group, or one answer of each. */
  private listed(list: Expr): { source: Source, member: string | null } | null {
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
  quantified = (expr: ExprOf<'quantified'>): Truth | null => this.once('truth', expr, () => this.quantify(expr))

  private quantify({ mode, variable, over, satisfies }: ExprOf<'quantified'>): Truth | null {
    const found = this.listed(over)
    if (!found) return null
    const { source, member } = found
    const { group } = source.entries
    const body = (entry: number): Expr => member === null ? ofVariable(satisfies, variable, group, entry) : ofValue(satisfies, variable, codeAt(member, entry))
    return this.overAll(source, mode === 'some', entry => this.encoding.truth(body(entry)))
  }

  /** `list contains(guests.meal, "fish")`, `any(guests.pays)`, `all(guests.pays)`. */
  call = (expr: ExprOf<'call'>): Truth | null => this.once('truth', expr, () => this.test(expr))

  private test({ name, args: [list, element] }: ExprOf<'call'>): Truth | null {
    const found = list ? this.listed(list) : null
    if (!found || found.member === null) return null
    const { source, member } = found
    const answer = (entry: number): Expr => ({ kind: 'name', name: codeAt(member, entry), ...HERE })
    if (name === 'list contains' && element) return this.overAll(source, true, entry => this.encoding.truth({ kind: 'compare', op: '=', left: answer(entry), right: element, ...HERE }))
    return name === 'any' || name === 'all' ? this.overAll(source, name === 'any', entry => this.encoding.truth(answer(entry))) : null
  }

  /** Whether some of the entries asked for fulfil something, or all of them do. */
  private overAll(source: Source, some: boolean, truth: (entry: number) => Truth): Truth {
    const { and, or, solver } = this.encoding
    const { blank } = this.of(source.entries)
    const more = this.unknown(source.entries)
    const chosen = this.chosen(source)
    // “Every” is “not some not”.
    const truths = chosen.map((_, i) => truth(i + 1)).map(({ t, f }) => some ? { t, f } : { t: f, f: t })
    const holding = truths.map(({ t }, i) => and([chosen[i] ?? blank, t]))
    const failing = truths.map(({ f }, i) => or([-(chosen[i] ?? blank), f]))
    if (more !== null) {
      const rest = this.encoding.anything()
      holding.push(and([more, rest.t]))
      failing.push(or([-more, rest.f]))
      const [lastHolds, lastFails] = [holding[chosen.length - 1] ?? -more, failing[chosen.length - 1] ?? -more]
      for (const [a, b] of [[rest.t, lastHolds], [rest.f, lastFails]] as const) {
        solver.addClause([-this.alikeLiteral, -more, -a, b])
        solver.addClause([-this.alikeLiteral, -more, a, -b])
      }
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
    if (terms.length < chosen.length || unit === undefined || (name === 'sum' && unit !== 'number')) return null
    const { blank } = this.of(source.entries)
    const more = this.unknown(source.entries)
    // One blank answer among them leaves the whole without a value.
    const given = encoding.and([-blank, encoding.or(more === null ? chosen : [...chosen, more]), ...terms.map((t, i) => encoding.or([-(chosen[i] ?? blank), t.given])), ...more === null ? [] : [encoding.or([-more, encoding.anything().t])]])
    if (more !== null) encoding.solver.addClause([-this.alikeLiteral, -more])
    const linear = name === 'sum' ? this.sum(source, member, terms, chosen) : this.extreme(terms, chosen, more, name === 'max')
    return { linear, unit, given }
  }

  private sum(source: Source, member: string, terms: readonly Term[], chosen: readonly Literal[]): Linear {
    const { encoding } = this
    const { arithmetic, solver } = encoding
    const parts = terms.map((t, i) => encoding.terms.among('number', [{ when: chosen[i] ?? 0, linear: t.linear, given: t.given }, { when: -(chosen[i] ?? 0), linear: constantOf(ZERO), given: encoding.yes }]).linear)
    const { count, more, exists } = this.of(source.entries)
    if (more !== null) {
      encoding.widen()
      const rest = this.rest(more, false)
      parts.push(rest)
      solver.addClause([-this.alikeLiteral, -more])
      // Each of the further ones adds at least the least answer, and at most the greatest; one that is left out adds nothing.
      const others = linearSum(count, constantOf(rational(-exists.length)))
      const ranges = encoding.model.domain(member).ranges ?? []
      const [low, high] = [ranges[0]?.low ?? null, ranges[ranges.length - 1]?.high ?? null]
      const limit = (n: Num, less: boolean): Rational => source.by !== null && (less ? compareNumbers(n, 0) > 0 : compareNumbers(n, 0) < 0) ? ZERO : fromDecimal(n)
      if (low !== null) solver.addClause([-more, arithmetic.atMostZero(linearSum(linearTimes(others, limit(low, true)), rest, MINUS))])
      if (high !== null) solver.addClause([-more, arithmetic.atMostZero(linearSum(rest, linearTimes(others, limit(high, false)), MINUS))])
    }
    return parts.reduce((sum, part) => linearSum(sum, part), constantOf(ZERO))
  }

  /** What entries that are not told apart add: nothing while there are none. */
  private rest(more: Literal, whole: boolean): Linear {
    const { arithmetic } = this.encoding
    const { index, linear } = arithmetic.variable(whole ? rational(1) : null)
    arithmetic.within(index, { literal: -more, low: ZERO, high: ZERO, strict: false })
    return linear
  }

  private count(source: Source): Term {
    const { arithmetic, solver } = this.encoding
    const { blank, count, more, exists } = this.of(source.entries)
    if (source.by === null) return { linear: count, unit: 'number', given: -blank }
    const chosen = this.chosen(source)
    const ones = chosen.map((literal) => {
      const { index, linear } = arithmetic.variable(rational(1))
      arithmetic.within(index, { literal, low: rational(1), high: rational(1), strict: false })
      arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
      return linear
    })
    if (more !== null) {
      this.encoding.widen()
      const rest = this.rest(more, true)
      // None to all of the further ones.
      solver.addClause([arithmetic.atMostZero(linearTimes(rest, MINUS))])
      solver.addClause([-more, arithmetic.atMostZero(linearSum(linearSum(rest, count, MINUS), constantOf(rational(exists.length))))])
      solver.addClause([-this.alikeLiteral, -more])
      if (source.entries.enough) {
        // One of those that are counted, and one that is not, can be taken to be told apart.
        solver.addClause([arithmetic.atMostZero(rest), ...chosen])
        solver.addClause([arithmetic.atMostZero(linearSum(linearSum(count, constantOf(rational(-exists.length))), rest, MINUS)), ...exists.map((there, i) => this.encoding.and([there, -(chosen[i] ?? blank)]))])
      }
      ones.push(rest)
    }
    return { linear: ones.reduce((sum, one) => linearSum(sum, one), constantOf(ZERO)), unit: 'number', given: -blank }
  }

  private extreme(terms: readonly Term[], chosen: readonly Literal[], more: Literal | null, most: boolean): Linear {
    const { arithmetic, solver, and } = this.encoding
    const { linear } = arithmetic.variable(terms.every(t => arithmetic.isWhole(t.linear)) ? rational(1) : null)
    const sign = rational(most ? 1 : -1)
    const beyond = (a: Linear, b: Linear) => arithmetic.atMostZero(linearTimes(linearSum(a, b, MINUS), sign))
    const unknown = more === null ? [] : [more]
    terms.forEach((t, i) => solver.addClause([...unknown, -(chosen[i] ?? 0), beyond(t.linear, linear)]))
    solver.addClause([...unknown, and(chosen.map(c => -c)), ...terms.map((t, i) => and([chosen[i] ?? 0, beyond(linear, t.linear)]))])
    return linear
  }
}
