import type { Expr, ExprOf } from '../../expressions/tree'
import { LIMITS } from '../../form/limits'
import type { Question } from '../../form/questions'
import type { Literal } from '../solver/literal'
import { rational, ZERO } from '../solver/rational'
import type { Encoder, Term } from './encoder'
import type { OpaqueNumbers } from './opaqueNumbers'

/** Of a text: the fewest and most letters that it may have, and when it is there. */
interface Length {
  least: number
  most: number
  given: Literal
}
/** So many letters may become of one when it is written large or small (“ß”, “ΐ”). */
const MOST_OF_ONE = 3

/** The length of a text that is made of others, as a number between bounds: which one it is, is left to the replay. */
export class TextLengths {
  constructor(
    private readonly encoder: Encoder,
    private readonly opaque: OpaqueNumbers,
  ) {}

  /** `string length(string join([first, last], " "))`; null where the bounds of the text are not known. */
  of(expr: ExprOf<'call'>): Term | null {
    const [text] = expr.args
    const length = text ? this.lengthOf(text) : null
    if (!length) return null
    const term = this.opaque.between(expr, length.given, [ZERO, rational(length.most)])
    // With all parts there it has at least the fewest letters of each.
    const isWhole = this.encoder.and([length.given, ...(text ? this.partsOf(text) : [])])
    const [index] = [...term.linear.terms.keys()]
    if (index !== undefined)
      this.encoder.arithmetic.within(index, {
        literal: isWhole,
        low: rational(length.least),
        high: rational(length.most),
        strict: false,
      })
    return term
  }

  private lengthOf(expr: Expr): Length | null {
    if (expr.kind === 'text') return fixed([...expr.value].length, this.encoder.yes)
    if (expr.kind === 'name') return this.ofQuestion(expr.name)
    if (expr.kind !== 'call') return null
    const [first, second] = expr.args
    if (!first) return null
    if (expr.name === 'string join') return this.ofJoined(first, second)
    const inner = this.lengthOf(first)
    if (!inner) return null
    if (expr.name === 'upper case' || expr.name === 'lower case')
      return { ...inner, most: inner.most * MOST_OF_ONE }
    return expr.name === 'substring' ? { ...inner, least: 0 } : null
  }

  private ofQuestion(code: string): Length | null {
    const node = this.encoder.model.stepOf(code)?.place.node
    const [least, most] = node ? limitsOf(node) : []
    if (least === undefined || most === undefined) return null
    return { least, most, given: -this.encoder.variable(code).blank }
  }

  /** What is blank is left out, with what would stand between. */
  private ofJoined(list: Expr, glue: Expr | undefined): Length | null {
    if (list.kind !== 'list' || (glue && glue.kind !== 'text')) return null
    const between = [...(glue?.value ?? '')].length
    const lengths = list.items.map(item => this.lengthOf(item))
    const known = lengths.filter(l => l !== null)
    if (known.length < lengths.length || known.length === 0) return null
    const gaps = between * (known.length - 1)
    const total = (of: (length: Length) => number) => known.reduce((sum, l) => sum + of(l), gaps)
    return { least: total(l => l.least), most: total(l => l.most), given: this.encoder.yes }
  }

  /** When each part of a text that is joined is there. */
  private partsOf(expr: Expr): Literal[] {
    if (expr.kind === 'list') return expr.items.flatMap(item => this.lengthOf(item)?.given ?? [])
    return expr.kind === 'call' ? expr.args.flatMap(arg => this.partsOf(arg)) : []
  }
}

const fixed = (length: number, given: Literal): Length => ({ least: length, most: length, given })

/** The fewest and most letters of an answer; nothing for what is no text. */
function limitsOf(node: Question | { type?: undefined }): [number, number] | [] {
  if (node.type === 'text' || node.type === 'longText')
    return [node.minLength ?? 1, node.maxLength ?? LIMITS.text]
  return node.type === 'email' || node.type === 'phone' ? [1, LIMITS.text] : []
}
