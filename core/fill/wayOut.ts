import type { Frame } from './frame'
import type { PlannedRoute, PlannedSection, PlannedSkip } from './planned'

/** Whether a skip is taken: its question is in play, its condition true, and no skip above it came first. */
export function isTaken(skip: PlannedSkip, { inPlay, values }: Pick<Frame, 'inPlay' | 'values'>): boolean {
  if (!inPlay[skip.from.order]) return false
  const holds = ({ when }: PlannedSkip) => when === null || when.run(values) === true
  return holds(skip) && !skip.above.some(holds)
}

/** What a section in play is left by: a skip of one of its questions, else the first of its routes that is true; null when the next section follows. */
export function wayOut(section: PlannedSection, frame: Frame): PlannedSkip | PlannedRoute | null {
  const skip = section.exits.find(s => isTaken(s, frame))
  if (skip) return skip
  return section.routes.find(r => r.when === null || r.when.run(frame.values) === true) ?? null
}
