import { and, eq, lt } from 'drizzle-orm'
import type { AnswersToKeep, KeptAnswers } from '../../shared/api/keptAnswers'
import { refuse } from '../http/refuse'
import { sendMail } from '../stand-ins/mailer'
import type { Database } from '../store/database'
import { keptAnswers } from '../store/schema'
import { refuseOtherRelease } from './handOff'
import { resolveLink, type LinkTarget, type LinkUse } from './links'
import { digestOf, newSecret } from './people/tokens'

/** So many days answers are kept that nobody goes on with. */
const DAYS_KEPT = 30

/** The release that a response is begun with; turns and responses that were sent are kept otherwise. */
async function beginning(db: Database, use: LinkUse): Promise<LinkTarget> {
  const target = await resolveLink(db, use)
  return target.entrance ? target : refuse(409, 'not-begun', 'Only a response that is begun here is kept so.')
}

/**
 * Keeps what somebody has typed, because they asked for it. Refused where they have gone on elsewhere since: nothing is overwritten unseen.
 * @returns the secret under which it is found, and when it was kept
 */
export async function keepAnswers(
  db: Database,
  use: LinkUse,
  { secret, base, kept }: AnswersToKeep,
): Promise<{ secret: string; at: string }> {
  const { release } = await beginning(db, use)
  if (kept) refuseOtherRelease(release.number, kept.release)
  if (secret === null) return keepFirst(db, release.id, kept)
  return db.transaction(async tx => {
    const [row] = await tx
      .select()
      .from(keptAnswers)
      .where(and(eq(keptAnswers.releaseId, release.id), eq(keptAnswers.hash, digestOf(secret))))
      .for('update')
    if (!row) return refuseGone()
    if (kept === null) {
      await tx.delete(keptAnswers).where(eq(keptAnswers.id, row.id))
      return { secret, at: new Date().toISOString() }
    }
    if (row.savedAt.toISOString() !== base)
      refuse(409, 'kept-by-others', 'You have gone on elsewhere meanwhile; nothing was overwritten.')
    const savedAt = new Date()
    await tx
      .update(keptAnswers)
      .set({ kept, sendingKey: kept.key, savedAt })
      .where(eq(keptAnswers.id, row.id))
    return { secret, at: savedAt.toISOString() }
  })
}

async function keepFirst(db: Database, releaseId: string, kept: KeptAnswers | null) {
  if (kept === null) return refuseGone()
  const secret = newSecret()
  const savedAt = new Date()
  await db
    .insert(keptAnswers)
    .values({ releaseId, hash: digestOf(secret), sendingKey: kept.key, kept, savedAt })
  return { secret, at: savedAt.toISOString() }
}

const refuseGone = () =>
  refuse(
    404,
    'not-kept',
    `Nothing is kept under this link: it was sent since, or nobody went on with it for ${DAYS_KEPT} days.`,
  )

/** What is kept under a secret. */
export async function recallAnswers(
  db: Database,
  use: LinkUse,
  secret: string,
): Promise<{ kept: KeptAnswers; at: string }> {
  const { release } = await beginning(db, use)
  const [row] = await db
    .select()
    .from(keptAnswers)
    .where(and(eq(keptAnswers.releaseId, release.id), eq(keptAnswers.hash, digestOf(secret))))
  return row ? { kept: row.kept, at: row.savedAt.toISOString() } : refuseGone()
}

/** Posts the link by which somebody goes on. The letter says nothing that they have typed. */
export async function mailKept(db: Database, use: LinkUse, secret: string, to: string): Promise<void> {
  await recallAnswers(db, use, secret)
  const { release, entrance } = await beginning(db, use)
  if (entrance?.settings?.audience.isAnonymous)
    refuse(403, 'anonymous', 'This form is anonymous: no address is kept, so no letter is posted.')
  await sendMail(db, [
    {
      responseId: null,
      to,
      subject: `${release.definition.title}: go on where you were`,
      text: `Open /f/${use.token}#continue=${secret} to go on with your answers. They are kept for ${DAYS_KEPT} days. Whoever has this link reads them; if you did not ask for it, do nothing.`,
    },
  ])
}

/** Clears what nobody went on with. */
export async function sweepKept(db: Database): Promise<void> {
  const since = new Date(Date.now() - DAYS_KEPT * 86_400_000)
  await db.delete(keptAnswers).where(lt(keptAnswers.savedAt, since))
}
