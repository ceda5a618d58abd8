import { hash, verify } from '@node-rs/argon2'
import { eq } from 'drizzle-orm'
import type { Designer } from '../../shared/api/session'
import type { Database } from '../store/database'
import { users } from '../store/schema'

/** Argon2id with the parameters that OWASP recommends (19 MiB, 2 passes). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON)

/** Verified where there is no such user, so that it takes as long. */
let nobody: Promise<string> | null = null

/** The user with this e-mail and password, or null. Takes as long when there is no such user. */
export async function findUser(db: Database, email: string, password: string): Promise<Designer | null> {
  const [user] = await db.select().from(users).where(eq(users.email, email.trim().toLowerCase()))
  const passwordHash = user?.passwordHash ?? (await (nobody ??= hashPassword('nobody has this password')))
  const fits = await verify(passwordHash, password)
  return user && fits ? { id: user.id, name: user.name, email: user.email } : null
}
