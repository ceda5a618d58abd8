import { and, asc, count, eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { Delivery } from '../../../core/form/deliveries'
import type { ApiHook, MadeHook, NewHook } from '../../../shared/api/accessKeys'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { programHooks } from '../../store/schema'
import type { KeyRow } from '../accessKeys'
import { secretOf } from './hookOf'

/** So many web hooks a key has at most. */
const MOST = 20

/** The web hooks that programs have asked for, as what a form does by itself: under codes that none of its own has. */
export async function listProgramHooks(db: Database, formId: string): Promise<Delivery[]> {
  const rows = await db.select().from(programHooks).where(eq(programHooks.formId, formId))
  return rows.map(({ id, on, address }) => ({
    ...{ code: `program ${id}`, title: 'Web hook of a program', on },
    act: { do: 'hook', address },
  }))
}

const told = ({ id, on, address }: typeof programHooks.$inferSelect): z.output<typeof ApiHook> => ({
  ...{ id, on, address },
})

/** The web hooks of a key, the oldest first. */
export async function listHooksOfKey(db: Database, key: KeyRow): Promise<z.output<typeof ApiHook>[]> {
  const rows = await db
    .select()
    .from(programHooks)
    .where(eq(programHooks.keyId, key.id))
    .orderBy(asc(programHooks.madeAt), asc(programHooks.id))
  return rows.map(told)
}

/** Has an address called from now on whenever something happens to a response of the form of a key. */
export async function makeHook(
  db: Database,
  { id: keyId, formId }: KeyRow,
  hook: z.output<typeof NewHook>,
): Promise<z.output<typeof MadeHook>> {
  const [found] = await db.select({ number: count() }).from(programHooks).where(eq(programHooks.keyId, keyId))
  if (Number(found?.number ?? 0) >= MOST)
    return refuse(422, 'too-many-hooks', `A key has at most ${MOST} web hooks. Remove one first.`)
  const [row] = await db
    .insert(programHooks)
    .values({ formId, keyId, ...hook })
    .returning()
  if (!row) return refuse(500, 'not-kept', 'It could not be kept.')
  return { ...told(row), secret: await secretOf(db, formId) }
}

/** Ends a web hook of a key. */
export async function removeHook(db: Database, key: KeyRow, id: string): Promise<void> {
  const gone = await db
    .delete(programHooks)
    .where(and(eq(programHooks.id, id), eq(programHooks.keyId, key.id)))
    .returning({ id: programHooks.id })
  if (gone.length === 0) refuse(404, 'not-found', 'This key has no such web hook.')
}
