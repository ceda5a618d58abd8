import { and, eq, gt, lt, sql } from 'drizzle-orm'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { oneTimeKeys, users } from '../../store/schema'
import { sendMail } from '../../stand-ins/mailer'
import { hashPassword, type User } from './passwords'
import { endSessions } from './sessions'
import { digestOf, newSecret } from './tokens'

type Kind = 'invite' | 'reset'

/** How long a key opens something, in hours. */
const LIFE: Record<Kind, number> = { invite: 7 * 24, reset: 1 }

/** Makes a key for somebody; one of the same kind made before no longer opens anything. */
async function makeKey(db: Database, userId: string, kind: Kind): Promise<string> {
  const token = newSecret()
  await db.delete(oneTimeKeys).where(and(eq(oneTimeKeys.userId, userId), eq(oneTimeKeys.kind, kind)))
  const expiresAt = new Date(Date.now() + LIFE[kind] * 3_600_000)
  await db.insert(oneTimeKeys).values({ kind, userId, tokenHash: digestOf(token), expiresAt })
  return token
}

/** Posts a link with a new key; gives the link's path. */
export async function postKey(
  db: Database,
  user: Pick<User, 'id' | 'email' | 'name'>,
  kind: Kind,
  by: string,
): Promise<string> {
  const link = `/key/${await makeKey(db, user.id, kind)}`
  const text = {
    invite: `${by} has invited you to Tobbin. Open ${link} within seven days and choose your password.`,
    reset: `Somebody, hopefully you, has forgotten your password. Open ${link} within an hour and choose another one. If it was not you, do nothing.`,
  }
  const subject = { invite: 'You are invited to Tobbin', reset: 'Another password for Tobbin' }
  await sendMail(db, [{ responseId: null, to: user.email, subject: subject[kind], text: text[kind] }])
  return link
}

/** What a key opens, and for whom; refused when it opens nothing (any more). `lock` keeps it for this transaction. */
export async function openKey(db: Database, token: string, lock = false) {
  const query = db
    .select({ id: oneTimeKeys.id, kind: oneTimeKeys.kind, user: users })
    .from(oneTimeKeys)
    .innerJoin(users, eq(oneTimeKeys.userId, users.id))
    .where(and(eq(oneTimeKeys.tokenHash, digestOf(token)), gt(oneTimeKeys.expiresAt, sql`now()`)))
  const [found] = lock ? await query.for('update') : await query
  if (!found || found.kind === 'setup' || found.user.suspendedAt !== null)
    return refuse(404, 'not-found', 'This link opens nothing any more. Ask for a new one.')
  return { id: found.id, kind: found.kind, user: found.user }
}

/** Uses a key up: its person has this password from now on, and no session of before. */
export async function choosePassword(
  db: Database,
  token: string,
  password: string,
): Promise<{ user: User; kind: Kind }> {
  const passwordHash = await hashPassword(password)
  return db.transaction(async tx => {
    const { kind, user } = await openKey(tx, token, true)
    await tx.delete(oneTimeKeys).where(eq(oneTimeKeys.userId, user.id))
    await tx.update(users).set({ passwordHash }).where(eq(users.id, user.id))
    await endSessions(tx, user.id)
    return { user, kind }
  })
}

/** Clears keys that are over. */
export async function sweepKeys(db: Database): Promise<void> {
  await db.delete(oneTimeKeys).where(lt(oneTimeKeys.expiresAt, sql`now()`))
}
