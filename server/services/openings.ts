import { randomBytes } from 'node:crypto'
import { and, desc, eq, sql } from 'drizzle-orm'
import type { LimitedOption } from '../../core/form/places'
import { Opening, openingState, tellOpening, type OpeningState } from '../../core/form/opening'
import type { LoadedOpening } from '../../shared/api/openings'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, releases, responseCounts } from '../store/schema'

/** The opening of a form: its address, its settings, and how many responses stand. It begins with its first release. */
export async function loadOpening(db: Database, formId: string): Promise<LoadedOpening> {
  await ensureOpening(db, formId)
  const [found] = await db
    .select({ token: openings.token, settings: openings.settings, standing: responseCounts.standing })
    .from(openings)
    .leftJoin(responseCounts, eq(responseCounts.formId, openings.formId))
    .where(eq(openings.formId, formId))
  if (!found) return refuse(404, 'not-found', 'There is no such form.')
  const standing = found.standing ?? 0
  return { ...found, standing, state: openingState(found.settings, new Date(), standing) }
}

/** Gives a form its address, where it has none. */
export async function ensureOpening(db: Database, formId: string): Promise<void> {
  await db
    .insert(openings)
    .values({ formId, token: randomBytes(15).toString('base64url'), settings: Opening.parse({}) })
    .onConflictDoNothing()
}

/** Sets when a form takes responses. */
export async function saveOpening(db: Database, formId: string, settings: Opening): Promise<LoadedOpening> {
  await ensureOpening(db, formId)
  await db.update(openings).set({ settings }).where(eq(openings.formId, formId))
  return loadOpening(db, formId)
}

/** Withdraws a release, or puts it back. */
export async function withdrawRelease(
  db: Database,
  formId: string,
  number: number,
  isWithdrawn: boolean,
): Promise<void> {
  const [changed] = await db
    .update(releases)
    .set({ withdrawnAt: isWithdrawn ? new Date() : null })
    .where(and(eq(releases.formId, formId), eq(releases.number, number)))
    .returning({ id: releases.id })
  if (!changed) refuse(404, 'not-found', 'There is no such version.')
}

/** A release that a link leads to, with what says whether it takes responses. */
export interface Entrance {
  releaseId: string
  withdrawnAt: Date | null
  settings: Opening | null
  standing: number | null
  places: readonly LimitedOption[] | null
}

const ENTRANCE = {
  releaseId: releases.id,
  withdrawnAt: releases.withdrawnAt,
  settings: openings.settings,
  standing: responseCounts.standing,
  places: openings.places,
}

/** The release behind a link: one by its own, or by the form’s the newest that is not withdrawn; null where the link is none of these. */
export async function findEntrance(db: Database, token: string): Promise<Entrance | null> {
  const [own] = await db
    .select(ENTRANCE)
    .from(releases)
    .leftJoin(openings, eq(openings.formId, releases.formId))
    .leftJoin(responseCounts, eq(responseCounts.formId, releases.formId))
    .where(eq(releases.token, token))
  if (own) return own
  const [newest] = await db
    .select(ENTRANCE)
    .from(openings)
    .innerJoin(releases, eq(releases.formId, openings.formId))
    .leftJoin(responseCounts, eq(responseCounts.formId, openings.formId))
    .where(eq(openings.token, token))
    .orderBy(sql`${releases.withdrawnAt} is not null`, desc(releases.number))
    .limit(1)
  return newest ?? null
}

const CODES: Record<Exclude<OpeningState, 'open'>, string> = {
  before: 'not-open-yet',
  between: 'closed-for-now',
  after: 'closed',
  full: 'full',
}

/** Where a release stands for a response. `isLate`: it was begun before; whether there is room then shows when it is stored. */
function stateOf({ withdrawnAt, settings, standing }: Entrance, isLate: boolean): OpeningState | 'withdrawn' {
  if (withdrawnAt !== null) return 'withdrawn'
  const state = settings === null ? 'open' : openingState(settings, new Date(), standing ?? 0, isLate)
  return isLate && state === 'full' ? 'open' : state
}

/** Whether a response that was begun is still taken. */
export const isStillTaken = (entrance: Entrance): boolean => stateOf(entrance, true) === 'open'

/** Refuses where no responses are taken, with what the form says to that. */
export function refuseUnlessTaken(entrance: Entrance, isLate: boolean): void {
  const state = stateOf(entrance, isLate)
  if (state === 'withdrawn')
    refuse(
      410,
      'version-withdrawn',
      'This version of the form was withdrawn. Ask whoever sent it for a new link.',
    )
  if (state !== 'open' && entrance.settings) refuseNotOpen(entrance.settings, state)
}

/** Refuses a response in one of the states in which none are taken. */
export const refuseNotOpen = (settings: Opening, state: Exclude<OpeningState, 'open'>) =>
  refuse(403, CODES[state], tellOpening(settings, state))

/** Refuses where as many responses stand as the form takes. */
export async function refuseIfFull(db: Database, formId: string): Promise<void> {
  const { settings, state } = await loadOpening(db, formId)
  if (state === 'full') refuseNotOpen(settings, state)
}
