import { compile } from '../../expressions/compile'
import { namesIn, type CompareOp, type Expr, type ExprOf } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { valueKey } from '../../lists/listIndex'
import { literalOf } from '../../parties/literal'
import { parseEntryCode } from '../model/entryCodes'
import { FLIPPED, HERE } from '../model/rewritten'
import type { Literal } from '../solver/literal'
import type { Encoder, Truth, Variable } from './encoder'

/** Tests of one question whose classes decide them. */
export class ChoiceTests {
  constructor(private readonly encoder: Encoder) {}

  /** `list contains(works, "welding")`: whether a multiple choice includes a code; unknown when nothing is chosen. */
  contains({ args: [list, code] }: ExprOf<'call'>): Truth | null {
    if (list?.kind !== 'name' || code?.kind !== 'text') return null
    const { blank, classes, domain } = this.encoder.variable(list.name)
    if (!domain.many || domain.opaque) return null
    const literal = classes.find(c => c.value === code.value)?.literal ?? -this.encoder.yes
    return { t: literal, f: this.encoder.and([-literal, -blank]) }
  }

  /** A question against a constant: the classes decide, since the constant is among those that cut them. */
  againstConstant(code: string, op: CompareOp, constant: Expr, expr: ExprOf<'compare'>): Truth {
    const variable = this.encoder.variable(code)
    const run = compile(
      { ...expr, op, left: { kind: 'name', name: code, ...HERE }, right: constant },
      () => 1,
    )
    const outcome = (value: Value) => run(['', value])
    const holding = variable.classes.filter(c => outcome(c.value) === true).map(c => c.literal)
    const failing = variable.classes.filter(c => outcome(c.value) === false).map(c => c.literal)
    const blank = outcome(null)
    if (blank === true) holding.push(variable.blank)
    if (blank === false) failing.push(variable.blank)
    return { t: this.encoder.or(holding), f: this.encoder.or(failing) }
  }

  /** Two choices that are asked for being the same, or not. */
  ofTwo({ op, left, right }: ExprOf<'compare'>): Truth | null {
    if (left.kind !== 'name' || right.kind !== 'name' || (op !== '=' && op !== '!=')) return null
    const [a, b] = [this.encoder.variable(left.name), this.encoder.variable(right.name)]
    if (![a, b].every(v => v.domain.singletons && !v.domain.opaque && !v.domain.many)) return null
    const { and, or } = this.encoder
    const alike = a.classes.flatMap(c => {
      const other = b.classes.find(d => valueKey(d.value) === valueKey(c.value))
      return other ? [and([c.literal, other.literal])] : []
    })
    const literal = or(alike)
    this.encoder.equalities.push({ codes: [left.name, right.name], literal })
    const same = or([literal, and([a.blank, b.blank])])
    return op === '=' ? { t: same, f: -same } : { t: -same, f: same }
  }

  /** A question against what a choice leads to (`harbour.row.depth < draught`): for each choice that is a constant, which the classes are cut by. */
  againstReached(expr: ExprOf<'compare'>): Truth | null {
    if (expr.right.kind === 'path' && expr.left.kind === 'name')
      return this.againstReached({ ...expr, op: FLIPPED[expr.op], left: expr.right, right: expr.left })
    const { left, op, right } = expr
    if (left.kind !== 'path' || right.kind !== 'name' || !this.isSingle(right.name)) return null
    const choice = this.choiceOf(left, right.name)
    return choice && this.caseByCase({ ...expr, op: FLIPPED[op], left: right, right: left }, choice)
  }

  /** Whether a question has one answer at most, which its classes tell. */
  private isSingle(code: string): boolean {
    const { domain } = this.encoder.variable(code)
    return !domain.opaque && !domain.many
  }

  /** The one choice that a path goes through, where each of its classes is one row. */
  private choiceOf(path: ExprOf<'path'>, other: string): { code: string; variable: Variable } | null {
    const [code, ...others] = namesIn(path)
    if (code === undefined || others.length > 0 || code === other) return null
    const variable = this.encoder.variable(code)
    return variable.domain.singletons && !variable.domain.opaque ? { code, variable } : null
  }

  private caseByCase(
    expr: ExprOf<'compare'>,
    { code, variable }: { code: string; variable: Variable },
  ): Truth | null {
    if (expr.left.kind !== 'name') return null
    const { and, or, model } = this.encoder
    const { copies } = model
    const { name } = expr.left
    const reach = compile(expr.right, copies.environment)
    const constants = model.asked.constants.get(parseEntryCode(name).base) ?? []
    const type = copies.typeOf(name)
    const values = new Array<Value>(copies.size).fill(null)
    const [holding, failing]: [Literal[], Literal[]] = [[], []]
    for (const { value, literal } of [...variable.classes, { value: null, literal: variable.blank }]) {
      values[copies.environment.slotOf(code) ?? 0] = value
      const reached = reach(values)
      if (reached !== null && !constants.some(c => valueKey(c) === valueKey(reached))) return null
      const truth = this.againstConstant(name, expr.op, literalOf(reached, type), expr)
      holding.push(and([literal, truth.t]))
      failing.push(and([literal, truth.f]))
    }
    return { t: or(holding), f: or(failing) }
  }
}
