import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { Account } from '../../../shared/api/session'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { users } from '../../store/schema'
import { hashPassword, isPassword, type User } from './passwords'
import { loadUser } from './people'
import { confirmSecondFactor, isCodeOf } from './secondFactor'
import { endSessions, listSessions, type Caller } from './sessions'
import { countTry, forgetTries } from './tallies'

/** One's own account, with the browsers that are signed in. */
export async function loadAccount(db: Database, caller: Caller): Promise<z.infer<typeof Account>> {
  const { name, email, role, totpConfirmed } = await loadUser(db, caller.id)
  return { name, email, role, hasSecondFactor: totpConfirmed, sessions: await listSessions(db, caller) }
}

/** Asks for one's own password once more, before something is changed that others must not. */
export async function confirmOwn(db: Database, caller: Caller, password: string): Promise<User> {
  await countTry(db, 'signInByAddress', caller.email)
  const user = await loadUser(db, caller.id)
  const sentence = 'This is not your password.'
  if (!(await isPassword(user.passwordHash, password)))
    refuse(422, 'wrong-password', sentence, [{ path: 'old', sentence }])
  await forgetTries(db, 'signInByAddress', caller.email)
  return user
}

/** Changes one's own password; every other browser is signed out. */
export async function changePassword(
  db: Database,
  caller: Caller,
  { old, password }: { old: string; password: string },
): Promise<void> {
  await confirmOwn(db, caller, old)
  const passwordHash = await hashPassword(password)
  await db.update(users).set({ passwordHash }).where(eq(users.id, caller.id))
  await endSessions(db, caller.id, caller.sessionId)
}

/** Lets a second factor count that was begun, once a code of it fits. */
export async function setSecondFactor(
  db: Database,
  caller: Caller,
  code: string,
  sealedWith: string,
): Promise<void> {
  await countTry(db, 'signInByAddress', caller.email)
  const user = await loadUser(db, caller.id)
  if (user.totpSecret === null || user.totpConfirmed)
    refuse(409, 'not-begun', 'Begin with “Set a second factor”.')
  const sentence = 'This code doesn’t fit. Each counts for half a minute, and once.'
  if (!(await isCodeOf(db, user, code, sealedWith)))
    refuse(422, 'wrong-code', sentence, [{ path: 'code', sentence }])
  await confirmSecondFactor(db, caller.id)
}
