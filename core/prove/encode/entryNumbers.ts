import { compareNumbers, type Num } from '../../expressions/decimal'
import type { Expr, ExprOf } from '../../expressions/tree'
import { codeAt } from '../model/entryCodes'
import type { Source } from '../model/entryExpressions'
import { constantOf, linearSum, linearTimes, type Linear } from '../solver/linear'
import type { Literal } from '../solver/literal'
import { fromDecimal, rational, ZERO, type Rational } from '../solver/rational'
import type { Encoder, Term } from './encoder'
import type { EntrySources } from './entrySources'
import type { FurtherEntries } from './furtherEntries'
import type { GroupEntries } from './groupEntries'

const MINUS = rational(-1)

/** Numbers that rules find out about the entries of a repeating group from outside of it: counts, sums, least and most. */
export class EntryNumbers {
  constructor(
    private readonly encoder: Encoder,
    private readonly groups: GroupEntries,
    private readonly further: FurtherEntries,
    private readonly sources: EntrySources,
  ) {}

  /** `count(guests)`, `sum(guests.age)`, `max(guests[pays = true].age)`; null for anything else. */
  aggregate = (expr: ExprOf<'call'>): Term | null => this.sources.once('number', expr, () => this.work(expr))

  private work({ name, args: [list, ...more] }: ExprOf<'call'>): Term | null {
    return list && more.length === 0 ? this.over(name, list) : null
  }

  private over(name: string, list: Expr): Term | null {
    const found = this.sources.listed(list)
    if (!found) return null
    if (name === 'count') return this.count(found.source)
    const { member, source } = found
    if (member === null || !['sum', 'min', 'max'].includes(name)) return null
    const { encoder } = this
    const chosen = this.sources.chosen(source)
    const terms = chosen.map((_, i) => encoder.termOfQuestion(codeAt(member, i + 1))).flatMap(t => t ?? [])
    const unit = terms[0]?.unit
    if (terms.length < chosen.length || unit === undefined || (name === 'sum' && unit !== 'number'))
      return null
    const { blank } = this.groups.of(source.entries)
    const more = this.sources.unknown(source.entries)
    // One blank answer among them leaves the whole without a value.
    const given = encoder.and([
      -blank,
      encoder.or(more === null ? chosen : [...chosen, more]),
      ...terms.map((t, i) => encoder.or([-(chosen[i] ?? blank), t.given])),
      ...(more === null ? [] : [encoder.or([-more, this.further.otherwise(encoder.anything().t)])]),
    ])
    const linear =
      name === 'sum'
        ? this.sum(source, member, terms, chosen)
        : this.extreme(terms, chosen, more, name === 'max')
    return { linear, unit, given }
  }

  private sum(source: Source, member: string, terms: readonly Term[], chosen: readonly Literal[]): Linear {
    const { encoder } = this
    const { solver } = encoder
    const parts = terms.map(
      (t, i) =>
        encoder.among('number', [
          { when: chosen[i] ?? 0, linear: t.linear, given: t.given },
          { when: -(chosen[i] ?? 0), linear: constantOf(ZERO), given: encoder.yes },
        ]).linear,
    )
    const { count, more, exists } = this.groups.of(source.entries)
    if (more !== null) {
      encoder.widen()
      const rest = this.further.rest(more, false).linear
      parts.push(rest)
      this.limitRest(source, member, linearSum(count, constantOf(rational(-exists.length))), rest, more)
      const beyond = this.further.beyondOf(source.entries, member, more)
      if (beyond) this.further.addAsChosen(rest, beyond, chosen, more)
      else solver.addClause([-this.further.alikeLiteral, -more])
      beyond?.forEach((b, i) => b.taken.push(chosen[i] ?? -more))
    }
    return parts.reduce((sum, part) => linearSum(sum, part), constantOf(ZERO))
  }

  /** Each of the further ones adds at least the least answer, and at most the greatest; one that is left out adds nothing. */
  private limitRest(source: Source, member: string, others: Linear, rest: Linear, more: Literal) {
    const { arithmetic, model, solver } = this.encoder
    const ranges = model.domain(member).ranges ?? []
    const [low, high] = [ranges[0]?.low ?? null, ranges[ranges.length - 1]?.high ?? null]
    const limit = (n: Num, sign: 1 | -1): Rational =>
      source.by !== null && compareNumbers(n, 0) * sign > 0 ? ZERO : fromDecimal(n)
    const atMost = (a: Linear, b: Linear) =>
      solver.addClause([-more, arithmetic.atMostZero(linearSum(a, b, MINUS))])
    if (low !== null) atMost(linearTimes(others, limit(low, 1)), rest)
    if (high !== null) atMost(rest, linearTimes(others, limit(high, -1)))
  }

  private count(source: Source): Term {
    const { arithmetic, solver } = this.encoder
    const { blank, count, more, exists } = this.groups.of(source.entries)
    if (source.by === null) return { linear: count, unit: 'number', given: -blank }
    const chosen = this.sources.chosen(source)
    const ones = chosen.map(literal => {
      const { index, linear } = arithmetic.variable(rational(1))
      arithmetic.within(index, { literal, low: rational(1), high: rational(1), strict: false })
      arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
      return linear
    })
    if (more !== null) {
      this.encoder.widen()
      const rest = this.further.rest(more, true).linear
      // None to all of the further ones.
      solver.addClause([arithmetic.atMostZero(linearTimes(rest, MINUS))])
      solver.addClause([
        -more,
        arithmetic.atMostZero(linearSum(linearSum(rest, count, MINUS), constantOf(rational(exists.length)))),
      ])
      this.further.addAsChosen(rest, this.further.kinds(source.entries, more), chosen, more)
      if (source.entries.enough) {
        // One of those that are counted, and one that is not, can be taken to be told apart.
        solver.addClause([arithmetic.atMostZero(rest), ...chosen])
        solver.addClause([
          arithmetic.atMostZero(
            linearSum(linearSum(count, constantOf(rational(-exists.length))), rest, MINUS),
          ),
          ...exists.map((there, i) => this.encoder.and([there, -(chosen[i] ?? blank)])),
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
    const { arithmetic, solver, and } = this.encoder
    const { linear } = arithmetic.variable(
      terms.every(t => arithmetic.isWhole(t.linear)) ? rational(1) : null,
    )
    const sign = rational(most ? 1 : -1)
    const beyond = (a: Linear, b: Linear) => arithmetic.atMostZero(linearTimes(linearSum(a, b, MINUS), sign))
    // Like those that are told apart, further ones are no greater than the greatest.
    const unknown = more === null ? [] : [this.encoder.and([more, -this.further.alikeLiteral])]
    terms.forEach((t, i) => solver.addClause([...unknown, -(chosen[i] ?? 0), beyond(t.linear, linear)]))
    solver.addClause([
      ...unknown,
      and(chosen.map(c => -c)),
      ...terms.map((t, i) => and([chosen[i] ?? 0, beyond(linear, t.linear)])),
    ])
    return linear
  }
}
