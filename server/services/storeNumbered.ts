import { sql } from 'drizzle-orm'
import type { Sending } from '../../shared/api/answering'
import type { Database } from '../store/database'
import { responseCounts, responses } from '../store/schema'
import type { answersToStore } from './acceptAnswers'
import { digestOfSending } from './sendings'

type Kept = ReturnType<typeof answersToStore>

/** More than any form has. */
const NO_LIMIT = 2_147_483_647

/** A response as it was stored: under which number of its form. */
export interface Stored {
  id: string
  sentAt: Date
  number: number
}

/**
 * Stores a response under the next number of its form, in one statement: who takes a number holds it until the response is there, and what was
 * sent before takes none. @returns null where the same key was sent before, or as many responses stand as are taken
 */
export async function storeNumbered(
  db: Database,
  { id: releaseId, formId }: { id: string; formId: string },
  sending: Sending,
  { answers, people }: Kept,
  { most, wayId, userId }: { most: number | null; wayId: string | null; userId: string | null },
): Promise<Stored | null> {
  const { key, begunOn } = sending
  const taken = db.$with('taken', { taken: sql<number>`taken`.as('taken') }).as(sql`
    insert into ${responseCounts} (form_id, taken, standing)
    select ${formId}::uuid, 1, 1
    where not exists (
      select 1 from ${responses} where release_id = ${releaseId}::uuid and sending_key = ${key}::text
    )
    on conflict (form_id) do update
      set taken = ${responseCounts}.taken + 1, standing = ${responseCounts}.standing + 1
      where ${responseCounts.standing} < ${most ?? NO_LIMIT}::integer
    returning taken`)
  const stored = db.$with('stored', {
    id: sql<string>`id`.as('id'),
    sentAt: sql<Date>`sent_at`.mapWith(responses.sentAt).as('sent_at'),
    number: sql<number>`number`.as('number'),
  }).as(sql`
    insert into ${responses} (release_id, number, sending_key, sending_digest, begun_on, answers, people, way_id, user_id)
    select ${releaseId}::uuid, taken.taken, ${key}::text, ${digestOfSending(sending)}::text, ${begunOn}::date,
      ${JSON.stringify(answers)}::jsonb, ${people === null ? null : JSON.stringify(people)}::jsonb, ${wayId}::uuid, ${userId}::uuid
    from taken
    on conflict do nothing
    returning id, sent_at, number`)
  const [found] = await db
    .with(taken, stored)
    .select({ id: stored.id, sentAt: stored.sentAt, number: stored.number })
    .from(stored)
  return found ?? null
}
