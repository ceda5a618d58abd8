import { listSectionGraph } from '../../core/map/graph'
import { layOutMap } from '../../core/map/layout'
import type { Form } from '../../core/form/definition'
import { listPlaces } from '../../core/form/walk'
import { median } from './pages'
import { realForm } from './real/realForm'

type Say = (what: string, value: string, goal: string) => void
const TIMES = 5

/** A form of so many sections: those of forms like the users', and every fourth one with a route past some others. */
function formOf(count: number): Form {
  const form = realForm(count * 8)
  const kept = form.sections.slice(0, count)
  const sections = kept.map((section, i) => {
    const [first] = section.items
    const to = kept[i + 3]?.code ?? 'finish'
    const hasWay = i % 4 === 0 && first !== undefined
    return hasWay ? { ...section, routes: [{ when: `${first.code} != null`, to }] } : section
  })
  if (sections.length < count) throw new Error(`Only ${sections.length} of ${count} sections could be made.`)
  return { ...form, sections }
}

/** Laying out the map of a form, as its worker does. */
export function maps(say: Say): void {
  for (const [count, goal] of [
    [60, 'under 500 ms'],
    [300, 'under 5,000 ms'],
  ] as const) {
    const form = formOf(count)
    const graph = listSectionGraph(form, listPlaces(form))
    const times = Array.from({ length: TIMES }, () => {
      const begun = performance.now()
      layOutMap(graph, false)
      return performance.now() - begun
    })
    say(`lay out the map of ${count} sections (median of ${TIMES})`, `${median(times).toFixed(0)} ms`, goal)
  }
}
