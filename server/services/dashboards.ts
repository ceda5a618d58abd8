import { and, asc, count, eq, inArray, or } from 'drizzle-orm'
import type { z } from 'zod'
import type { Dashboard, NewDashboard } from '../../shared/api/dashboards'
import { MOST_DASHBOARDS } from '../../shared/api/dashboards'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { dashboards, forms, users } from '../store/schema'
import { listFormsWith } from './people/rights'

/** The dashboards that somebody keeps, and those shared ones on which a figure of a form stands whose responses they may see. */
export async function listDashboards(db: Database, userId: string): Promise<Dashboard[]> {
  const titles = await titlesOf(db, await listFormsWith(db, userId, 'responses'))
  const rows = await db
    .select({ board: dashboards, by: users.name })
    .from(dashboards)
    .innerJoin(users, eq(users.id, dashboards.userId))
    .where(or(eq(dashboards.userId, userId), eq(dashboards.isShared, true)))
    .orderBy(asc(dashboards.name), asc(dashboards.id))
  return rows.flatMap(({ board: { id, name, isShared, tiles, userId: owner }, by }): Dashboard[] => {
    const shown = tiles.flatMap(tile => {
      const formTitle = titles.get(tile.form)
      return formTitle === undefined ? [] : [{ ...tile, formTitle }]
    })
    const isOwn = owner === userId
    if (!isOwn && shown.length === 0) return []
    return [{ id, name, isShared, isOwn, by, tiles: shown, hidden: tiles.length - shown.length }]
  })
}

async function titlesOf(db: Database, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: forms.id, title: forms.title })
    .from(forms)
    .where(inArray(forms.id, [...ids]))
  return new Map(rows.map(row => [row.id, row.title]))
}

/** Keeps a dashboard for somebody. @returns its id */
export async function keepDashboard(
  db: Database,
  userId: string,
  board: z.output<typeof NewDashboard>,
): Promise<{ id: string }> {
  const [found] = await db.select({ number: count() }).from(dashboards).where(eq(dashboards.userId, userId))
  if (Number(found?.number ?? 0) >= MOST_DASHBOARDS)
    refuse(422, 'too-many-dashboards', `You keep at most ${MOST_DASHBOARDS} dashboards. Delete one first.`)
  const [kept] = await db
    .insert(dashboards)
    .values({ userId, ...board })
    .returning({ id: dashboards.id })
  return kept ?? refuse(500, 'not-kept', 'The dashboard could not be kept.')
}

const isTheirs = (id: string, userId: string) => and(eq(dashboards.id, id), eq(dashboards.userId, userId))
const refuseOthers = () => refuse(404, 'not-found', 'There is no such dashboard among yours.')

/** Changes a dashboard of somebody’s own. Figures of forms that they may no longer see stay on it, unseen. */
export async function changeDashboard(
  db: Database,
  userId: string,
  id: string,
  board: z.output<typeof NewDashboard>,
): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(dashboards).where(isTheirs(id, userId)).for('update')
    if (!row) return refuseOthers()
    const seen = new Set(await listFormsWith(tx, userId, 'responses'))
    const unseen = row.tiles.filter(tile => !seen.has(tile.form))
    const tiles = [...board.tiles, ...unseen]
    await tx
      .update(dashboards)
      .set({ ...board, tiles })
      .where(eq(dashboards.id, id))
  })
}

/** Deletes a dashboard of somebody’s own. */
export async function deleteDashboard(db: Database, userId: string, id: string): Promise<void> {
  const gone = await db.delete(dashboards).where(isTheirs(id, userId)).returning({ id: dashboards.id })
  if (gone.length === 0) refuseOthers()
}
