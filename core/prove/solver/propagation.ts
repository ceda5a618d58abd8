import { ActivityHeap } from './activityHeap'
import { Clauses, literalIndex, NONE, widen, type Clause } from './clauses'
import type { Literal } from './literal'

export const UNASSIGNED = 0

/** Literals that are assigned level by level, and all that clauses make follow from them (two watched literals each). */
export class Propagation {
  protected variables = 0
  protected readonly clauses = new Clauses()
  /** By literal index: 1 true, -1 false, 0 open. */
  private values = new Int8Array(64)
  /** By variable. */
  protected level = new Int32Array(32)
  protected reason = new Int32Array(32)
  protected activity: number[] = [0]
  protected phase: number[] = [-1]
  protected seen: boolean[] = [false]
  /** What is assigned, in order: the first `trailSize` of them. */
  protected trail = new Int32Array(32)
  protected trailSize = 0
  protected trailEnds: number[] = []
  private head = 0
  /** The clauses contradict one another. */
  protected contradictory = false
  /** How far the literals that matter are known to be assigned. */
  protected cursor = 0
  protected order = new ActivityHeap(this.activity)

  newVariable(): Literal {
    this.variables += 1
    if (this.variables >= this.level.length) {
      this.values = widen(this.values)
      this.level = widen(this.level)
      this.reason = widen(this.reason)
      this.trail = widen(this.trail)
    }
    this.activity.push(0)
    this.phase.push(-1)
    this.seen.push(false)
    this.clauses.grow()
    this.order.insert(this.variables)
    return this.variables
  }

  /** The polarity to try first for a literal's variable. */
  prefer(literal: Literal) {
    this.phase[Math.abs(literal)] = literal > 0 ? 1 : -1
  }

  /** Gives up the last model, and tries these literals first in the next. */
  reconsider(literals: readonly Literal[]) {
    this.backtrack(0)
    for (const literal of literals) this.prefer(literal)
  }

  /** The value of a literal in the last model. */
  isTrue = (literal: Literal): boolean => this.valueOf(literal) === 1

  protected valueOf(literal: Literal): number {
    return this.values[literalIndex(literal)] ?? 0
  }

  private levelOf(literal: Literal): number {
    return this.level[Math.abs(literal)] ?? 0
  }

  /** Adds a clause; the model of an earlier `solve` is given up as far as the clause needs it. */
  addClause(literals: readonly Literal[]) {
    if (this.contradictory) return
    const kept: Literal[] = []
    for (const literal of literals) {
      const value = this.levelOf(literal) === 0 ? this.valueOf(literal) : 0
      if (value === 1 || kept.includes(-literal)) return
      if (value === 0 && !kept.includes(literal)) kept.push(literal)
    }
    const [only] = kept
    if (only === undefined) this.contradictory = true
    else if (kept.length === 1) {
      this.backtrack(0)
      this.assign(only, NONE)
      if (this.propagate() !== NONE) this.contradictory = true
    } else this.join(kept)
  }

  /**
   * Adds a clause in the middle of a search: goes back to where it first brings something about, so that nothing is missed on the way on.
   */
  private join(literals: Literal[]) {
    this.putLatestInFront(literals)
    const [first = 0, second = 0] = literals
    const level = this.levelToAdd(first, second)
    if (level !== null) this.backtrack(level)
    const clause = this.clauses.attach(literals)
    if (this.valueOf(first) === 0 && this.valueOf(second) === -1) this.assign(first, clause)
  }

  /** Since which level a literal is false; without end when it is not. */
  private falseSince = (literal: Literal): number =>
    this.valueOf(literal) === -1 ? this.levelOf(literal) : Number.POSITIVE_INFINITY

  /** Two literals that are true or open stand in front, else those that are false, the latest first: these are watched. */
  private putLatestInFront(literals: Literal[]) {
    for (const at of [0, 1]) {
      let best = at
      for (let i = at + 1; i < literals.length; i++)
        if (this.falseSince(literals[i] ?? 0) > this.falseSince(literals[best] ?? 0)) best = i
      const chosen = literals[best] ?? 0
      literals[best] = literals[at] ?? 0
      literals[at] = chosen
    }
  }

  /** The level to go back to before a clause is added whose watches are given; null where it can be added as things are. */
  private levelToAdd(first: Literal, second: Literal): number | null {
    const [one, other] = [this.falseSince(first), this.falseSince(second)]
    if (one !== Number.POSITIVE_INFINITY && one === other) return one - 1
    if (other === Number.POSITIVE_INFINITY) return null
    const holdsAnyway = this.valueOf(first) === 1 && this.levelOf(first) <= other
    return holdsAnyway ? null : other
  }

  protected assign(literal: Literal, reason: Clause) {
    const variable = Math.abs(literal)
    const index = literalIndex(literal)
    this.values[index] = 1
    this.values[index ^ 1] = -1
    this.level[variable] = this.trailEnds.length
    this.reason[variable] = reason
    this.trail[this.trailSize++] = literal
  }

  /** Follows all consequences; the clause that fails, or none. */
  protected propagate(): Clause {
    const { values, clauses } = this
    while (this.head < this.trailSize) {
      const literal = this.trail[this.head++] ?? 0
      const watching = clauses.watchesOf(literal)
      const { length } = watching
      let kept = 0
      for (let i = 0; i < length; i += 2) {
        const clause = watching[i] ?? 0
        const other = watching[i + 1] ?? 0
        if (values[literalIndex(other)] === 1) {
          watching[kept++] = clause
          watching[kept++] = other
          continue
        }
        const first = clauses.movedWatch(clause, -literal, values)
        if (first === 0) continue
        watching[kept++] = clause
        watching[kept++] = first
        const value = values[literalIndex(first)]
        if (value === 0) this.assign(first, clause)
        else if (value === -1) {
          for (let j = i + 2; j < length; j++) watching[kept++] = watching[j] ?? 0
          watching.length = kept
          this.head = this.trailSize
          return clause
        }
      }
      if (kept < length) watching.length = kept
    }
    return NONE
  }

  protected backtrack(level: number) {
    if (this.trailEnds.length <= level) return
    this.cursor = 0
    const end = this.trailEnds[level] ?? 0
    for (let i = this.trailSize - 1; i >= end; i--) {
      const literal = this.trail[i] ?? 0
      const variable = Math.abs(literal)
      const index = literalIndex(literal)
      this.values[index] = UNASSIGNED
      this.values[index ^ 1] = UNASSIGNED
      this.phase[variable] = literal > 0 ? 1 : -1
      this.reason[variable] = NONE
      this.order.insert(variable)
    }
    this.trailSize = end
    this.trailEnds.length = level
    // What was assigned with a new clause may still have to be followed.
    this.head = Math.min(this.head, end)
  }
}
