import { asc, count, eq } from 'drizzle-orm'
import type { NamedLook } from '../../shared/api/looks'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { looks } from '../store/schema'

/** How many looks a workspace keeps. */
const MOST_LOOKS = 60

/** The looks of the workspace, by name. */
export async function listLooks(db: Database): Promise<NamedLook[]> {
  const rows = await db.select().from(looks).orderBy(asc(looks.name))
  return rows.map(({ name, look }) => ({ ...look, name }))
}

/** Keeps a look under its name, over what was kept under it. Forms that use it keep theirs until somebody takes the new one. */
export async function saveLook(db: Database, look: NamedLook): Promise<void> {
  await db.transaction(async tx => {
    await tx
      .insert(looks)
      .values({ name: look.name, look })
      .onConflictDoUpdate({ target: looks.name, set: { look } })
    const [found] = await tx.select({ number: count() }).from(looks)
    if (Number(found?.number ?? 0) > MOST_LOOKS)
      refuse(422, 'too-many', `The workspace keeps ${MOST_LOOKS} looks at most; take one away first.`)
  })
}

/** Takes a look out of the workspace; forms that use it keep theirs. */
export async function removeLook(db: Database, name: string): Promise<void> {
  await db.delete(looks).where(eq(looks.name, name))
}
