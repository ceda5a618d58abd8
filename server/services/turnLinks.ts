import { and, eq, isNull } from 'drizzle-orm'
import type { Turn } from '../../core/form/turns'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { turnLinks, turns } from '../store/schema'
import { digestOf, newSecret } from './people/tokens'

const DAY = 86_400_000

/** Makes a private link to a turn. `address`: to whom it is posted; null for one to be copied. @returns its path, which is kept nowhere */
export async function makeLink(
  db: Database,
  turnId: string,
  { linkDays }: Pick<Turn, 'linkDays'>,
  address: string | null,
): Promise<string> {
  const token = newSecret()
  const expiresAt = linkDays === undefined ? null : new Date(Date.now() + linkDays * DAY)
  await db.insert(turnLinks).values({ turnId, hash: digestOf(token), address, expiresAt })
  return `/f/${token}`
}

/** The turn of a private link, and to whom it was posted; null where there is no such link. Refused where it is no longer good. */
export async function findByLink(db: Database, token: string) {
  const [found] = await db
    .select({ row: turns, link: turnLinks })
    .from(turnLinks)
    .innerJoin(turns, eq(turnLinks.turnId, turns.id))
    .where(eq(turnLinks.hash, digestOf(token)))
  if (!found) return null
  if (found.link.revokedAt !== null)
    return refuse(410, 'link-revoked', 'This link was revoked. Ask whoever sent it for a new one.')
  if (found.link.expiresAt !== null && found.link.expiresAt.getTime() < Date.now())
    return refuse(410, 'link-expired', 'This link has expired. Ask whoever sent it for a new one.')
  return { row: found.row, address: found.link.address }
}

/** From now on no link that was made to a turn opens it. @returns how many there were */
export async function revokeLinks(db: Database, turnId: string): Promise<number> {
  const revoked = await db
    .update(turnLinks)
    .set({ revokedAt: new Date() })
    .where(and(eq(turnLinks.turnId, turnId), isNull(turnLinks.revokedAt)))
    .returning({ id: turnLinks.id })
  return revoked.length
}
