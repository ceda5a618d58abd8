import { dayNumber, FIRST_DAY, instant, LAST_DAY } from '../../expressions/dates'
import { isNumber } from '../../expressions/decimal'
import type { Value } from '../../expressions/types'
import type { PlannedQuestion } from '../../fill/planned'
import { plainCode } from '../model/entryCodes'
import type { Linear } from '../solver/linear'
import { fromDecimal, rational, ZERO, type Rational } from '../solver/rational'
import type { Stretch } from '../solver/arithmetic'
import type { Literal } from '../solver/literal'
import type { Encoder, Term, Unit, Variable } from './encoder'
import { HALF, type NumberFunctions } from './numberFunctions'

const UNITS: Partial<Record<string, Unit>> = {
  number: 'number',
  date: 'day',
  dateTime: 'second',
  time: 'clock',
}
const LIMITS: Partial<Record<Unit, readonly [number, number]>> = {
  day: [FIRST_DAY, LAST_DAY],
  second: [FIRST_DAY * 86_400, (LAST_DAY + 1) * 86_400 - 1],
  clock: [0, 86_399],
}

/** The answers of questions that hold numbers or times, as variables of the arithmetic. */
export class QuestionTerms {
  private readonly made = new Map<string, Term | null>()
  /** The variables of questions, to read an example from. */
  readonly variables = new Map<string, number>()

  constructor(
    private readonly encoder: Encoder,
    private readonly functions: NumberFunctions,
  ) {}

  /** The answer of a question that holds numbers or times. */
  of(name: string): Term | null {
    const code = plainCode(name)
    const known = this.made.get(code)
    if (known !== undefined) return known
    this.made.set(code, null) // a value that depends on itself is none
    const made = this.make(code)
    this.made.set(code, made)
    return made
  }

  private make(code: string): Term | null {
    const { model } = this.encoder
    const question = model.stepOf(code)
    const unit = UNITS[model.copies.typeOf(code).kind]
    if (!question || unit === undefined) return null
    const variable = this.encoder.variable(code)
    if (question.value !== null) return this.calculated(question, variable)
    if (!variable.domain.ranges || variable.domain.many) return null
    return { linear: this.answered(code, unit, variable), unit, given: -variable.blank }
  }

  private calculated(question: PlannedQuestion, { blank }: Variable): Term | null {
    const inner = question.value?.expr ? this.encoder.term(question.value.expr) : null
    return inner && { ...inner, linear: this.rounded(question.place.node, inner.linear), given: -blank }
  }

  /** A new variable that lies within the limits of its question, and in the range of the class that is chosen. */
  private answered(code: string, unit: Unit, { classes, domain }: Variable): Linear {
    const { arithmetic, yes } = this.encoder
    const { ranges = [] } = domain
    const places = domain.places ?? null
    const grid = places === null ? null : rational(1, 10n ** BigInt(places))
    const { index, linear } = arithmetic.variable(grid, startingAt(domain.classes[0]))
    this.variables.set(code, index)
    const limit = LIMITS[unit]
    if (limit)
      arithmetic.within(index, {
        literal: yes,
        low: rational(limit[0]),
        high: rational(limit[1]),
        strict: false,
      })
    // Left blank it still stands for some number that could be answered: without limits, whole numbers could be sought for without end.
    const [first, last] = [ranges[0], ranges[ranges.length - 1]]
    // Where nothing can be answered (limits that cross) any one number will do.
    if (!first) arithmetic.within(index, { literal: yes, low: ZERO, high: ZERO, strict: false })
    if (first && last)
      arithmetic.within(index, {
        literal: yes,
        low: first.low === null ? null : fromDecimal(first.low),
        high: last.high === null ? null : fromDecimal(last.high),
        strict: false,
      })
    // A read-only one is what its default is, somewhere within the limits.
    if (domain.opaque) {
      this.encoder.widen()
      return linear
    }
    const stretches = classes.flatMap(({ literal }, i): Stretch[] => {
      const range = ranges[i]
      if (!range) return []
      const [low, high] = [range.low, range.high].map(end => (end === null ? null : fromDecimal(end)))
      return [{ literal, low: low ?? null, high: high ?? null, strict: !range.isPoint }]
    })
    for (const stretch of stretches) arithmetic.within(index, stretch)
    this.boundRuns(index, stretches)
    return linear
  }

  /**
   * What several neighbouring classes have in common: a literal for “one of these or above”, and one for “or below”, each with its bound. What
   * sums contradict can be told by them, for many classes at once.
   */
  private boundRuns(index: number, stretches: readonly Stretch[]) {
    const { arithmetic, solver } = this.encoder
    const run = (ordered: readonly Stretch[], bound: (s: Stretch) => Pick<Stretch, 'low' | 'high'>) => {
      let beyond: Literal | null = null
      for (const [i, stretch] of ordered.entries()) {
        // The outermost is its class alone; all together are no news.
        if (beyond === null) {
          beyond = stretch.literal
          continue
        }
        if (i === ordered.length - 1) return
        const literal = solver.newVariable()
        solver.addClause([-literal, stretch.literal, beyond])
        solver.addClause([literal, -stretch.literal])
        solver.addClause([literal, -beyond])
        arithmetic.within(index, { literal, ...bound(stretch), strict: stretch.strict })
        beyond = literal
      }
    }
    run([...stretches].reverse(), ({ low }) => ({ low, high: null }))
    run(stretches, ({ high }) => ({ low: null, high }))
  }

  /** A calculated value is rounded to its places, halves away from zero. */
  private rounded(node: { type: string; decimals?: number; currency?: string }, linear: Linear): Linear {
    const places = node.decimals ?? (node.currency === undefined ? undefined : 2)
    return places === undefined ? linear : this.functions.roundedTo(linear, BigInt(places), HALF)
  }
}

/** The number that is tried first. */
function startingAt(sample: Value | undefined): Rational {
  if (isNumber(sample)) return fromDecimal(sample)
  return typeof sample === 'string' ? rational(instant(sample) ?? dayNumber(sample) ?? 0) : ZERO
}
