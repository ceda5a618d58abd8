import { and, desc, eq, sql } from 'drizzle-orm'
import { openingState, tellOpening, type Opening, type OpeningState } from '../../core/form/opening'
import type { LimitedOption } from '../../core/form/places'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { openings, programHooks, releases, responseCounts, ways } from '../store/schema'

/** A release that a link leads to, with what says whether it takes responses. */
export interface Entrance {
  releaseId: string
  withdrawnAt: Date | null
  settings: Opening | null
  standing: number | null
  places: readonly LimitedOption[] | null
  passphraseHash: string | null
  formId: string
  /** Programs are told of what happens to its responses. */
  hasHooks: boolean
  /** The further way that it came by; null for the form’s own link and those of its releases. */
  way: Way | null
}
export type Way = typeof ways.$inferSelect

const ENTRANCE = {
  releaseId: releases.id,
  withdrawnAt: releases.withdrawnAt,
  settings: openings.settings,
  standing: responseCounts.standing,
  places: openings.places,
  passphraseHash: openings.passphraseHash,
  formId: releases.formId,
  hasHooks: sql<boolean>`exists (select 1 from ${programHooks} where ${programHooks.formId} = ${releases.formId})`,
}

/** The release behind a link: one by its own, or by the form’s or a further one the newest that is not withdrawn; null where the link is none of these. */
export async function findEntrance(db: Database, token: string): Promise<Entrance | null> {
  const [own] = await db
    .select(ENTRANCE)
    .from(releases)
    .leftJoin(openings, eq(openings.formId, releases.formId))
    .leftJoin(responseCounts, eq(responseCounts.formId, releases.formId))
    .where(eq(releases.token, token))
  if (own) return { ...own, way: null }
  const [newest] = await db
    .select(ENTRANCE)
    .from(openings)
    .innerJoin(releases, eq(releases.formId, openings.formId))
    .leftJoin(responseCounts, eq(responseCounts.formId, openings.formId))
    .where(eq(openings.token, token))
    .orderBy(...NEWEST)
    .limit(1)
  return newest ? { ...newest, way: null } : findByWay(db, token)
}

/** Withdrawn ones last, else the newest first. */
const NEWEST = [sql`${releases.withdrawnAt} is not null`, desc(releases.number)]

/** The same for a further way. Under `token~2` the second release is gone on with, whichever is the newest. */
async function findByWay(db: Database, token: string): Promise<Entrance | null> {
  const [own = '', number] = token.split('~', 2)
  const isAsked = number === undefined ? undefined : eq(releases.number, Number(number))
  const [found] = await db
    .select({ ...ENTRANCE, way: ways })
    .from(ways)
    .innerJoin(openings, eq(openings.formId, ways.formId))
    .innerJoin(releases, eq(releases.formId, ways.formId))
    .leftJoin(responseCounts, eq(responseCounts.formId, ways.formId))
    .where(and(eq(ways.token, own), isAsked))
    .orderBy(...NEWEST)
    .limit(1)
  return found ?? null
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
