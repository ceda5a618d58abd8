import { and, asc, count, eq, inArray, isNotNull, notInArray, or } from 'drizzle-orm'
import type { z } from 'zod'
import type { KeptView, NewView, Tray, Trays, Workbench } from '../../shared/api/workbench'
import { MOST_VIEWS } from '../../shared/api/workbench'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, trays, users, views } from '../store/schema'
import { countFailing } from './deliveries/log'
import { listReaders } from './people/readers'
import { loadRetention } from './keptFor'
import { selectionIfAskable } from './selectResponses'
import { loadVersions } from './versions'

/** Responses of a form up to which each view says how many it shows. */
const COUNTED_UP_TO = 20_000

const responsesOf = (db: Database, formId: string) =>
  db
    .select({ number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .$dynamic()
    .where(eq(releases.formId, formId))

/** What stands beside the responses of a form, for somebody who may see them. */
export async function loadWorkbench(db: Database, formId: string, userId: string): Promise<Workbench> {
  const kept = await listTrays(db, formId)
  const counts = await db
    .select({ tray: responses.trayId, isBinned: isNotNull(responses.binnedAt), number: count() })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(releases.formId, formId))
    .groupBy(responses.trayId, isNotNull(responses.binnedAt))
  const sum = (fits: (row: (typeof counts)[number]) => boolean) =>
    counts.filter(fits).reduce((all, row) => all + Number(row.number), 0)
  const all = sum(row => !row.isBinned)
  return {
    trays: kept.map((tray): Tray => ({
      ...tray,
      count: sum(row => !row.isBinned && row.tray === tray.id),
    })),
    untrayed: sum(row => !row.isBinned && row.tray === null),
    binned: sum(row => row.isBinned === true),
    failing: await countFailing(db, formId),
    readers: await listReaders(db, formId),
    retention: await loadRetention(db, formId),
    views: await listViews(db, formId, userId, all <= COUNTED_UP_TO),
  }
}

/** The trays of a form in their order. */
export const listTrays = (db: Database, formId: string) =>
  db
    .select({ id: trays.id, name: trays.name, tells: trays.tells })
    .from(trays)
    .where(eq(trays.formId, formId))
    .orderBy(asc(trays.position))

/** Makes the trays of a form what they are to be: renamed, ordered, made and taken away; what stands in one that goes is in none. */
export async function saveTrays(db: Database, formId: string, wanted: Trays): Promise<void> {
  const names = new Set(wanted.map(tray => tray.name.toLowerCase()))
  if (names.size < wanted.length) refuse(422, 'same-name', 'Two trays have the same name.')
  await db.transaction(async tx => {
    const kept = wanted.flatMap(tray => tray.id ?? [])
    await tx
      .delete(trays)
      .where(and(eq(trays.formId, formId), kept.length > 0 ? notInArray(trays.id, kept) : undefined))
    for (const [position, { id, name, tells }] of wanted.entries())
      if (id === null) await tx.insert(trays).values({ formId, position, name, tells })
      else
        await tx
          .update(trays)
          .set({ position, name, tells })
          .where(and(eq(trays.id, id), eq(trays.formId, formId)))
  })
}

async function listViews(
  db: Database,
  formId: string,
  userId: string,
  isCounted: boolean,
): Promise<KeptView[]> {
  const rows = await db
    .select({ view: views, by: users.name })
    .from(views)
    .innerJoin(users, eq(users.id, views.userId))
    .where(and(eq(views.formId, formId), or(eq(views.userId, userId), eq(views.isShared, true))))
    .orderBy(asc(views.name), asc(views.id))
  const definitions = rows.length > 0 && isCounted ? await loadVersions(db, formId) : null
  const found: KeptView[] = []
  for (const { view, by } of rows) {
    const { id, name, isShared, settings, digest } = view
    const number = definitions && (await countShown(db, formId, settings, definitions))
    found.push({ id, name, isShared, settings, digest, by, isOwn: view.userId === userId, count: number })
  }
  return found
}

/** How many responses a view shows; null where it asks for what the form doesn’t have any more. */
async function countShown(
  db: Database,
  formId: string,
  { filter }: KeptView['settings'],
  definitions: Awaited<ReturnType<typeof loadVersions>>,
): Promise<number | null> {
  const where = selectionIfAskable(formId, filter, definitions)
  if (!where) return null
  const [found] = await responsesOf(db, formId).where(where)
  return Number(found?.number ?? 0)
}

/** Keeps a view for somebody. @returns its id */
export async function keepView(
  db: Database,
  formId: string,
  userId: string,
  view: z.output<typeof NewView>,
): Promise<{ id: string }> {
  const [number] = await db.select({ number: count() }).from(views).where(eq(views.formId, formId))
  if (Number(number?.number ?? 0) >= MOST_VIEWS)
    refuse(422, 'too-many-views', `At most ${MOST_VIEWS} views are kept of a form. Delete one first.`)
  const [kept] = await db
    .insert(views)
    .values({ formId, userId, ...view, digestedAt: new Date() })
    .returning({ id: views.id })
  return kept ?? refuse(500, 'not-kept', 'The view could not be kept.')
}

const isTheirs = (formId: string, id: string, userId: string) =>
  and(eq(views.id, id), eq(views.formId, formId), eq(views.userId, userId))

const refuseOthers = () =>
  refuse(404, 'not-found', 'There is no such view among yours. Keep it under another name.')

/** Changes a view of somebody’s own. */
export async function changeView(
  db: Database,
  formId: string,
  userId: string,
  id: string,
  view: z.output<typeof NewView>,
): Promise<void> {
  const changed = await db
    .update(views)
    .set({ ...view, digestedAt: new Date() })
    .where(isTheirs(formId, id, userId))
    .returning({ id: views.id })
  if (changed.length === 0) refuseOthers()
}

/** Deletes a view of somebody’s own. */
export async function deleteView(db: Database, formId: string, userId: string, id: string): Promise<void> {
  const gone = await db
    .delete(views)
    .where(isTheirs(formId, id, userId))
    .returning({ id: views.id })
  if (gone.length === 0) refuseOthers()
}

/** The responses with some ids that are of a form. */
export const ofForm = (db: Database, formId: string, ids: readonly string[]) =>
  and(
    inArray(responses.id, [...ids]),
    inArray(
      responses.releaseId,
      db.select({ id: releases.id }).from(releases).where(eq(releases.formId, formId)),
    ),
  )
