import { namesIn } from '../../expressions/tree'
import { isRepeating, ownRules } from '../../fill/steps'
import { type Plan, type Step } from '../../fill/planned'

/**
 * The codes of what stands in a circle: whether it is in play depends on itself. Found as the strongly connected components
 * of “waits for” (Tarjan 1972), section by section, without recursion.
 */
export function circles(plan: Plan): string[][] {
  return plan.sections.flatMap(section => {
    const nodes = [section.place.order, ...section.all.map(s => s.place.order)]
    const codeOf = new Map<number, string>([
      [section.place.order, section.place.code],
      ...section.all.map(s => [s.place.order, s.place.code] as const),
    ])
    const orderOf = new Map<string, number[]>()
    for (const step of section.all)
      if (step.place.kind === 'question' && !orderOf.has(step.place.code))
        orderOf.set(step.place.code, [step.place.order])
    // A repeating group is named for what its entries hold: whoever names it waits for all inside.
    for (const step of section.all)
      if (isRepeating(step))
        orderOf.set(step.place.code, [step.place.order, ...step.inner.map(s => s.place.order)])
    const waits = new Map<number, readonly number[]>([
      [section.place.order, namedHere(section.shown?.expr ? namesIn(section.shown.expr) : [], orderOf)],
    ])
    for (const step of section.all) waits.set(step.place.order, needs(step, section.place.order, orderOf))
    return components(nodes, n => waits.get(n) ?? []).map(c =>
      c.sort((a, b) => a - b).map(n => codeOf.get(n) ?? ''),
    )
  })
}

export const circularCodes = (plan: Plan): Set<string> => new Set(circles(plan).flat())

const namedHere = (names: readonly string[], orderOf: ReadonlyMap<string, readonly number[]>) =>
  names.flatMap(name => orderOf.get(name) ?? [])

const needs = (step: Step, section: number, orderOf: ReadonlyMap<string, readonly number[]>) => [
  step.parent < 0 ? section : step.parent,
  ...namedHere(
    ownRules(step).flatMap(r => (r.expr ? namesIn(r.expr) : [])),
    orderOf,
  ),
]

/** The components that are circles: more than one node, or one that waits for itself. */
function components(nodes: readonly number[], edges: (n: number) => readonly number[]): number[][] {
  const index = new Map<number, number>()
  const low = new Map<number, number>()
  const stack: number[] = []
  const onStack = new Set<number>()
  const found: number[][] = []
  for (const root of nodes) {
    if (index.has(root)) continue
    const work: { node: number; next: number }[] = [{ node: root, next: 0 }]
    while (work.length > 0) {
      const frame = work[work.length - 1]
      if (!frame) break
      const { node } = frame
      if (frame.next === 0) {
        index.set(node, index.size)
        low.set(node, index.size - 1)
        stack.push(node)
        onStack.add(node)
      }
      const target = edges(node)[frame.next]
      if (target !== undefined) {
        frame.next += 1
        if (!index.has(target)) work.push({ node: target, next: 0 })
        else if (onStack.has(target)) low.set(node, Math.min(low.get(node) ?? 0, index.get(target) ?? 0))
        continue
      }
      work.pop()
      const above = work[work.length - 1]
      if (above) low.set(above.node, Math.min(low.get(above.node) ?? 0, low.get(node) ?? 0))
      if (low.get(node) !== index.get(node)) continue
      const component = stack.splice(stack.indexOf(node))
      for (const n of component) onStack.delete(n)
      if (component.length > 1 || edges(node).includes(node)) found.push(component)
    }
  }
  return found
}
