import { NONE, type Clause } from './clauses'
import type { Literal, Outcome } from './literal'
import { Propagation, UNASSIGNED } from './propagation'

const DECAY = 1 / 0.95
const RESTART_UNIT = 64
/** Conflicts that may be met before a goal is searched for from its assumptions on. */
const ATTEMPTS = 12
/** Restarts after which a call decides by activity alone. */
const FEW_ROUNDS = 4

/**
 * A solver for propositional clauses: conflict-driven clause learning with two watched literals, first-UIP learning, activity
 * order, phase saving, Luby restarts and assumptions (Eén & Sörensson, "An Extensible SAT-solver", SAT 2003).
 */
export class Solver extends Propagation {
  private step = 1
  private assumed: readonly Literal[] = []
  private among: readonly Literal[] | null = null
  /** After `unsatisfiable`: the assumptions that suffice for the contradiction. */
  conflict: Literal[] = []
  /** Conflicts met since the solver was made. */
  conflicts = 0

  /** First unique implication point: the clause learnt from a conflict and the level to go back to. */
  private analyse(failed: Clause): { learnt: Literal[]; back: number } {
    const learnt: Literal[] = [0]
    const current = this.trailEnds.length
    const touched: number[] = []
    let open = 0
    let at = this.trailSize - 1
    let literal: Literal = 0
    let clause = failed
    do {
      for (const l of this.clauses.literalsOf(clause)) {
        if (l === literal || !this.isNew(Math.abs(l))) continue
        touched.push(Math.abs(l))
        if (this.level[Math.abs(l)] === current) open += 1
        else learnt.push(l)
      }
      while (!this.seen[Math.abs(this.trail[at] ?? 0)]) at -= 1
      literal = this.trail[at] ?? 0
      clause = this.reason[Math.abs(literal)] ?? NONE
      this.seen[Math.abs(literal)] = false
      at -= 1
      open -= 1
    } while (open > 0)
    learnt[0] = -literal
    for (const variable of touched) this.seen[variable] = false
    return { learnt, back: this.putLatestSecond(learnt) }
  }

  /** Whether a variable is met for the first time in a conflict; it is marked, and becomes more active. */
  private isNew(variable: number): boolean {
    if (this.seen[variable] || (this.level[variable] ?? 0) === 0) return false
    this.seen[variable] = true
    this.bump(variable)
    return true
  }

  /** Puts the literal of the latest level second in a learnt clause, and gives that level: there the first one follows. */
  private putLatestSecond(learnt: Literal[]): number {
    let back = 0
    for (let i = 1; i < learnt.length; i++) {
      const level = this.level[Math.abs(learnt[i] ?? 0)] ?? 0
      if (level <= back) continue
      back = level
      const swap = learnt[1] ?? 0
      learnt[1] = learnt[i] ?? 0
      learnt[i] = swap
    }
    return back
  }

  /** The assumptions that lead to `literal` being false. */
  private assumptionsBehind(literal: Literal): Literal[] {
    const core = [literal]
    const open = new Set([Math.abs(literal)])
    for (let i = this.trailSize - 1; i >= (this.trailEnds[0] ?? this.trailSize); i--) {
      const l = this.trail[i] ?? 0
      if (!open.has(Math.abs(l))) continue
      const reason = this.reason[Math.abs(l)] ?? NONE
      // Without a reason it was assumed, be it the very opposite.
      if (reason === NONE) core.push(l)
      else
        for (const other of this.clauses.literalsOf(reason))
          if ((this.level[Math.abs(other)] ?? 0) > 0) open.add(Math.abs(other))
    }
    return core
  }

  private bump(variable: number) {
    this.activity[variable] = (this.activity[variable] ?? 0) + this.step
    if ((this.activity[variable] ?? 0) > 1e100) {
      for (let v = 1; v <= this.variables; v++) this.activity[v] = (this.activity[v] ?? 0) * 1e-100
      this.step *= 1e-100
    }
    this.order.raised(variable)
  }

  /**
   * Decides the clauses under assumptions, within a number of conflicts. What the last call assumed first stays assumed.
   * @param among the literals that matter: when they are all assigned without conflict, the answer is `satisfiable`. Only right where any
   * such assignment can be completed; null: everything is assigned
   */
  solve(
    assumptions: readonly Literal[] = [],
    conflictLimit = 100_000,
    among: readonly Literal[] | null = null,
  ): Outcome {
    if (among && this.answersToo(assumptions, among)) return 'satisfiable'
    let shared = 0
    while (shared < assumptions.length && assumptions[shared] === this.assumed[shared]) shared += 1
    this.backtrack(shared)
    this.assumed = assumptions
    this.among = among
    this.cursor = 0
    this.conflict = []
    if (this.contradictory) return 'unsatisfiable'
    const end = this.conflicts + conflictLimit
    for (let round = 1; ; round++) {
      const outcome = this.search(assumptions, luby(round) * RESTART_UNIT, end)
      if (outcome !== null) return outcome
      // A hard one: the order of activity is worth more than few decisions.
      if (round >= FEW_ROUNDS) this.among = null
      this.backtrack(0)
    }
  }

