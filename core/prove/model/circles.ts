import { namesIn } from '../../expressions/tree'
import { isRepeating, ownRules, skipNames } from '../../fill/steps'
import type { Plan, Step } from '../../fill/planned'

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
    [...ownRules(step).flatMap(r => (r.expr ? namesIn(r.expr) : [])), ...skipNames(step)],
    orderOf,
  ),
]

/** The components that are circles: more than one node, or one that waits for itself. */
function components(nodes: readonly number[], edges: (n: number) => readonly number[]): number[][] {
  const finder = new CircleFinder(edges)
  for (const root of nodes) finder.searchFrom(root)
  return finder.found
}

/** Strongly connected components, with a stack of its own: long chains must not overflow (Tarjan 1972). */
class CircleFinder {
  readonly found: number[][] = []
  private readonly index = new Map<number, number>()
  private readonly low = new Map<number, number>()
  private readonly stack: number[] = []
  private readonly onStack = new Set<number>()

  constructor(private readonly edges: (n: number) => readonly number[]) {}

  searchFrom(root: number) {
    if (this.index.has(root)) return
    const work: { node: number; next: number }[] = [{ node: root, next: 0 }]
    for (let frame = work[0]; frame; frame = work[work.length - 1]) {
      const { node } = frame
      if (frame.next === 0) this.enter(node)
      const target = this.edges(node)[frame.next]
      if (target !== undefined) {
        frame.next += 1
        if (!this.index.has(target)) work.push({ node: target, next: 0 })
        else if (this.onStack.has(target)) this.lower(node, this.index.get(target))
        continue
      }
      work.pop()
      const above = work[work.length - 1]
      if (above) this.lower(above.node, this.low.get(node))
      if (this.low.get(node) === this.index.get(node)) this.close(node)
    }
  }

  private enter(node: number) {
    this.low.set(node, this.index.size)
    this.index.set(node, this.index.size)
    this.stack.push(node)
    this.onStack.add(node)
  }

  private lower(node: number, to: number | undefined) {
    this.low.set(node, Math.min(this.low.get(node) ?? 0, to ?? 0))
  }

  /** Takes a component off the stack whose first node is given. */
  private close(node: number) {
    const component = this.stack.splice(this.stack.indexOf(node))
    for (const n of component) this.onStack.delete(n)
    if (component.length > 1 || this.edges(node).includes(node)) this.found.push(component)
  }
}
