import type { Entries } from '../model/groupQuestions'
import { constantOf, linearSum, type Linear } from '../solver/linear'
import type { Literal } from '../solver/literal'
import { rational } from '../solver/rational'
import type { Encoder } from './encoder'

/** A repeating group in the solver. */
export interface EntryLiterals {
  /** The group is not in play. */
  blank: Literal
  /** How many entries it has. */
  count: Linear
  index: number
  /** By entry that is told apart: it is there. */
  exists: readonly Literal[]
  /** There are further ones, of which nothing is known; null where there can't be. */
  more: Literal | null
}

const MINUS = rational(-1)

/** The repeating groups that rules look into, as literals: how many entries each has. */
export class GroupEntries {
  private readonly made = new Map<string, EntryLiterals>()

  constructor(private readonly encoder: Encoder) {}

  /** Whether any group was looked into. */
  isUsed = (): boolean => this.made.size > 0

  /** The groups looked into, with how many entries the model found last has. */
  counts(): Map<string, number> {
    const { solver, arithmetic } = this.encoder
    return new Map(
      [...this.made].flatMap(([code, { blank, index, exists }]): [string, number][] => {
        if (solver.isTrue(blank)) return []
        const found = arithmetic.valueOf(index)
        return [
          [code, found === null ? exists.filter(l => solver.isTrue(l)).length : Number(found.n / found.d)],
        ]
      }),
    )
  }

  /** A group in the solver. */
  of({ group, copies }: Entries): EntryLiterals {
    const known = this.made.get(group.place.code)
    if (known) return known
    const { arithmetic, and, yes } = this.encoder
    const { blank } = this.encoder.variable(group.place.code)
    const { index, linear: count } = arithmetic.variable(rational(1), rational(group.min))
    arithmetic.within(index, {
      literal: yes,
      low: rational(group.min),
      high: rational(Math.max(group.min, group.max)),
      strict: false,
    })
    const moreThan = (n: number): Literal =>
      n < group.min
        ? -blank
        : and([-blank, -arithmetic.atMostZero(linearSum(count, constantOf(rational(n)), MINUS))])
    const made = {
      blank,
      count,
      index,
      exists: Array.from({ length: copies }, (_, i) => moreThan(i)),
      more: group.max > copies ? moreThan(copies) : null,
    }
    this.made.set(group.place.code, made)
    return made
  }
}
