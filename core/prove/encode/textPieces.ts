import { SOMETHING, type Domain } from '../model/domain'
import { outcomeOf, type PieceTest } from '../model/textAutomata'
import { textClasses } from '../model/textClasses'
import { roomsOf } from '../model/textRoom'
import { findText } from '../model/textSearch'
import { constantOf, linearSum } from '../solver/linear'
import type { Literal } from '../solver/literal'
import { ONE, rational, ZERO } from '../solver/rational'
import type { Encoder, Truth } from './encoder'

type Pieces = NonNullable<Domain['pieces']>
interface Held {
  test: PieceTest
  literal: Literal
}

/**
 * Texts of which more is asked than classes can tell: every test is free but for what any two of them rule out, and for the room that the
 * pieces take. So proofs are exact; whether there is a text in which all turn out as chosen is found by searching one.
 */
export class TextPieces {
  private readonly byCode = new Map<string, Held[]>()

  constructor(private readonly encoder: Encoder) {}

  /** The truth of a test of a question’s text; null where its classes tell it, or it is none of those known. */
  truth(code: string, test: PieceTest): Truth | null {
    const { blank, domain } = this.encoder.variable(code)
    if (!domain.pieces) return null
    const held = this.held(code, domain.pieces).find(h => isSame(h.test, test))
    if (!held) return null
    this.encoder.widen()
    return { t: held.literal, f: this.encoder.and([-blank, -held.literal]) }
  }

  /** A text in which all tests turn out as the solver chose; null where none is asked of it, or none was found. */
  chosen(code: string): string | null {
    const { pieces } = this.encoder.variable(code).domain
    const held = this.byCode.get(code)
    if (!pieces || !held) return null
    const { solver } = this.encoder
    const wanted = held.map(({ test, literal }) => ({ test, holds: solver.isTrue(literal) }))
    return findText(wanted, pieces.named, pieces.form)
  }

  private held(code: string, pieces: Pieces): readonly Held[] {
    const known = this.byCode.get(code)
    if (known) return known
    const { solver } = this.encoder
    const held = pieces.tests.map(test => ({ test, literal: solver.newVariable() }))
    this.byCode.set(code, held)
    const { blank, classes } = this.encoder.variable(code)
    for (const { literal } of held) solver.addClause([-blank, -literal])
    for (const { value, literal: chosen } of classes) {
      if (typeof value !== 'string' || value === SOMETHING) continue
      for (const { test, literal } of held) {
        const outcome = outcomeOf(test, value)
        if (outcome !== null) solver.addClause([-chosen, outcome ? literal : -literal])
      }
    }
    held.forEach((a, i) => held.slice(i + 1).forEach(b => this.relate(a, b, blank, pieces)))
    this.limitRoom(held, pieces)
    return held
  }

  /** How two tests can’t turn out together, by the classes of texts for just these. */
  private relate(a: Held, b: Held, blank: Literal, { form }: Pieces) {
    const texts = textClasses([a.test, b.test], [], { ...form, samples: [] })
    if (texts === null) return
    const outcomes = texts.map(t => [outcomeOf(a.test, t), outcomeOf(b.test, t)])
    if (outcomes.flat().includes(null)) return
    const met = new Set(outcomes.map(o => o.join()))
    for (const first of [true, false])
      for (const second of [true, false])
        if (!met.has(`${first},${second}`))
          this.encoder.solver.addClause([
            blank,
            first ? -a.literal : a.literal,
            second ? -b.literal : b.literal,
          ])
  }

  private limitRoom(held: readonly Held[], { form }: Pieces) {
    const { most } = form
    if (most === undefined) return
    const pieces = held.filter(({ test }) => test.kind !== 'matches' && test.kind !== 'is' && !test.through)
    for (const room of roomsOf(pieces.map(h => h.test.piece)))
      if (room.reduce((sum, n) => sum + n, 0) > most) this.limitSum(pieces, room, most)
  }

  private limitSum(held: readonly Held[], room: readonly number[], most: number) {
    const { arithmetic, solver } = this.encoder
    const total = held.reduce(
      (sum, { literal }, i) => {
        const { index, linear } = arithmetic.variable(ONE)
        arithmetic.within(index, { literal, low: ONE, high: ONE, strict: false })
        arithmetic.within(index, { literal: -literal, low: ZERO, high: ZERO, strict: false })
        return linearSum(sum, linear, rational(room[i] ?? 0))
      },
      constantOf(rational(-most)),
    )
    solver.addClause([arithmetic.atMostZero(total)])
  }
}

const isSame = (a: PieceTest, b: PieceTest) =>
  a.kind === b.kind && a.piece === b.piece && JSON.stringify(a.through) === JSON.stringify(b.through)
