import type { CompareOp, Expr } from '../../expressions/tree'
import { linearSum, linearTimes } from '../solver/linear'
import { rational } from '../solver/rational'
import { Ages } from './ages'
import type { Encoder, Term, Truth } from './encoder'
import { equalTruth, orderedTruth } from './term'

/** Comparisons of numbers and times. */
export class Comparisons {
  private readonly ages: Ages

  constructor(private readonly encoder: Encoder) {
    this.ages = new Ages(encoder)
  }

  /** A comparison as a truth; null where a side is neither linear nor an age. */
  of(op: CompareOp, left: Expr, right: Expr): Truth | null {
    return this.linear(op, left, right) ?? this.ages.compare(op, left, right)
  }

  /** Two lengths of time between dates against each other. */
  ofLengths: Ages['compareLengths'] = (op, left, right) => this.ages.compareLengths(op, left, right)

  private linear(op: CompareOp, left: Expr, right: Expr): Truth | null {
    const [a, b] = [this.encoder.term(left), this.encoder.term(right)]
    return a && b && a.unit === b.unit ? this.ofTerms(op, a, b) : null
  }

  private ofTerms(op: CompareOp, a: Term, b: Term): Truth {
    const { encoder } = this
    const gap = linearSum(a.linear, b.linear, rational(-1))
    const back = linearTimes(gap, rational(-1))
    const atMost = () => encoder.arithmetic.atMostZero(gap)
    const atLeast = () => encoder.arithmetic.atMostZero(back)
    switch (op) {
      case '<=':
        return orderedTruth(encoder, a.given, b.given, atMost())
      case '>=':
        return orderedTruth(encoder, a.given, b.given, atLeast())
      case '>':
        return orderedTruth(encoder, a.given, b.given, -atMost())
      case '<':
        return orderedTruth(encoder, a.given, b.given, -atLeast())
      default:
        return equalTruth(encoder, op, a.given, b.given, encoder.and([atMost(), atLeast()]))
    }
  }
}
