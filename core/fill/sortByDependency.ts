import type { Step } from './planned'
import { isRepeating, namesNeeded } from './steps'

/** Orders the steps of a section or entry so that each comes after its group and after what its own rules name; else as written. */
export function sortByDependency(steps: readonly Step[]): Step[] {
  const byOrder = new Map(steps.map(s => [s.place.order, s]))
  const byCode = new Map<string, Step>()
  for (const step of steps.toReversed()) {
    if (isRepeating(step)) for (const inner of step.inner) byCode.set(inner.place.code, step)
    if (step.place.kind === 'question' || isRepeating(step)) byCode.set(step.place.code, step)
  }
  const done = new Set<Step>()
  const result: Step[] = []
  for (const start of steps) {
    // An explicit stack: long chains of rules must not overflow.
    const open = [start]
    const entered = new Set<Step>()
    while (open.length > 0) {
      const step = open[open.length - 1]
      if (!step || done.has(step)) {
        open.pop()
        continue
      }
      const waits = entered.has(step)
        ? []
        : needsOf(step, byOrder, byCode).filter(n => !done.has(n) && !entered.has(n))
      entered.add(step)
      if (waits.length > 0) {
        open.push(...waits.reverse())
        continue
      }
      open.pop()
      done.add(step)
      result.push(step)
    }
  }
  return result
}

/** What a step waits for among its neighbours: the group around it, and what its rules name. */
export function needsOf(
  step: Step,
  byOrder: ReadonlyMap<number, Step>,
  byCode: ReadonlyMap<string, Step>,
): Step[] {
  const parent = byOrder.get(step.parent)
  const named = namesNeeded(step).flatMap(name => byCode.get(name) ?? [])
  return (parent ? [parent, ...named] : named).filter(n => n !== step)
}
