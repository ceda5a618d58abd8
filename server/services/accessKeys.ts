import { and, desc, eq, sql } from 'drizzle-orm'
import type { AccessKey, KEY_RIGHTS, NewAccessKey } from '../../shared/api/accessKeys'
import { ResponseFilter } from '../../shared/api/responses'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { accessKeys, users } from '../store/schema'
import { countWithin } from './people/tallies'
import { digestOf, newSecret } from './people/tokens'

/** So many a form has at most, and so often each is used in a minute. */
const MOST = 50
const PER_MINUTE = { most: 300, seconds: 60 }

export type KeyRow = typeof accessKeys.$inferSelect

/** The live addresses and keys of a form, the newest first; their secrets are not kept. */
export async function listAccessKeys(db: Database, formId: string): Promise<AccessKey[]> {
  const rows = await db
    .select({ key: accessKeys, by: users.name })
    .from(accessKeys)
    .leftJoin(users, eq(users.id, accessKeys.userId))
    .where(eq(accessKeys.formId, formId))
    .orderBy(desc(accessKeys.madeAt), desc(accessKeys.id))
  return rows.map(({ key: { id, kind, name, rights, madeAt, usedAt, uses }, by }) => ({
    ...{ id, kind, name, rights, uses, by: by ?? '' },
    madeAt: madeAt.toISOString(),
    usedAt: usedAt?.toISOString() ?? null,
  }))
}

/** Makes a live address or a key. @returns its secret, which is shown this once */
export async function makeAccessKey(
  db: Database,
  formId: string,
  userId: string,
  made: NewAccessKey,
): Promise<{ id: string; secret: string }> {
  const [found] = await db
    .select({ number: sql<number>`count(*)::int` })
    .from(accessKeys)
    .where(eq(accessKeys.formId, formId))
  if ((found?.number ?? 0) >= MOST)
    return refuse(422, 'too-many-keys', `A form has at most ${MOST} addresses and keys. Revoke one first.`)
  const secret = newSecret()
  const [row] = await db
    .insert(accessKeys)
    .values({
      ...{ formId, userId, kind: made.kind, name: made.name, hash: digestOf(secret) },
      rights: made.kind === 'api' ? made.rights : [],
      filter: made.kind === 'live' ? made.filter : ResponseFilter.parse({}),
    })
    .returning({ id: accessKeys.id })
  return row ? { id: row.id, secret } : refuse(500, 'not-kept', 'It could not be kept.')
}

/** Revokes one: from now on it opens nothing. @returns its name */
export async function removeAccessKey(db: Database, formId: string, id: string): Promise<string> {
  const [gone] = await db
    .delete(accessKeys)
    .where(and(eq(accessKeys.id, id), eq(accessKeys.formId, formId)))
    .returning({ name: accessKeys.name })
  return gone?.name ?? refuse(404, 'not-found', 'It was revoked already.')
}

/** What a secret opens, counted; refused where it is none, was revoked, is used too often, or does not allow what is asked. */
export async function useAccessKey(
  db: Database,
  secret: string,
  wanted: 'live' | (typeof KEY_RIGHTS)[number],
): Promise<KeyRow> {
  const hash = digestOf(secret)
  const [row] = await db.select().from(accessKeys).where(eq(accessKeys.hash, hash))
  const isKind = row && (wanted === 'live') === (row.kind === 'live')
  if (!isKind) return refuse(401, 'no-key', 'This key opens nothing, or was revoked.')
  if (wanted !== 'live' && !row.rights.includes(wanted))
    return refuse(403, 'key-not-enough', `This key does not allow to ${wanted}.`)
  await countWithin(db, `key ${row.id}`, PER_MINUTE)
  await db
    .update(accessKeys)
    .set({ usedAt: new Date(), uses: sql`${accessKeys.uses} + 1` })
    .where(eq(accessKeys.id, row.id))
  return row
}
