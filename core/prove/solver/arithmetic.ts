import {
  ceilingOf,
  floorOf,
  gcd,
  isWhole,
  negative,
  compareRationals,
  plus,
  rational,
  times,
  ZERO,
  ONE,
  type Rational,
} from './rational'
import type { Linear } from './linear'
import type { Literal } from './literal'
import { Monotones, type Monotone } from './monotones'
import { OrderedForms } from './orderedForms'
import type { Solver } from './solver'
import { distinct, boundOf, MINUS, Tableau, type Atom, type FormBound, type LinearForm } from './tableau'

/** What is known of a variable while a literal is true; the ends may be strict. */
export interface Stretch {
  literal: Literal
  low: Rational | null
  high: Rational | null
  strict: boolean
}

interface Variable {
  grid: Rational | null
  stretches: Stretch[]
  start: Rational
}
export type TheoryOutcome = { is: 'consistent' } | { is: 'lemmas'; clauses: Literal[][] } | { is: 'limit' }

/** So often numbers are pushed away from the edges of tests before a clause is learnt. */
const PUSHES = 2

/**
 * Arithmetic beside the solver of clauses: atoms are literals that say “this sum is at most that”. After the solver has found a model, `check`
 * tells whether numbers exist for it; if not, it gives clauses that hold always and rule the model out (lazily, as in DPLL(T)).
 * Whole variables are found by splitting: the next model has to say on which side of a fraction one lies.
 */
export class Arithmetic {
  private readonly variables: Variable[] = []
  private readonly forms = new Map<string, LinearForm>()
  private readonly formsByAtom = new Map<Literal, LinearForm>()
  private readonly monotones: Monotones
  private readonly atomLiterals: Literal[] = []
  private found: readonly Rational[] = []
  private readonly ordered: OrderedForms
  private readonly deciding = new Map<number, Literal>()

  constructor(
    private readonly solver: Solver,
    private readonly yes: Literal,
  ) {
    this.monotones = new Monotones(solver, {
      atMost: (v, at) => this.atom(this.formOf([[v, 1n]]), rational(at), false),
      formOfAtom: literal => this.formsByAtom.get(literal),
    })
    this.ordered = new OrderedForms(solver, yes, {
      bounds: v => this.wholeBounds(v),
      decidedBy: v => this.deciding.get(v) ?? 0,
      atMost: (v, limit) => this.atom(this.formOf([[v, 1n]]), rational(limit), false),
    })
  }

  get isUsed(): boolean {
    return this.atomLiterals.length > 0 || this.monotones.all.length > 0
  }

  /** Variables that one answer decides are added up side by side, so that what they are together is found at once. */
  decidedBy(index: number, literal: Literal) {
    this.deciding.set(index, Math.abs(literal))
  }

  gridOf = (index: number): Rational | null => this.variables[index]?.grid ?? null
  /** Whether a sum only takes whole values. */
  isWhole = ({ terms, constant }: Linear): boolean =>
    isWhole(constant) && [...terms].every(([v, f]) => this.gridOf(v) !== null && isWhole(f))

  /** Every literal that the answers alone don't determine. */
  literals = (): readonly Literal[] => this.atomLiterals

  /** A variable that takes multiples of `grid`; null: any number. It counts in grids. */
  variable(grid: Rational | null, start: Rational = ZERO): { index: number; linear: Linear } {
    const unit = grid ?? ONE
    const at = rational(start.n * unit.d, start.d * unit.n)
    const index = this.variables.push({ grid, stretches: [], start: grid ? rational(floorOf(at)) : at }) - 1
    return { index, linear: { terms: new Map([[index, unit]]), constant: ZERO } }
  }

  /** While the literal is true, the variable lies in a stretch (in its natural unit, not in grids). */
  within(index: number, { literal, low, high, strict }: Stretch) {
    const variable = this.variables[index]
    if (!variable) return
    const unit = variable.grid ?? ONE
    const inGrids = (r: Rational | null) => (r === null ? null : rational(r.n * unit.d, r.d * unit.n))
    let [least, most, open] = [inGrids(low), inGrids(high), strict]
    if (variable.grid) {
      least = least === null ? null : rational(strict ? floorOf(least) + 1n : ceilingOf(least))
      most = most === null ? null : rational(strict ? ceilingOf(most) - 1n : floorOf(most))
      open = false
    }
    variable.stretches.push({ literal, low: least, high: most, strict: open })
  }

