import type { Check } from './check'

/**
 * Checks in an order in which each comes after those that it needs; else as they are listed.
 * @throws Error when a check needs one that there is not, or checks need each other
 */
export function sortByNeeds(checks: readonly Check[]): Check[] {
  const byCode = new Map(checks.map(check => [check.code, check]))
  const sorted = new Set<Check>()
  const add = (check: Check, waiting: readonly string[]) => {
    if (waiting.includes(check.code)) throw new Error(`Checks need each other: ${waiting.join(', ')}.`)
    if (sorted.has(check)) return
    for (const code of check.needs ?? []) {
      const needed = byCode.get(code)
      if (!needed) throw new Error(`The check “${check.code}” needs “${code}”, which there is not.`)
      add(needed, [...waiting, check.code])
    }
    sorted.add(check)
  }
  for (const check of checks) add(check, [])
  return [...sorted]
}
