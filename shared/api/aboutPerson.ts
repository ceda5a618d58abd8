import { z } from 'zod'

/** So many responses are found about one person at most. */
export const MOST_ABOUT = 200

/** What is looked for: a name, an address, a number, as it may stand in answers, turns and letters. */
export const AboutQuery = z.object({
  text: z.string().trim().min(3, 'at least three characters').max(200),
})

/** A response that holds it. `where`: the labels of the answers, and what else of it names the person. */
export const AboutPerson = z.object({
  /** Whether there are more than are listed. */
  isMore: z.boolean(),
  found: z.array(
    z.object({
      id: z.string(),
      form: z.object({ id: z.string(), title: z.string() }),
      number: z.int(),
      sentAt: z.string(),
      isBinned: z.boolean(),
      isOpen: z.boolean(),
      where: z.array(z.string()),
    }),
  ),
})
export type AboutPerson = z.infer<typeof AboutPerson>
