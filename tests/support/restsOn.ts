import { problemsIn, type Filled } from '../../core/fill/fill'
import type { Plan, PlannedSection } from '../../core/fill/planned'
import type { Place } from '../../core/form/walk'

const KEYS = ['shownWhen', 'required', 'value'] as const

/** The rules of a place of a random form that decide about it, those around it too, as texts. */
const rulesOn = ({ node, groups }: Place): string[] =>
  [node, ...groups.map(g => g.node)].flatMap(n => {
    const record: Readonly<Record<string, unknown>> = { ...n }
    return KEYS.map(key => record[key]).filter(text => typeof text === 'string')
  })

/** The questions that skips over a place, or over what stands around it, lead on from, and their conditions. */
export function skipsOver({ order, groups }: Place, { sections }: Plan): string[] {
  const around = new Set([order, ...groups.map(g => g.order)])
  const steps = sections.flatMap(s => s.all).filter(step => around.has(step.place.order))
  return steps
    .flatMap(({ skips }) => skips)
    .flatMap(({ from, index }) => {
      const written = 'skips' in from.node ? (from.node.skips ?? []) : []
      return [from.code, ...written.slice(0, index + 1).flatMap(s => s.when ?? [])]
    })
}

/**
 * The questions of a random form that a rule of a place rests on: what it and the rules by which the place is shown name, and what their own
 * rules name. Questions there are called q0, q1, …, so names are read off the texts.
 */
function restsOn(place: Place, rule: string, places: readonly Place[], plan: Plan): Set<string> {
  const found = new Set<string>()
  const around = [place, ...place.groups].flatMap(p => p.node.shownWhen ?? [])
  const texts = [rule, ...around]
  for (let text = texts.pop(); text !== undefined; text = texts.pop())
    for (const code of text.match(/\bq\d+\b/g) ?? []) {
      if (found.has(code)) continue
      found.add(code)
      for (const place of places)
        if (place.code === code) texts.push(...rulesOn(place), ...skipsOver(place, plan))
    }
  return found
}

/** Whether in a state something that a rule of a place rests on has to be answered and is not. */
export function isMissingBehind(
  place: Place,
  rule: string,
  places: readonly Place[],
  state: Filled,
  section: PlannedSection,
): boolean {
  const codes = restsOn(place, rule, places, state.plan)
  return problemsIn(state, section).some(p => p.kind === 'missing' && codes.has(p.step.place.code))
}
