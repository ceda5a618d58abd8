import type { Literal } from './literal'
import { negative, ONE, plus, rational, ZERO, type Rational } from './rational'
import { Simplex, type Near } from './simplex'

/** “The form is below `at`, or equal to it”: one atom of the solver. */
export interface Atom {
  at: Rational
  strict: boolean
  literal: Literal
}
/** A sum whose factors are whole and share no divisor, the first above zero; `whole` when it only takes whole values. */
export interface LinearForm {
  terms: readonly (readonly [number, bigint])[]
  whole: boolean
  atoms: Atom[]
}

/** What a literal says of a form: it ends there on one side. */
export interface FormBound {
  form: LinearForm
  side: 'low' | 'high'
  at: Near
  reason: Literal
}

export const MINUS = negative(ONE)
export const distinct = (literals: readonly Literal[]): Literal[] => [...new Set(literals)]

/** Where a form ends above while its atom is true. */
export const upperEnd = ({ at, strict }: Atom): Near => ({ r: at, e: strict ? MINUS : ZERO })
/** Where it ends below while its atom is false: above the atom, by a whole where it is whole. */
export const lowerEnd = (form: LinearForm, { at, strict }: Atom): Near =>
  form.whole ? { r: plus(at, ONE), e: ZERO } : { r: at, e: strict ? ZERO : ONE }

/** What an atom says of its form while a literal of it is true. */
export function boundOf(form: LinearForm, atom: Atom, literal: Literal): FormBound {
  const isBelow = literal === atom.literal
  return {
    form,
    side: isBelow ? 'high' : 'low',
    at: isBelow ? upperEnd(atom) : lowerEnd(form, atom),
    reason: literal,
  }
}

/** The simplex of one model: a column for each variable that matters, one for each sum, and what bounds contradict at once. */
export class Tableau {
  readonly simplex: Simplex<Literal>
  /** Clauses that rule out bounds which contradict each other. */
  readonly contradictions: Literal[][] = []
  private readonly columns = new Map<number, number>()
  private readonly sums = new Map<LinearForm, number>()

  constructor(yes: Literal) {
    this.simplex = new Simplex<Literal>(yes)
  }

  /** The column of a variable, made when it is first asked for. */
  column(v: number, start?: Rational): number {
    const known = this.columns.get(v)
    if (known !== undefined) return known
    const made = this.simplex.variable(start)
    this.columns.set(v, made)
    return made
  }

  variables = (): number[] => [...this.columns.keys()]

  bindVariable(v: number, side: 'low' | 'high', at: Near, reason: Literal) {
    this.bind(this.column(v), side, at, reason)
  }

  bindForm({ form, side, at, reason }: FormBound) {
    const [single, ...others] = form.terms
    const isVariable = single !== undefined && others.length === 0 && single[1] === 1n
    this.bind(isVariable ? this.column(single[0]) : this.sum(form), side, at, reason)
  }

  private sum(form: LinearForm): number {
    const known = this.sums.get(form)
    if (known !== undefined) return known
    const made = this.simplex.sum(form.terms.map(([v, f]) => [this.column(v), rational(f)] as const))
    this.sums.set(form, made)
    return made
  }

  private bind(column: number, side: 'low' | 'high', at: Near, reason: Literal) {
    const failed = this.simplex.bound(column, side, at, reason)
    if (failed) this.contradictions.push(distinct(failed.map(l => -l)))
  }

  /** The number of each variable, after a check without contradiction. */
  values(): Map<number, Rational> {
    const values = this.simplex.values()
    return new Map([...this.columns].map(([v, column]) => [v, values[column] ?? ZERO] as const))
  }
}