  /** The literal “the sum is at most zero” (below zero, where strict). */
  atMostZero(sum: Linear, strict = false): Literal {
    const entries = [...sum.terms].sort(([a], [b]) => a - b)
    const [first] = entries
    if (!first) {
      const side = compareRationals(sum.constant, ZERO)
      return side < 0 || (side === 0 && !strict) ? this.yes : -this.yes
    }
    const below = entries.reduce((d, [, f]) => (d * f.d) / gcd(d, f.d), 1n)
    const shared = entries.reduce((g, [, f]) => gcd(g, f.n * (below / f.d)), 0n)
    const scale = rational(below * (first[1].n < 0n ? -1n : 1n), shared)
    const terms = entries.map(([v, f]) => [v, times(f, scale).n] as const)
    const limit = negative(times(sum.constant, scale))
    const form = this.formOf(terms)
    // Scaled by a negative number the sum is at least the limit: not below it.
    if (scale.n < 0n)
      return form.whole
        ? -this.atom(form, rational(strict ? floorOf(limit) : ceilingOf(limit) - 1n), false)
        : -this.atom(form, limit, !strict)
    return form.whole
      ? this.atom(form, rational(strict ? ceilingOf(limit) - 1n : floorOf(limit)), false)
      : this.atom(form, limit, strict)
  }

  private formOf(terms: LinearForm['terms']): LinearForm {
    const key = terms.map(([v, f]) => `${v}*${f}`).join('+')
    const known = this.forms.get(key)
    if (known) return known
    const form: LinearForm = {
      terms,
      whole: terms.every(([v]) => this.variables[v]?.grid !== null),
      atoms: [],
    }
    this.forms.set(key, form)
    return form
  }

  /** The atoms of one sum stand in a row: each is true where the one before is. */
  private atom(form: LinearForm, at: Rational, strict: boolean): Literal {
    const place = (a: Atom) => compareRationals(a.at, at) || Number(strict) - Number(a.strict)
    const index = form.atoms.findIndex(a => place(a) >= 0)
    const next = index < 0 ? undefined : form.atoms[index]
    if (next && place(next) === 0) return next.literal
    const literal = this.solver.newVariable()
    const before = form.atoms[(index < 0 ? form.atoms.length : index) - 1]
    if (before) this.solver.addClause([-before.literal, literal])
    if (next) this.solver.addClause([-literal, next.literal])
    this.formsByAtom.set(literal, form)
    form.atoms.splice(index < 0 ? form.atoms.length : index, 0, { at, strict, literal })
    this.atomLiterals.push(literal)
    const [[only, factor], ...others] = form.terms as [
      readonly [number, bigint],
      ...(readonly [number, bigint])[],
    ]
    if (others.length === 0 && factor === 1n) this.tie(only, at, strict, literal)
    else if (form.whole) this.ordered.tie(form, { at, strict, literal })
    return literal
  }

  /** Between which whole numbers a variable lies in any case, in its grids. */
  private wholeBounds(v: number): readonly [bigint | null, bigint | null] {
    const sure = this.variables[v]?.stretches.filter(s => s.literal === this.yes) ?? []
    const lows = sure.flatMap(s => (s.low === null ? [] : [ceilingOf(s.low)]))
    const highs = sure.flatMap(s => (s.high === null ? [] : [floorOf(s.high)]))
    const low = lows.length > 0 ? lows.reduce((a, b) => (a > b ? a : b)) : null
    const high = highs.length > 0 ? highs.reduce((a, b) => (a < b ? a : b)) : null
    return [low, high]
  }

  /** A stretch that lies wholly on one side of a single variable's atom decides it. */
  private tie(index: number, at: Rational, strict: boolean, literal: Literal) {
    for (const s of this.variables[index]?.stretches ?? []) {
      if (
        s.high !== null &&
        (compareRationals(s.high, at) < 0 || (compareRationals(s.high, at) === 0 && (s.strict || !strict)))
      )
        this.solver.addClause([-s.literal, literal])
      if (
        s.low !== null &&
        (compareRationals(s.low, at) > 0 || (compareRationals(s.low, at) === 0 && (s.strict || strict)))
      )
        this.solver.addClause([-s.literal, -literal])
    }
  }

  /** Between which numbers a sum lies in any case; null where there is no end. */
  span({ terms, constant }: Linear): readonly [Rational | null, Rational | null] {
    let [low, high]: (Rational | null)[] = [constant, constant]
    for (const [v, factor] of terms) {
      const sure = this.variables[v]?.stretches.filter(s => s.literal === this.yes) ?? []
      const ends = [
        sure
          .flatMap(s => s.low ?? [])
          .sort(compareRationals)
          .at(-1) ?? null,
        sure.flatMap(s => s.high ?? []).sort(compareRationals)[0] ?? null,
      ]
      const [least = null, most = null] = compareRationals(factor, ZERO) > 0 ? ends : ends.reverse()
      low = low && least && plus(low, times(least, factor))
      high = high && most && plus(high, times(most, factor))
    }
    return [low ?? null, high ?? null]
  }

  /** A test that only grows true in one direction: see `Monotone`. A number stands for a variable, a bigint for itself. */
  monotone(entry: Monotone) {
    this.monotones.all.push(entry)
    this.atomLiterals.push(entry.literal)
  }

  /** The value of a variable in the numbers found last, in its natural unit; null when it did not matter. */
  valueOf(index: number): Rational | null {
    const at = this.found[index]
    const variable = this.variables[index]
    return at && variable ? times(at, variable.grid ?? ONE) : null
  }

