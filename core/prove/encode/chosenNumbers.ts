import { compile } from '../../expressions/compile'
import { dayNumber } from '../../expressions/dates'
import { isNumber, numberFromDouble, type Num } from '../../expressions/decimal'
import { namesIn, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { rowCode } from '../model/entryCodes'
import { constantOf, linearSum } from '../solver/linear'
import type { Literal } from '../solver/literal'
import { fromDecimal, ONE, rational, ZERO } from '../solver/rational'
import type { Encoder, Term, TermCase, Unit } from './encoder'
import { constantTerm, termFromUnits } from './term'

/** Numbers that choices bring with them: how many are chosen, and what they carry (points, prices, cells of their rows). */
export class ChosenNumbers {
  private readonly counts = new Map<string, Term>()
  /** The variables that count the choices of which no condition asks, by question. */
  readonly others = new Map<string, number>()

  constructor(private readonly encoder: Encoder) {}

  /** How many are chosen: each class that conditions ask for counts one, the others together as many as there are. */
  count(code: string): Term | null {
    const { model, arithmetic, yes } = this.encoder
    const question = model.stepOf(code)
    if (!question) return null
    const known = this.counts.get(code)
    if (known) return known
    const { blank, classes, domain } = this.encoder.variable(code)
    if (!domain.many || domain.opaque) return null
    // How many of a class are on offer at once is not told by its being on offer.
    if (question.offer?.narrow || question.offer?.rules) this.encoder.widen()
    const total = classes.reduce((sum, { literal }, i) => {
      const most = domain.sizes?.[i] ?? 1
      const { index, linear } = arithmetic.variable(ONE)
      if (most > 1) this.others.set(code, index)
      arithmetic.decidedBy(index, literal)
      arithmetic.within(index, { literal: yes, low: ZERO, high: rational(most), strict: false })
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
    const { model, arithmetic } = this.encoder
    const code = choiceIn(path)
    const question = code === null ? undefined : model.stepOf(code)
    if (code === null || !question) return null
    if (question.place.node.type === 'grid') return path.member === 'points' ? this.sumOfRows(code) : null
    const { blank, classes, domain } = this.encoder.variable(code)
    if (!domain.many || domain.opaque || domain.sizes?.some(s => s > 1)) return null
    const worthOf = this.reader(path, code)
    let total = constantOf(ZERO)
    for (const { value, literal } of classes) {
      const reached = worthOf([value])
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
    const [name, ...others] = namesIn(expr)
    if (name === undefined || others.length > 0 || !this.encoder.model.stepOf(name)?.offer) return null
    const { classes, domain } = this.encoder.variable(name)
    if (!domain.singletons || domain.opaque || domain.many) return null
    const cellOf = this.reader(expr, name)
    const cases: TermCase[] = []
    let unit: Unit | undefined
    for (const { value, literal } of classes) {
      const cell = cellOf(value)
      if (cell === null) continue
      const found = this.cellTerm(cell)
      if (!found || (unit ?? found.unit) !== found.unit) return null
      unit = found.unit
      cases.push({ when: literal, linear: found.linear, given: this.encoder.yes })
    }
    return unit === undefined ? null : this.encoder.among(unit, cases)
  }

  /** What an expression over one question gives for a value of it. */
  private reader(expr: Expr, code: string): (value: Value) => Value {
    const { copies } = this.encoder.model
    const run = compile(expr, copies.environment)
    const slot = copies.environment.slotOf(code) ?? 0
    const values = new Array<Value>(copies.size).fill(null)
    return value => {
      values[slot] = value
      return run(values)
    }
  }

  /** A cell that holds a number or a day. */
  private cellTerm(cell: Value): Term | null {
    const { yes } = this.encoder
    if (isNumber(cell)) return constantTerm(fromDecimal(cell), 'number', yes)
    return termFromUnits(typeof cell === 'string' ? dayNumber(cell) : null, 'day', yes)
  }

  /** `sum(care.points)` of a grid: what the choices of its rows carry, as far as they are answered. */
  private sumOfRows(grid: string): Term | null {
    const { model, or, yes } = this.encoder
    const question = model.stepOf(grid)
    if (question?.place.node.type !== 'grid') return null
    const { rows, options } = question.place.node
    const points = new Map<Value, Num | null>(
      options.map(o => [o.code, o.points === undefined ? null : numberFromDouble(o.points)]),
    )
    const given: Literal[] = []
    let total = constantOf(ZERO)
    for (const row of rows) {
      const { blank, classes, domain } = this.encoder.variable(rowCode(grid, row.code))
      if (domain.opaque || !domain.singletons) return null
      const cases = classes.map(({ value, literal }) => ({ when: literal, worth: points.get(value) ?? null }))
      given.push(...cases.filter(c => c.worth !== null).map(c => c.when))
      total = linearSum(
        total,
        this.encoder.among(
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

/** The choice whose options carry something: of `extras.price`, or of `extras.row.price`. */
function choiceIn({ of }: ExprOf<'path'>): string | null {
  if (of.kind === 'name') return of.name
  return of.kind === 'path' && of.member === 'row' && of.of.kind === 'name' ? of.of.name : null
}
