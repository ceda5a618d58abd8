import type { Plan, PlannedSkip, Step } from '../fill/planned'
import { namesOfSkips } from '../fill/steps'
import type { Item } from '../form/definition'
import type { Place } from '../form/walk'
import { maySee, type AccessView } from './access'

/** Which skips of a form a party can follow by itself: it sees where they begin and lead, and all that they ask for. */
export class SeenSkips {
  private readonly steps = new Map<number, Step>()

  constructor(
    private readonly plan: Plan,
    private readonly view: AccessView,
  ) {
    if (plan.skips.length === 0) return
    for (const section of plan.sections)
      for (const step of section.all) this.steps.set(step.place.order, step)
  }

  /** Whether a skip can be followed by the party, and those of its question that come first. */
  isSeen(skip: PlannedSkip): boolean {
    const { places, names } = this.plan
    const target = places[skip.before]
    const asked = namesOfSkips([skip]).map(name => names.placeOf(name))
    const isAllSeen = [skip.from, ...asked, target].every(p => p === undefined || maySee(this.view, p))
    return isAllSeen && skip.above.every(first => this.isSeen(first))
  }

  /** A question with the skips that can be followed. */
  withSeen(item: Item, place: Place): Item {
    if (!('skips' in item)) return item
    const { skips, ...rest } = item
    const seen = this.plan.skips.filter(s => s.from.order === place.order && this.isSeen(s))
    const kept = seen.flatMap(s => skips?.[s.index] ?? [])
    return kept.length > 0 ? { ...rest, skips: kept } : rest
  }

  /** The skips that can pass over a place, and that the party can't follow. */
  unseenOver = ({ order }: Place): PlannedSkip[] =>
    (this.steps.get(order)?.skips ?? []).filter(skip => !this.isSeen(skip))
}
