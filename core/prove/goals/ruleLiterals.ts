import type { PlannedRule } from '../../fill/planned'
import { ruleId, type RuleKind } from '../../form/rules'
import type { Place } from '../../form/walk'
import type { Encoding } from '../encode/encoding'
import type { Literal } from '../solver/literal'
import type { ConflictPart } from '../finding'

/**
 * The rules of a form as literals, each switched by a literal of its own, so that a contradiction tells which rules bring it about. What a
 * switched-off rule would decide is free.
 */
export class RuleLiterals {
  private readonly switches = new Map<string, { literal: Literal; part: ConflictPart }>()
  private readonly switchLiterals: Literal[] = []
  private readonly literals = new Map<string, Literal>()

  constructor(private readonly encoding: Encoding) {}

  /** “This rule is true”: the truth of its condition while its switch is on, else anything. */
  rule(rule: Pick<PlannedRule, 'expr'> | null, place: Place, kind: RuleKind, index = 0): Literal {
    if (rule === null) return this.encoding.yes
    const id = `${ruleId(place, kind, index)} ${place.order}`
    const known = this.literals.get(id)
    if (known !== undefined) return known
    const { solver } = this.encoding
    const truth = rule.expr ? this.encoding.truth(rule.expr).t : -this.encoding.yes
    const on = this.switchFor(place, kind, index)
    const literal = solver.newVariable()
    solver.addClause([-on, -literal, truth])
    solver.addClause([-on, literal, -truth])
    this.literals.set(id, literal)
    return literal
  }

  /** Something without condition: always so while its switch is on. */
  always(place: Place, kind: RuleKind, index = 0): Literal {
    const literal = this.encoding.solver.newVariable()
    this.encoding.solver.addClause([-this.switchFor(place, kind, index), literal])
    return literal
  }

  /** The switch of a rule. */
  switchFor(place: Place, kind: RuleKind, index: number): Literal {
    const id = ruleId(place, kind, index)
    const known = this.switches.get(id)
    if (known) return known.literal
    const literal = this.encoding.solver.newVariable()
    this.switchLiterals.push(literal)
    this.switches.set(id, { literal, part: { code: place.code, address: place.address, kind, index } })
    return literal
  }

  /** The switches of all rules that were met. */
  allSwitches = (): readonly Literal[] => this.switchLiterals

  /** By switch: the rule that it belongs to. */
  partsBySwitch = (): Map<Literal, ConflictPart> =>
    new Map([...this.switches.values()].map(s => [s.literal, s.part] as const))
}
