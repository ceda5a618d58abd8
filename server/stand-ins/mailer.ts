import { desc, eq, isNull } from 'drizzle-orm'
import type { Database } from '../store/database'
import { messages } from '../store/schema'

export interface Message {
  /** The response that it is about; null for letters about an account. */
  responseId: string | null
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

/** Letters that are shown of the post at most. */
const MOST_LETTERS = 100

/** The letters about accounts, the newest first: what would be in people's letter boxes. */
export const listAccountMail = (db: Database) =>
  db
    .select({ to: messages.to, subject: messages.subject, text: messages.text, at: messages.at })
    .from(messages)
    .where(isNull(messages.responseId))
    .orderBy(desc(messages.at))
    .limit(MOST_LETTERS)
