import { decimalPlaces } from '../../expressions/decimal'
import type { Expr, ExprOf } from '../../expressions/tree'
import type { Plan, PlannedQuestion } from '../../fill/planned'

/** Functions that give whole numbers, whatever they are given. */
const WHOLE: ReadonlySet<string> = new Set(['floor', 'ceiling', 'count', 'string length'])
/** Functions that give one of what they are given, or a sum of it. */
const ALIKE: ReadonlySet<string> = new Set(['sum', 'min', 'max', 'abs'])
const ROUNDING: ReadonlySet<string> = new Set(['round half up', 'round down', 'decimal'])

/** How many places after the point a number can have at most, by what it is worked out from; null where that tells nothing. */
export function mostPlacesOf(plan: Plan, expr: Expr): number | null {
  return new Places(plan).of(expr)
}

class Places {
  /** The questions that are gone through: a value that depends on itself has none. */
  private readonly open = new Set<string>()

  constructor(private readonly plan: Plan) {}

  of(expr: Expr): number | null {
    switch (expr.kind) {
      case 'number':
        return decimalPlaces(expr.value)
      case 'null':
        return 0
      case 'name':
        return this.ofQuestion(expr.name)
      case 'path':
        return this.ofPath(expr)
      case 'negate':
        return this.of(expr.value)
      case 'if':
        return this.most([expr.then, expr.else])
      case 'list':
        return this.most(expr.items)
      case 'arithmetic':
        return this.ofArithmetic(expr)
      case 'call':
        return this.ofCall(expr)
      default:
        return null
    }
  }

  /** The answers of every entry of a group; what a path else leads to is of any kind. */
  private ofPath({ of, member }: ExprOf<'path'>): number | null {
    return of.kind === 'name' && this.plan.groups.has(of.name) ? this.ofQuestion(member) : null
  }

  private ofArithmetic({ op, left, right }: ExprOf<'arithmetic'>): number | null {
    if (op === '+' || op === '-') return this.most([left, right])
    const [a, b] = [this.of(left), this.of(right)]
    return op === '*' && a !== null && b !== null ? a + b : null
  }

  private ofCall({ name, args }: ExprOf<'call'>): number | null {
    if (WHOLE.has(name)) return 0
    if (ALIKE.has(name)) return this.most(args)
    const [, scale] = args
    return ROUNDING.has(name) && scale?.kind === 'number' ? Number(scale.value) : null
  }

  private ofQuestion(code: string): number | null {
    const question = this.plan.byCode.get(code)
    if (!question || this.open.has(code)) return null
    this.open.add(code)
    const places = this.ofNode(question)
    this.open.delete(code)
    return places
  }

  private ofNode({ place: { node }, value }: PlannedQuestion): number | null {
    if (node.type === 'integer' || node.type === 'scale') return 0
    if (node.type === 'money') return 2
    if (node.type === 'decimal') return node.decimals ?? null
    if (node.type !== 'value') return null
    if (node.decimals !== undefined) return node.decimals
    if (node.currency !== undefined) return 2
    return value?.expr ? this.of(value.expr) : null
  }

  private most(parts: readonly Expr[]): number | null {
    const places = parts.map(part => this.of(part))
    const known = places.filter(p => p !== null)
    return known.length === places.length ? Math.max(0, ...known) : null
  }
}
