import { desc, eq, isNull } from 'drizzle-orm'
import type { Attachment } from '../../shared/api/letters'
import { postOffice } from '../services/post/office'
import type { Database } from '../store/database'
import { messages } from '../store/schema'
import { listBouncing } from './receiver'

export interface Message {
  /** The response that it is about; null for letters about an account. */
  responseId: string | null
  to: string
  subject: string
  text: string
  attachments?: readonly Attachment[]
}

/**
 * Hands letters to the post. With a mail server they wait for it, in the transaction in which they were written; without one the post is
 * simulated: what is sent is kept and can be read in Collect, and what goes to an address that is told to bounce comes back.
 */
export async function sendMail(db: Database, letters: readonly Message[]): Promise<void> {
  if (letters.length === 0) return
  const office = postOffice()
  const bouncing = office ? [] : await listBouncing(db)
  const stateOf = ({ to }: Message) => {
    // By the clock of whoever looks for what is due: the database’s may be ahead.
    if (office) return { state: 'waiting', dueAt: new Date() } as const
    return isBouncing(to, bouncing) ? ({ state: 'bounced', said: NOBODY_THERE } as const) : {}
  }
  await db.insert(messages).values(
    letters.map(letter => ({
      ...letter,
      attachments: [...(letter.attachments ?? [])],
      ...stateOf(letter),
    })),
  )
  office?.soon()
}

const NOBODY_THERE = 'There is nobody at this address (550).'

/** An address by itself, or by what stands after its “@”. */
const isBouncing = (address: string, bouncing: readonly string[]): boolean =>
  bouncing.some(b => address.toLowerCase() === b || address.toLowerCase().endsWith(`@${b.replace(/^@/, '')}`))

const LETTER = {
  to: messages.to,
  subject: messages.subject,
  text: messages.text,
  at: messages.at,
  attachments: messages.attachments,
  state: messages.state,
  said: messages.said,
}

/** The messages about a response, the newest first. */
export const listMail = (db: Database, responseId: string) =>
  db.select(LETTER).from(messages).where(eq(messages.responseId, responseId)).orderBy(desc(messages.at))

/** Letters that are shown of the post at most. */
const MOST_LETTERS = 100

/** The letters about accounts, the newest first: what would be in people's letter boxes. */
export const listAccountMail = (db: Database) =>
  db
    .select(LETTER)
    .from(messages)
    .where(isNull(messages.responseId))
    .orderBy(desc(messages.at))
    .limit(MOST_LETTERS)