  /**
   * Tries to answer with what is assigned from the last call, changed only where it contradicts: goals asked one after the other are often
   * alike. False after some conflicts, or when an assumption can't hold: the search is for that.
   */
  private answersToo(assumptions: readonly Literal[], among: readonly Literal[]): boolean {
    for (let attempt = 0; attempt < ATTEMPTS && !this.contradictory; attempt++) {
      const failed = this.propagate() || this.extended(assumptions, among)
      if (failed === true || failed === false) return failed
      this.conflicts += 1
      if (this.trailEnds.length === 0) this.contradictory = true
      else this.learn(failed)
      this.assumed = this.assumed.slice(0, this.trailEnds.length)
    }
    return false
  }

  /** Assigns what is asked for on top of what is: true when that contradicts nothing, else the clause that fails; false when it can't be. */
  private extended(assumptions: readonly Literal[], among: readonly Literal[]): boolean | Clause {
    const level = assumptions.reduce(
      (least, l) => (this.valueOf(l) === -1 ? Math.min(least, (this.level[Math.abs(l)] ?? 0) - 1) : least),
      this.trailEnds.length,
    )
    if (level < 0) return false
    this.backtrack(level)
    this.assumed = this.assumed.slice(0, level)
    for (const literals of [assumptions, among]) {
      for (const l of literals) {
        const variable = Math.abs(l)
        if (this.valueOf(variable) !== UNASSIGNED) {
          if (literals === assumptions && this.valueOf(l) === -1) return false
          continue
        }
        this.trailEnds.push(this.trailSize)
        this.assign(literals === assumptions ? l : this.preferred(variable), NONE)
        const failed = this.propagate()
        if (failed !== NONE) return failed
      }
    }
    return true
  }

  /** What follows from assumptions by propagation alone: those of some literals that hold then; null when that is a contradiction. */
  consequences(assumptions: readonly Literal[], wanted: readonly Literal[]): Set<Literal> | null {
    this.backtrack(0)
    this.assumed = []
    let isPossible = !this.contradictory && this.propagate() === NONE
    for (const literal of assumptions) {
      if (!isPossible || this.valueOf(literal) === 1) continue
      isPossible = this.valueOf(Math.abs(literal)) === UNASSIGNED
      if (!isPossible) continue
      this.trailEnds.push(this.trailSize)
      this.assign(literal, NONE)
      isPossible = this.propagate() === NONE
    }
    const holding = isPossible ? new Set(wanted.filter(l => this.valueOf(l) === 1)) : null
    this.backtrack(0)
    return holding
  }

  private search(assumptions: readonly Literal[], budget: number, end: number): Outcome | null {
    for (;;) {
      const failed = this.propagate()
      if (failed !== NONE) {
        this.conflicts += 1
        budget -= 1
        if (this.trailEnds.length === 0) {
          this.contradictory = true
          return 'unsatisfiable'
        }
        this.learn(failed)
        if (this.conflicts >= end) return this.giveUp()
        continue
      }
      if (budget <= 0) return null
      const next = this.nextDecision(assumptions)
      if (next === 'satisfiable' || next === 'unsatisfiable') return next
      this.trailEnds.push(this.trailSize)
      if (next !== 0) this.assign(next, NONE)
    }
  }

  /** A variable in the polarity that is tried first. */
  private preferred = (variable: number): Literal => (this.phase[variable] === 1 ? variable : -variable)

  private giveUp(): Outcome {
    this.backtrack(0)
    return 'limit'
  }

  private learn(failed: Clause) {
    const { learnt, back } = this.analyse(failed)
    this.backtrack(back)
    const [first = 0] = learnt
    this.assign(first, learnt.length === 1 ? NONE : this.clauses.attach(learnt))
    this.step *= DECAY
  }

  /** The next assumption or decision; 0 for an assumption that already holds. */
  private nextDecision(assumptions: readonly Literal[]): Literal | 'satisfiable' | 'unsatisfiable' {
    const depth = this.trailEnds.length
    if (depth < assumptions.length) {
      const literal = assumptions[depth] ?? 0
      const value = this.valueOf(literal)
      if (value === 1) return 0
      if (value === 0) return literal
      this.conflict = this.assumptionsBehind(literal)
      return 'unsatisfiable'
    }
    if (this.among) {
      for (; this.cursor < this.among.length; this.cursor++) {
        const variable = Math.abs(this.among[this.cursor] ?? 0)
        if (this.valueOf(variable) === UNASSIGNED) return this.preferred(variable)
      }
      return 'satisfiable'
    }
    for (let variable = this.order.pop(); variable !== 0; variable = this.order.pop()) {
      if (this.valueOf(variable) === UNASSIGNED) return this.preferred(variable)
    }
    return 'satisfiable'
  }
}

/** The Luby sequence 1 1 2 1 1 2 4 … (Luby, Sinclair, Zuckerman 1993). */
function luby(i: number): number {
  let k = 1
  while ((1 << k) - 1 < i) k += 1
  return (1 << k) - 1 === i ? 1 << (k - 1) : luby(i - (1 << (k - 1)) + 1)
}
