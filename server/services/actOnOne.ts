import { asc, eq } from 'drizzle-orm'
import type { Database } from '../store/database'
import { releases, responses } from '../store/schema'
import { ofForm } from './workbench'

/** A response that something is done with, with its release; kept for the transaction. */
export interface ActedResponse {
  response: typeof responses.$inferSelect
  release: typeof releases.$inferSelect
}
/** Does something with one response. @returns why it was not done; null where it was */
export type ResponseAct = (db: Database, one: ActedResponse) => Promise<string | null>

/** Does something with one response of a form, in the transaction that it is given. @returns with which it was not done, and why; null where it was */
export async function actOnOne(
  db: Database,
  formId: string,
  id: string,
  perform: ResponseAct,
): Promise<{ number: number; sentence: string } | null> {
  // The release alone is not locked: others send to it meanwhile.
  const [one] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(ofForm(db, formId, [id]))
    .orderBy(asc(responses.number))
    .for('update', { of: responses })
  if (!one) return { number: 0, sentence: 'It is not there any more.' }
  const sentence = await perform(db, one)
  return sentence === null ? null : { number: one.response.number, sentence }
}
