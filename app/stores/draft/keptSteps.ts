import { z } from 'zod'
import { Edit } from '#core/form/edits'
import type { Address } from '#core/form/walk'
import { readJson } from '~/browser/readJson'
import type { EditSteps } from './useEditHistory'

const AnyAddress = z.custom<Address>(v => typeof v === 'string' && /^(?:section|item|list)\//.test(v))
const Step = z.object({
  forward: z.array(Edit).readonly(),
  back: z.array(Edit).readonly(),
  merge: z.string().nullable(),
  at: z.number(),
  selected: AnyAddress.nullable(),
})
/** Steps of a draft, and the revision that they lead up to. */
const Kept = z.object({ revision: z.number(), past: z.array(Step), future: z.array(Step) })
export type KeptSteps = EditSteps & { revision: number }

const keyOf = (formId: string) => `tobbin-steps-${formId}`
/** So many steps, and so many letters of them, are kept through a reload. */
const MOST_STEPS = 100
const MOST_LETTERS = 1_000_000

/** Keeps the steps of a draft in this tab, through reloads; too much for that is not kept. */
export function keepSteps(formId: string, { revision, past, future }: KeptSteps): void {
  const text = JSON.stringify({
    revision,
    past: past.slice(-MOST_STEPS),
    future: future.slice(-MOST_STEPS),
  })
  sessionStorage.removeItem(keyOf(formId))
  if (text.length > MOST_LETTERS) return
  try {
    sessionStorage.setItem(keyOf(formId), text)
  } catch {
    // The browser's room is used up: undo then ends with a reload, as where there is too much.
  }
}

/** The steps of a draft that this tab has kept; null where there are none that can be read. */
export function keptSteps(formId: string): KeptSteps | null {
  const read = Kept.safeParse(readJson(sessionStorage.getItem(keyOf(formId)) ?? ''))
  return read.success ? read.data : null
}
