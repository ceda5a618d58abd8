import { hash, verify } from '@node-rs/argon2'
import { eq } from 'drizzle-orm'
import type { Database } from '../store/database'
import { users } from '../store/schema'

/** Argon2id with the parameters that OWASP recommends (19 MiB, 2 passes). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashOf = (password: string): Promise<string> => hash(password, ARGON)

let nobody: Promise<string> | null = null

/** The user with this e-mail and password, or null. Takes as long when there is no such user. */
export async function userWith(
  db: Database,
  email: string,
  password: string,
): Promise<{ id: string; name: string; email: string } | null> {
  const [user] = await db.select().from(users).where(eq(users.email, email.trim().toLowerCase()))
  const passwordHash = user?.passwordHash ?? (await (nobody ??= hashOf('nobody has this password')))
  const fits = await verify(passwordHash, password)
  return user && fits ? { id: user.id, name: user.name, email: user.email } : null
}
