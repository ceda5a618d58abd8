import type { Plan } from '../fill/planned'
import { skipNames } from '../fill/steps'
import { rulesAt } from '../form/rules'
import { namesUsed } from '../form/threads'
import type { Place } from '../form/walk'

/** By place order: what decides about the skips that can pass over it. */
function namesOfSkipsOver({ sections, skips }: Plan): Map<number, string[]> {
  if (skips.length === 0) return new Map()
  const steps = sections.flatMap(s => s.all).filter(step => step.skips.length > 0)
  return new Map(steps.map(step => [step.place.order, skipNames(step)]))
}

/** The codes of everything that can decide about some rules: what they name, and what decides about that in turn. */
export function decidingCodes(plan: Plan, texts: readonly string[]): Set<string> {
  const found = new Set<string>()
  const looked = new Set<Place>()
  const open = texts.flatMap(namesUsed)
  const skipsOver = namesOfSkipsOver(plan)
  const lookAt = (place: Place) => {
    if (looked.has(place)) return
    looked.add(place)
    for (const rule of rulesAt(place)) open.push(...namesUsed(rule.text))
    open.push(...(skipsOver.get(place.order) ?? []))
  }
  for (let name = open.pop(); name !== undefined; name = open.pop()) {
    if (found.has(name)) continue
    found.add(name)
    const place = plan.names.placeOf(name)
    if (!place) continue
    lookAt(place)
    for (const group of place.groups) lookAt(group)
    for (const section of plan.sections) if (section.place.section <= place.section) lookAt(section.place)
    if (place.kind === 'group')
      for (const inner of plan.places) if (inner.groups.some(g => g.order === place.order)) lookAt(inner)
  }
  return found
}