  /** Whether numbers exist for the model that the solver has found. */
  check(): TheoryOutcome {
    const bounds = this.boundsInModel()
    const values = this.numbersWithin(bounds)
    if (!(values instanceof Map)) return values
    const split = this.splitFraction(values)
    if (split) return split
    const contradicted = this.monotones.contradicted(values)
    const found = contradicted.length === 0 ? values : this.wellWithin(bounds, values)
    if (!found) {
      const clauses = contradicted.map(m => this.monotones.corrected(m, values))
      this.solver.reconsider(contradicted.flatMap(m => this.monotones.sureLiterals(m)))
      return { is: 'lemmas', clauses }
    }
    const numbers: Rational[] = []
    for (const [v, value] of found) numbers[v] = value
    this.found = numbers
    return { is: 'consistent' }
  }

  /** Numbers within bounds, or why there are none. */
  private numbersWithin(bounds: readonly FormBound[]): Map<number, Rational> | TheoryOutcome {
    const tableau = new Tableau(this.yes)
    for (const v of this.variablesOf(bounds)) tableau.column(v, this.variables[v]?.start)
    for (const bound of bounds) tableau.bindForm(bound)
    for (const v of tableau.variables()) this.bindStretches(v, tableau)
    if (tableau.contradictions.length > 0) return { is: 'lemmas', clauses: tableau.contradictions }
    const failed = tableau.simplex.check()
    if (failed === 'limit') return { is: 'limit' }
    if (failed) return { is: 'lemmas', clauses: [distinct(failed.map(l => -l))] }
    return tableau.values()
  }

  /**
   * Numbers that lie well within what the model says of the monotone tests that others contradict: at the edge of a test two dates may
   * creep along the calendar, a day with each correction. Null where there are none.
   */
  private wellWithin(
    bounds: readonly FormBound[],
    values: ReadonlyMap<number, Rational>,
  ): ReadonlyMap<number, Rational> | null {
    const within = [...bounds]
    let found = values
    for (let round = 0; round < PUSHES; round++) {
      const pushed = this.monotones.contradicted(found).flatMap(m => this.sureBound(m) ?? [])
      if (pushed.length === 0) return null
      within.push(...pushed)
      const numbers = this.numbersWithin(within)
      if (!(numbers instanceof Map) || this.fractionIn(numbers) !== null) return null
      if (this.monotones.contradicted(numbers).length === 0) return numbers
      found = numbers
    }
    return null
  }

  /** The bound with which a test surely is what the model says. */
  private sureBound(m: Monotone): FormBound | null {
    const wanted = this.monotones.sureLiteral(m)
    const form = this.formsByAtom.get(Math.abs(wanted))
    const atom = form?.atoms.find(a => a.literal === Math.abs(wanted))
    return form && atom ? boundOf(form, atom, wanted) : null
  }

  /** What the model says of sums: a bound for each atom that is assigned. */
  private boundsInModel(): FormBound[] {
    const bounds: FormBound[] = []
    for (const form of this.forms.values())
      for (const atom of form.atoms) {
        const { literal } = atom
        if (this.isAssigned(literal))
          bounds.push(boundOf(form, atom, this.solver.isTrue(literal) ? literal : -literal))
      }
    return bounds
  }

  /** The variables that the bounds, and the monotone tests that are assigned, are about, in their order. */
  private variablesOf(bounds: readonly FormBound[]): number[] {
    const used = new Set(bounds.flatMap(b => b.form.terms.map(([v]) => v)))
    for (const m of this.monotones.all) {
      if (!this.isAssigned(m.literal)) continue
      for (const v of [m.first, m.second]) if (typeof v === 'number') used.add(v)
    }
    return [...used].sort((a, b) => a - b)
  }

  private bindStretches(v: number, tableau: Tableau) {
    for (const { literal, low, high, strict } of this.variables[v]?.stretches ?? []) {
      if (!this.solver.isTrue(literal)) continue
      if (low !== null) tableau.bindVariable(v, 'low', { r: low, e: strict ? ONE : ZERO }, literal)
      if (high !== null) tableau.bindVariable(v, 'high', { r: high, e: strict ? MINUS : ZERO }, literal)
    }
  }

  private isAssigned = (literal: Literal) => this.solver.isTrue(literal) || this.solver.isTrue(-literal)

  /** A variable that has to be whole and is not. */
  private fractionIn(values: ReadonlyMap<number, Rational>): number | null {
    for (const [v, value] of values) if (this.variables[v]?.grid !== null && !isWhole(value)) return v
    return null
  }

  /** The next model has to choose on which side of a fraction a number lies; that it lies on one of them needs no clause. */
  private splitFraction(values: ReadonlyMap<number, Rational>): TheoryOutcome | null {
    const v = this.fractionIn(values)
    if (v === null) return null
    const before = this.atomLiterals.length
    this.atom(this.formOf([[v, 1n]]), rational(floorOf(values.get(v) ?? ZERO)), false)
    return this.atomLiterals.length > before ? { is: 'lemmas', clauses: [] } : { is: 'limit' }
  }
}
