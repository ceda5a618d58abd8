import type { Plan } from '../fill/planned'
import { rulesAt } from '../form/rules'
import { namesUsed } from '../form/threads'
import type { Place } from '../form/walk'

/** The codes of everything that can decide about some rules: what they name, and what decides about that in turn. */
export function decidingCodes(plan: Plan, texts: readonly string[]): Set<string> {
  const found = new Set<string>()
  const looked = new Set<Place>()
  const open = texts.flatMap(namesUsed)
  const lookAt = (place: Place) => {
    if (looked.has(place)) return
    looked.add(place)
    for (const rule of rulesAt(place)) open.push(...namesUsed(rule.text))
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
