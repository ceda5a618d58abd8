import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import { and, eq, isNull, lt, or } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import { toString as drawCode } from 'qrcode'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { users } from '../../store/schema'
import type { User } from './passwords'

// Time-based one-time passwords: RFC 6238, with what every authenticator takes: SHA-1, six digits, thirty seconds.
const PERIOD = 30
/** A clock may be so many steps off. */
const WINDOW = 1

const totpOf = (secret: Secret, email: string) =>
  new TOTP({ issuer: 'Tobbin', label: email, secret, period: PERIOD, digits: 6, algorithm: 'SHA1' })

const keyOf = (sealedWith: string) =>
  Buffer.from(hkdfSync('sha256', sealedWith, '', 'tobbin second factor', 32))

function seal(text: string, sealedWith: string): string {
  const iv = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', keyOf(sealedWith), iv)
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64url')
}

/** The sealed text; null when it was sealed with another secret. */
function unseal(sealed: string, sealedWith: string): string | null {
  const bytes = Buffer.from(sealed, 'base64url')
  const decipher = createDecipheriv('aes-256-gcm', keyOf(sealedWith), bytes.subarray(0, 12))
  decipher.setAuthTag(bytes.subarray(12, 28))
  try {
    return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8')
  } catch {
    return null // the server's session secret is another one than then
  }
}

/** Begins a second factor: it counts once a code of it was given. One that is set has to be taken away first. `sealedWith`: the server's session secret. */
export async function beginSecondFactor(db: Database, user: User, sealedWith: string) {
  const secret = new Secret({ size: 20 })
  const uri = totpOf(secret, user.email).toString()
  const begun = await db
    .update(users)
    .set({ totpSecret: seal(secret.base32, sealedWith), totpStep: null })
    .where(and(eq(users.id, user.id), eq(users.totpConfirmed, false)))
    .returning({ id: users.id })
  if (begun.length === 0)
    refuse(409, 'factor-set', 'A second factor is set already. Take it away before another one is begun.')
  return { secret: secret.base32, uri, picture: await drawCode(uri, { type: 'svg', margin: 1 }) }
}

/** Uses a code of somebody's second factor up: no code counts twice, nor one older than the last. */
export async function isCodeOf(
  db: Database,
  { id, email, totpSecret }: User,
  typed: string,
  sealedWith: string,
): Promise<boolean> {
  const secret = totpSecret === null ? null : unseal(totpSecret, sealedWith)
  if (secret === null)
    refuse(
      409,
      'factor-unreadable',
      'The second factor of this account can’t be read on this server. Ask an admin to take it away.',
    )
  const delta = totpOf(Secret.fromBase32(secret), email).validate({
    token: typed.replace(/\s/g, ''),
    window: WINDOW,
  })
  if (delta === null) return false
  const step = Math.floor(Date.now() / 1000 / PERIOD) + delta
  const used = await db
    .update(users)
    .set({ totpStep: step })
    .where(and(eq(users.id, id), or(isNull(users.totpStep), lt(users.totpStep, step))))
    .returning({ id: users.id })
  return used.length > 0
}

/** Lets the second factor count from now on. */
export async function confirmSecondFactor(db: Database, userId: string): Promise<void> {
  await db.update(users).set({ totpConfirmed: true }).where(eq(users.id, userId))
}

/** Takes the second factor of somebody away. */
export async function removeSecondFactor(db: Database, userId: string): Promise<void> {
  await db
    .update(users)
    .set({ totpSecret: null, totpConfirmed: false, totpStep: null })
    .where(eq(users.id, userId))
}
