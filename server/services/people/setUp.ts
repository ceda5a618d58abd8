import { and, count, eq, gt, sql } from 'drizzle-orm'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { oneTimeKeys, users } from '../../store/schema'
import { hashPassword, type User } from './passwords'
import { digestOf, newTypedCode, readTypedCode } from './tokens'

/** How long a printed code opens an empty workspace, in hours; a restart prints a new one. */
const LIFE_HOURS = 24

/** The lock under which an empty workspace gets its first person. */
const SET_UP_LOCK = 7_204_117

/** Whether nobody is in the workspace yet. */
export async function isWaitingForSetUp(db: Database): Promise<boolean> {
  const [found] = await db.select({ number: count() }).from(users)
  return Number(found?.number ?? 0) === 0
}

/** A new code for an empty workspace, which is to be printed; null when somebody is there. */
export async function makeSetUpCode(db: Database): Promise<string | null> {
  if (!(await isWaitingForSetUp(db))) return null
  const code = newTypedCode()
  await db.delete(oneTimeKeys).where(eq(oneTimeKeys.kind, 'setup'))
  const expiresAt = new Date(Date.now() + LIFE_HOURS * 3_600_000)
  await db.insert(oneTimeKeys).values({ kind: 'setup', tokenHash: digestOf(code), expiresAt })
  return code
}

/** Makes the first person of an empty workspace, an admin, for whoever has the printed code. */
export async function setUp(
  db: Database,
  { code, name, email, password }: { code: string; name: string; email: string; password: string },
): Promise<User> {
  const passwordHash = await hashPassword(password)
  return db.transaction(async tx => {
    await tx.execute(sql`select pg_advisory_xact_lock(${SET_UP_LOCK})`)
    if (!(await isWaitingForSetUp(tx)))
      refuse(404, 'not-found', 'This workspace has been set up already. Sign in.')
    const used = await tx
      .delete(oneTimeKeys)
      .where(
        and(
          eq(oneTimeKeys.kind, 'setup'),
          eq(oneTimeKeys.tokenHash, digestOf(readTypedCode(code))),
          gt(oneTimeKeys.expiresAt, sql`now()`),
        ),
      )
      .returning({ id: oneTimeKeys.id })
    if (used.length === 0)
      refuse(
        422,
        'wrong-code',
        'This is not the code that the server printed last. A restart prints a new one.',
        [{ path: 'code', sentence: 'Not the code that was printed last.' }],
      )
    const [user] = await tx.insert(users).values({ name, email, passwordHash, role: 'admin' }).returning()
    return user ?? refuse(500, 'not-stored', 'The first person could not be stored.')
  })
}
