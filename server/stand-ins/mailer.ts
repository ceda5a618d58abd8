import { desc, eq } from 'drizzle-orm'
import type { Database } from '../store/database'
import { messages } from '../store/schema'

export interface Message {
  responseId: string
  to: string
  subject: string
  text: string
}

/** Stands in for a mail server: what is sent is kept, and can be read in Collect. */
export async function sendMail(db: Database, letters: readonly Message[]): Promise<void> {
  if (letters.length > 0) await db.insert(messages).values([...letters])
}

/** The messages about a response, the newest first. */
export const listMail = (db: Database, responseId: string) =>
  db
    .select({ to: messages.to, subject: messages.subject, text: messages.text, at: messages.at })
    .from(messages)
    .where(eq(messages.responseId, responseId))
    .orderBy(desc(messages.at))
