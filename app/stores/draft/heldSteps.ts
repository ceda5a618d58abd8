import { z } from 'zod'
import { Edit } from '#core/form/edits'
import { readJson } from '~/browser/readJson'

/** What was done at once to a draft. */
export type HeldStep = readonly Edit[]

const Held = z.array(z.array(Edit).readonly())

/** Where the steps of a draft are kept that nobody has proposed yet: for all tabs of this browser. */
export const heldKey = (formId: string) => `tobbin-held-${formId}`

/** Keeps steps; false when the browser has no room for them. */
export function keepHeld(formId: string, steps: readonly HeldStep[]): boolean {
  try {
    if (steps.length === 0) localStorage.removeItem(heldKey(formId))
    else localStorage.setItem(heldKey(formId), JSON.stringify(steps))
    return true
  } catch {
    return false
  }
}

/** The steps that were kept; none where they can't be read. */
export function heldSteps(formId: string): readonly HeldStep[] {
  const read = Held.safeParse(readJson(localStorage.getItem(heldKey(formId)) ?? ''))
  return read.success ? read.data : []
}

/** Steps with one more; the same thing changed twice in a row is changed once. */
export function withStep(steps: readonly HeldStep[], step: HeldStep): readonly HeldStep[] {
  const [last, ...others] = steps.at(-1) ?? []
  const [next, ...more] = step
  if (others.length > 0 || more.length > 0 || !last || !next) return [...steps, step]
  const joined = joinedChange(last, next)
  return joined ? [...steps.slice(0, -1), [joined]] : [...steps, step]
}

/** Two changes of the same properties of one thing, as one; null for any others. */
function joinedChange(last: Edit, next: Edit): Edit | null {
  if (last.do !== 'change' || next.do !== 'change' || last.what !== next.what) return null
  if ('code' in last.set || Object.keys(next.set).some(key => !(key in last.set))) return null
  return { ...last, ...next, set: { ...last.set, ...next.set } }
}
