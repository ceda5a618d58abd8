import { eq } from 'drizzle-orm'
import { mayCorrect, Opening } from '../../core/form/opening'
import type { OwnResponse } from '../../shared/api/answering'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, ownLinks, responses } from '../store/schema'
import type { Entrance } from './entrances'
import { documentsForSender } from './documents/offered'
import type { LinkTarget } from './links'
import { paymentForSender } from './payments'
import { digestOf, newSecret } from './people/tokens'

type Response = typeof responses.$inferSelect

/** Whether responses to a form can be corrected by whoever sent them. */
export const isCorrectable = (entrance: Entrance | null): boolean =>
  (entrance?.settings?.corrections ?? 'never') !== 'never'

/** A new link by which whoever sent a response comes back to it; null where it can’t be corrected. @returns its path, which is kept nowhere */
export async function linkToCorrect(
  db: Database,
  entrance: Entrance | null,
  responseId: string,
): Promise<string | null> {
  if (!isCorrectable(entrance)) return null
  const token = newSecret()
  await db.insert(ownLinks).values({ responseId, hash: digestOf(token) })
  return `/f/${token}`
}

/** The response of an own link; null where there is no such link. `lock` keeps it for this transaction. Refused where it was withdrawn. */
export async function findByOwnLink(db: Database, token: string, lock: boolean): Promise<Response | null> {
  const [link] = await db
    .select({ responseId: ownLinks.responseId })
    .from(ownLinks)
    .where(eq(ownLinks.hash, digestOf(token)))
  if (!link) return null
  const query = db.select().from(responses).where(eq(responses.id, link.responseId))
  const [response] = lock ? await query.for('update') : await query
  if (response?.withdrawnAt || response?.binnedAt) refuse(410, 'withdrawn', 'This response was withdrawn.')
  return response ?? null
}

/** When a response was as it is now. */
export const stateAtOf = ({ correctedAt, sentAt }: Pick<Response, 'correctedAt' | 'sentAt'>): string =>
  (correctedAt ?? sentAt).toISOString()

/** A response as its own link opens it; null for every other link. */
export async function ownResponseOf(
  db: Database,
  { row, response, release }: LinkTarget,
): Promise<OwnResponse | null> {
  if (row || !response) return null
  return {
    number: response.number,
    sentAt: response.sentAt.toISOString(),
    at: stateAtOf(response),
    mayCorrect: await isStillCorrectable(db, release.formId, response),
    payment: await paymentForSender(db, { release, turn: null }, response.number),
    documents: await documentsForSender(db, { release, turn: null }, response.number),
  }
}

/** Whether a response can be corrected now. */
export async function isStillCorrectable(
  db: Database,
  formId: string,
  { sentAt }: Response,
): Promise<boolean> {
  const [opening] = await db
    .select({ settings: openings.settings })
    .from(openings)
    .where(eq(openings.formId, formId))
  return mayCorrect(opening?.settings ?? Opening.parse({}), sentAt, new Date())
}
