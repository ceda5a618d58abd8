import { DONE } from '../../form/turns'
import type { Place } from '../../form/walk'
import type { Encoding } from '../encode/encoding'
import type { Model } from '../model/model'
import { isReturnedTo, seeing, type HandOffTarget, type PlannedTurn } from '../model/turnPlan'
import type { Literal } from '../solver/literal'
import type { Standing } from './standing'
import type { RuleLiterals } from './ruleLiterals'

/**
 * Which turns a response has gone through, as literals of a state space: a turn is taken where the hand-offs of those before lead to it. A
 * state belongs to one turn, or to the end of all; what no turn up to it fills is blank.
 */
export class TurnLiterals {
  private readonly turns: readonly PlannedTurn[]
  /** By turn, and last for the end of all: the literal “the state belongs to it”. */
  readonly at: readonly Literal[]
  private readonly takenAt: Literal[] = []
  private readonly leads: Map<HandOffTarget, Literal>[] = []
  private readonly filledBy = new Map<string, Literal>()

  constructor(
    model: Model,
    private readonly encoding: Encoding,
    private readonly rules: RuleLiterals,
  ) {
    this.turns = model.turns
    this.at = this.turns.length === 0 ? [] : this.positions()
  }

  private positions(): Literal[] {
    const { solver } = this.encoding
    const at = [...this.turns, null].map(() => solver.newVariable())
    solver.addClause(at)
    at.forEach((a, i) => at.slice(i + 1).forEach(b => solver.addClause([-a, -b])))
    at.forEach((literal, i) => {
      if (i < this.turns.length) solver.addClause([-literal, this.taken(i)])
    })
    // At the end no turn hands back.
    const end = at.at(-1) ?? -this.encoding.yes
    for (const { index } of this.turns)
      for (const [to, literal] of this.leadsFrom(index))
        if (to !== DONE && to <= index) solver.addClause([-end, -this.taken(index), -literal])
    return at
  }

  /** The literal “the hand-offs lead to this turn”. */
  taken(index: number): Literal {
    const { and, or, yes } = this.encoding
    return (this.takenAt[index] ??=
      index === 0
        ? yes
        : or(
            this.turns
              .slice(0, index)
              .map(t => and([this.taken(t.index), this.leadsFrom(t.index).get(index) ?? -yes])),
          ))
  }

  /** By target: the literal “this turn is handed off there”. */
  leadsFrom(index: number): ReadonlyMap<HandOffTarget, Literal> {
    const known = this.leads[index]
    if (known) return known
    const { and, or, yes } = this.encoding
    const byTarget = new Map<HandOffTarget, Literal>()
    const notBefore: Literal[] = []
    for (const { rule, to, isUnsure } of this.turns[index]?.handOffs ?? []) {
      const certain = rule ? this.rules.rule(rule, rule.place, 'handOff', rule.index) : yes
      const holds = isUnsure ? this.encoding.anything().t : certain
      const taken = and([...notBefore, holds])
      byTarget.set(to, or([byTarget.get(to) ?? -yes, taken]))
      notBefore.push(-holds)
    }
    this.leads[index] = byTarget
    return byTarget
  }

  /** The literal “some turn up to where the state is fills this”. */
  filled(place: Place): Literal {
    const { yes, or, and } = this.encoding
    if (this.turns.length === 0) return yes
    const filling = this.turns.filter(t => t.fills(place)).map(t => t.index)
    const key = filling.join()
    const known = this.filledBy.get(key)
    if (known !== undefined) return known
    const literal = or(
      this.at.map((at, upTo) => and([at, or(filling.map(index => this.filledUpTo(index, upTo)))])),
    )
    this.filledBy.set(key, literal)
    return literal
  }

  private filledUpTo(index: number, upTo: number): Literal {
    if (index <= upTo) return this.taken(index)
    if (!isReturnedTo(this.turns, upTo)) return -this.encoding.yes
    // Given back, a turn may find answers of those after it.
    this.encoding.widen()
    return this.encoding.solver.newVariable()
  }

  /** The literal “the state is one that a goal is about”: of a turn that sees its section, of the one that it names, or of the end. */
  standing({ section, leaving, turn }: Standing, sections: number): Literal {
    const { yes, or } = this.encoding
    if (this.turns.length === 0 || turn === 'any') return yes
    if (turn !== undefined) return this.at[turn] ?? -yes
    if (section === sections && !leaving) return this.at.at(-1) ?? -yes
    return or(seeing(this.turns, leaving ? section - 1 : section).map(t => this.at[t.index] ?? -yes))
  }

  /** The turns that were taken in the model found last, up to the one to which it belongs. */
  takenInModel(): number[] | null {
    if (this.turns.length === 0) return null
    const { solver } = this.encoding
    const upTo = this.at.findIndex(literal => solver.isTrue(literal))
    return this.turns.map(t => t.index).filter(i => i <= upTo && solver.isTrue(this.taken(i)))
  }
}
