import { print } from '../../expressions/print'
import type { Expr } from '../../expressions/tree'
import { ofItem, sourceOf, type Source } from '../model/entryExpressions'
import type { Entries } from '../model/groupQuestions'
import type { Literal } from '../solver/literal'
import type { Encoder } from './encoder'
import type { GroupEntries } from './groupEntries'

/** What a list holds: the entries of a group or those that fulfil a condition, or one answer of each. */
export interface ListedEntries {
  source: Source
  member: string | null
}

/** The lists of entries that rules ask of, as literals. */
export class EntrySources {
  private readonly asked = new Map<string, { result: unknown; isOpen: boolean }>()

  constructor(
    private readonly encoder: Encoder,
    private readonly groups: GroupEntries,
  ) {}

  /** There are entries of which nothing is known; null where those told apart are enough, or all there can be. */
  unknown = (entries: Entries): Literal | null => (entries.enough ? null : this.groups.of(entries).more)

  /** By entry that is told apart: it is there, and among those that are asked for. */
  chosen({ entries, by }: Source): Literal[] {
    return this.groups
      .of(entries)
      .exists.map((there, i) =>
        by ? this.encoder.and([there, this.encoder.truth(ofItem(by, entries.group, i + 1)).t]) : there,
      )
  }

  /** What a list holds, entry by entry: the entries of a group, or one answer of each. */
  listed(list: Expr): ListedEntries | null {
    const { copies } = this.encoder.model
    const [of, member] = list.kind === 'path' ? [list.of, list.member] : [list, null]
    const source = sourceOf(of, copies)
    return source && (member === null || source.entries.members.includes(member)) ? { source, member } : null
  }

  /** What is asked in several places is the same everywhere, further entries included. */
  once<T>(as: string, expr: Expr, make: () => T | null): T | null {
    if (this.encoder.model.copies.of.size === 0) return null
    const key = `${as} ${print(expr)}`
    const known = this.asked.get(key)
    if (known) {
      if (known.isOpen) this.encoder.widen()
      return known.result as T | null
    }
    const { result, isOpen } = this.encoder.watched(make)
    this.asked.set(key, { result, isOpen })
    return result
  }
}
