import { z } from 'zod'
import { LIMITS } from '../../core/form/limits'

const Section = z.string().max(LIMITS.code).nullable()

/** Somebody went on from a section, null at the beginning, to another, null when it was sent; `seconds`: how long the first took. */
export const Step = z.strictObject({ from: Section, to: Section, seconds: z.int().min(0).max(10_000_000) })
export const CountedStep = z.object({ isCounted: z.boolean() })

/** Which version: its number, 0 for the newest. */
export const StepsQuery = z.object({ release: z.coerce.number().int().min(0).max(1_000_000).default(0) })
/** How far people came in a version, section by section in the order of the form: how many reached it and went on from it, and how many took up to 15 seconds, a minute, three, ten, and longer. */
export const PageSteps = z.object({
  version: z.int(),
  pages: z.array(
    z.object({
      code: z.string(),
      title: z.string(),
      reached: z.int(),
      left: z.int(),
      times: z.array(z.int()),
    }),
  ),
})
export type PageSteps = z.infer<typeof PageSteps>
