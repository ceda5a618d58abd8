import type { Skip } from '../form/fields'
import { skipTarget } from '../form/skips'
import type { Place, PlaceOf } from '../form/walk'
import type { PlannedRule, PlannedSkip } from './planned'

/** The skips of a form, by what they pass over and by the section that they lead out of. */
export class PlannedSkips {
  /** Every one that leads somewhere, in the order of the form. */
  readonly all: readonly PlannedSkip[]
  /** By skip: the groups around what it leads to, which stay in play. */
  private readonly holding = new Map<PlannedSkip, ReadonlySet<Place>>()

  /** @param read reads a condition where its question stands */
  constructor(
    private readonly places: readonly Place[],
    read: (skip: Skip, from: Place) => PlannedRule | null,
  ) {
    this.all = places.flatMap(place => (place.kind === 'question' ? this.skipsOf(place, read) : []))
  }

  private skipsOf(
    from: PlaceOf<'question'>,
    read: (skip: Skip, from: Place) => PlannedRule | null,
  ): PlannedSkip[] {
    const above: PlannedSkip[] = []
    const skips = 'skips' in from.node ? (from.node.skips ?? []) : []
    skips.forEach((skip, index) => {
      const target = skipTarget(this.places, from, skip)
      if (typeof target === 'string') return
      const { section, place } = target
      const before = place?.order ?? this.beginningOf(section)
      const when = read(skip, from)
      const planned = { from, index, when, target: section, before, above: [...above] }
      this.holding.set(planned, new Set(place?.groups))
      above.push(planned)
    })
    return above
  }

  private beginningOf = (section: number): number =>
    this.places.find(p => p.section === section)?.order ?? this.places.length

  /** The skips that can pass over a place, but not over what stands around it. Whole sections in between are left to the way. */
  over(place: Place): PlannedSkip[] {
    if (this.all.length === 0) return []
    const around = place.groups.at(-1)
    return this.all.filter(
      skip => this.passes(skip, place) && (around === undefined || !this.passes(skip, around)),
    )
  }

  private passes(skip: PlannedSkip, place: Place): boolean {
    const { from, before, target } = skip
    const { order, section, entryOf } = place
    if (order <= from.order || order >= before || (section !== from.section && section !== target))
      return false
    const isBeside = from.entryOf === null || entryOf === from.entryOf
    return isBeside && !this.holding.get(skip)?.has(place)
  }

  /** The skips that lead out of a section. */
  outOf = (section: number): PlannedSkip[] =>
    this.all.filter(skip => skip.from.section === section && skip.target > section)
}
