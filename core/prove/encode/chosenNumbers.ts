import { compile } from '../../expressions/compile'
import { dayNumber } from '../../expressions/dates'
import { isNumber, numberFromDouble, type Num } from '../../expressions/decimal'
import { namesIn, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { constantOf, linearSum, type Linear } from '../solver/linear'
import type { Encoding } from './encoding'
import { rowCode } from '../model/entries'
import { fromDecimal, ONE, rational, ZERO } from '../solver/rational'
import type { Literal } from '../solver/literal'
import { constant, fromUnits, type Term, type Terms, type Unit } from './terms'

/** Numbers that choices bring with them: how many are chosen, and what they carry (points, prices, cells of their rows). */
export class Carried {
  private readonly counts = new Map<string, Term>()
  /** The variables that count the choices of which no condition asks, by question. */
  readonly others = new Map<string, number>()

  constructor(
    private readonly encoding: Encoding,
    private readonly terms: Terms,
  ) {}

  /** How many are chosen: each class that conditions ask for counts one, the others together as many as there are. */
  count(code: string): Term | null {
    const { model, arithmetic } = this.encoding
    const question = model.stepOf(code)
    if (!question) return null
    const known = this.counts.get(code)
    if (known) return known
    const { blank, classes, domain } = this.encoding.variable(code)
    if (!domain.many || domain.opaque) return null
    // How many of a class are on offer at once is not told by its being on offer.
    if (question.offer?.narrow || question.offer?.rules) this.encoding.widen()
    const total = classes.reduce((sum, { literal }, i) => {
      const most = domain.sizes?.[i] ?? 1
      const { index, linear } = arithmetic.variable(ONE)
      if (most > 1) this.others.set(code, index)
      arithmetic.within(index, { literal, low: ONE, high: rational(most), strict: false })
      arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
      return linearSum(sum, linear)
    }, constantOf(ZERO))
    const term: Term = { linear: total, unit: 'number', given: -blank }
    this.counts.set(code, term)
    return term
  }

  /** `sum(extras.price)`: what the chosen options carry, each counted while it is chosen. */
  sum(path: ExprOf<'path'>): Term | null {
    const { model, arithmetic } = this.encoding
    const code =
      path.of.kind === 'name'
        ? path.of.name
        : path.of.kind === 'path' && path.of.member === 'row' && path.of.of.kind === 'name'
          ? path.of.of.name
          : null
    const question = code === null ? undefined : model.stepOf(code)
    if (code === null || !question) return null
    if (question.place.node.type === 'grid') return path.member === 'points' ? this.sumOfRows(code) : null
    const { blank, classes, domain } = this.encoding.variable(code)
    if (!domain.many || domain.opaque || domain.sizes?.some(s => s > 1)) return null
    const run = compile(path, model.copies.environment)
    const values = new Array<Value>(model.copies.size).fill(null)
    let total = constantOf(ZERO)
    for (const { value, literal } of classes) {
      values[model.copies.environment.slotOf(code) ?? 0] = [value]
      const reached = run(values)
      const worth = Array.isArray(reached) ? (reached[0] ?? null) : reached
      // An option that carries nothing is left out of the list; when none is left the sum has no value.
      if (!isNumber(worth)) return null
      const { index, linear } = arithmetic.variable(ONE)
      arithmetic.within(index, { literal, low: ONE, high: ONE, strict: false })
      arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
      total = linearSum(total, linear, fromDecimal(worth))
    }
    return { linear: total, unit: 'number', given: -blank }
  }

  /** `harbour.row.depth`, `berth.price`: a number for each choice. */
  reached(expr: Expr): Term | null {
    const { model } = this.encoding
    const [name, ...others] = namesIn(expr)
    const question = name === undefined || others.length > 0 ? undefined : model.stepOf(name)
    if (name === undefined || !question?.offer) return null
    const { classes, domain } = this.encoding.variable(name)
    if (!domain.singletons || domain.opaque || domain.many) return null
    const run = compile(expr, model.copies.environment)
    const values = new Array<Value>(model.copies.size).fill(null)
    const cases: { when: Literal; linear: Linear; given: Literal }[] = []
    let unit: Unit | undefined
    for (const { value, literal } of classes) {
      values[model.copies.environment.slotOf(name) ?? 0] = value
      const cell = run(values)
      if (cell === null) continue
      const day = typeof cell === 'string' ? dayNumber(cell) : null
      const found = isNumber(cell)
        ? constant(fromDecimal(cell), 'number', this.encoding.yes)
        : fromUnits(day, 'day', this.encoding.yes)
      if (!found || (unit ?? found.unit) !== found.unit) return null
      unit = found.unit
      cases.push({ when: literal, linear: found.linear, given: this.encoding.yes })
    }
    return unit === undefined ? null : this.terms.among(unit, cases)
  }

  /** `sum(care.points)` of a grid: what the choices of its rows carry, as far as they are answered. */
  private sumOfRows(grid: string): Term | null {
    const { model, or, yes } = this.encoding
    const question = model.stepOf(grid)
    if (question?.place.node.type !== 'grid') return null
    const { rows, options } = question.place.node
    const points = new Map<Value, Num | null>(
      options.map(o => [o.code, o.points === undefined ? null : numberFromDouble(o.points)]),
    )
    const given: Literal[] = []
    let total = constantOf(ZERO)
    for (const row of rows) {
      const { blank, classes, domain } = this.encoding.variable(rowCode(grid, row.code))
      if (domain.opaque || !domain.singletons) return null
      const cases = classes.map(({ value, literal }) => ({ when: literal, worth: points.get(value) ?? null }))
      given.push(...cases.filter(c => c.worth !== null).map(c => c.when))
      total = linearSum(
        total,
        this.terms.among(
          'number',
          [...cases, { when: blank, worth: null }].map(({ when, worth }) => ({
            when,
            linear: constantOf(worth === null ? ZERO : fromDecimal(worth)),
            given: yes,
          })),
        ).linear,
      )
    }
    return { linear: total, unit: 'number', given: or(given) }
  }
}
