import { hash, verify } from '@node-rs/argon2'
import { eq } from 'drizzle-orm'
import type { Database } from '../../store/database'
import { users } from '../../store/schema'

/** Argon2id with the parameters that OWASP recommends (19 MiB, 2 passes). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON)

/** Verified where there is no such user or password, so that it takes as long. */
let nobody: Promise<string> | null = null

/** Whether a password is this one; takes as long where there is none. */
export async function isPassword(passwordHash: string | null, password: string): Promise<boolean> {
  const fits = await verify(
    passwordHash ?? (await (nobody ??= hashPassword('nobody has this password'))),
    password,
  )
  return fits && passwordHash !== null
}

export type User = typeof users.$inferSelect

/** The user with this e-mail and password, or null; nobody who is suspended. Takes as long when there is no such user. */
export async function findUser(db: Database, email: string, password: string): Promise<User | null> {
  const [user] = await db.select().from(users).where(eq(users.email, email.trim().toLowerCase()))
  const fits = await isPassword(user?.passwordHash ?? null, password)
  return user && fits && user.suspendedAt === null ? user : null
}
