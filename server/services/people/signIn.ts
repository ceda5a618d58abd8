import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { postKey } from './oneTimeKeys'
import { findUser, type User } from './passwords'
import { findByEmail } from './people'
import { keepRecord } from './record'
import { isCodeOf } from './secondFactor'
import { countTry, forgetTries, forgiveTry } from './tallies'

/** Who signs in; refused, and counted, where e-mail, password or code don't fit. `sealedWith`: the server's session secret. */
export async function signIn(
  db: Database,
  { email, password, code }: { email: string; password: string; code?: string },
  source: string,
  sealedWith: string,
): Promise<User> {
  const address = email.trim().toLowerCase()
  await countTry(db, 'signInBySource', source)
  await countTry(db, 'signInByAddress', address)
  const user = await findUser(db, address, password)
  if (!user) return refuseSignIn(db, await findByEmail(db, address), source, 'wrong-sign-in')
  if (user.totpConfirmed) {
    if (code === undefined) return refuseWithoutCode()
    if (!(await isCodeOf(db, user, code, sealedWith))) return refuseSignIn(db, user, source, 'wrong-code')
  }
  await forgetTries(db, 'signInByAddress', address)
  await forgiveTry(db, 'signInBySource', source)
  await keepRecord(db, { id: user.id, name: user.name, source }, 'signed in')
  return user
}

const REFUSED = {
  'wrong-sign-in': 'E-mail and password don’t fit together.',
  'wrong-code': 'This code doesn’t fit. Each counts for half a minute, and once.',
}

/** The record names a person of the workspace; what a stranger typed is not kept. */
async function refuseSignIn(
  db: Database,
  user: User | null,
  source: string,
  why: keyof typeof REFUSED,
): Promise<never> {
  await keepRecord(db, { id: user?.id ?? null, name: user?.name ?? 'somebody', source }, 'sign-in refused', {
    details: { why },
  })
  return refuse(401, why, REFUSED[why])
}

/** Refuses whoever has a second factor and gave no code of it. */
export const refuseWithoutCode = (): never =>
  refuse(401, 'code-needed', 'Type the code that your authenticator shows for Tobbin.')

/** Posts a link to choose another password to somebody who has one. Says nothing of whether there is such a person. */
export async function forgetPassword(db: Database, email: string, source: string): Promise<void> {
  const address = email.trim().toLowerCase()
  await countTry(db, 'resetBySource', source)
  await countTry(db, 'resetByAddress', address)
  const user = await findByEmail(db, address)
  if (!user || user.suspendedAt !== null || user.passwordHash === null) return
  await postKey(db, user, 'reset', user.name)
  await keepRecord(db, { id: user.id, name: user.name, source }, 'password reset asked for')
}
