import { z } from 'zod'

/** How a letter can stand: it waits for the mail server; it went out; it came back; it was given up after a day. */
export const LETTER_STATES = ['waiting', 'sent', 'bounced', 'given up'] as const

/**
 * What goes with a letter: the answers of its response as a PDF, which is made when it is posted; or a file that its response holds, or a document
 * of it, by their ids.
 */
export const Attachment = z.object({
  name: z.string(),
  file: z.string().nullable(),
  document: z.string().optional(),
})
export type Attachment = z.infer<typeof Attachment>

/** A letter as it is shown. */
export const Letter = z.object({
  at: z.string(),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  attachments: z.array(Attachment),
  state: z.enum(LETTER_STATES),
  said: z.string(),
})
export type Letter = z.infer<typeof Letter>
