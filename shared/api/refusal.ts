import { z } from 'zod'

/** What every refused request says: a code for programs, a sentence for people, and the places where there are several. */
export const Refusal = z.object({
  code: z.string(),
  sentence: z.string(),
  problems: z.array(z.object({ path: z.string(), sentence: z.string() })).optional(),
})
export type Refusal = z.infer<typeof Refusal>
