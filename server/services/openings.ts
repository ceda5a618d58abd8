import { randomBytes, randomInt } from 'node:crypto'
import { and, desc, eq, sql } from 'drizzle-orm'
import { namesRespondents } from '../../core/form/audience'
import type { Form } from '../../core/form/definition'
import { Opening, openingState } from '../../core/form/opening'
import type { LoadedOpening } from '../../shared/api/openings'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { refuseNotOpen } from './entrances'
import { openings, releases, responseCounts, ways } from '../store/schema'

/** The opening of a form: its address, its settings, and how many responses stand. It begins with its first release. */
export async function loadOpening(db: Database, formId: string): Promise<LoadedOpening> {
  await ensureOpening(db, formId)
  const [found] = await db
    .select({
      token: openings.token,
      code: openings.code,
      settings: openings.settings,
      standing: responseCounts.standing,
      hasPassphrase: sql<boolean>`${openings.passphraseHash} is not null`,
      places: openings.places,
      approval: openings.approval,
    })
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
  if (settings.audience.isAnonymous) await refuseNamed(db, formId)
  await db.update(openings).set({ settings }).where(eq(openings.formId, formId))
  return loadOpening(db, formId)
}

/** Refuses to call a form anonymous that knows who answers it. */
async function refuseNamed(db: Database, formId: string): Promise<void> {
  const [newest] = await db
    .select({ definition: releases.definition })
    .from(releases)
    .where(eq(releases.formId, formId))
    .orderBy(desc(releases.number))
    .limit(1)
  if (newest) refuseNaming(newest.definition)
  const [person] = await db
    .select({ id: ways.id })
    .from(ways)
    .where(and(eq(ways.formId, formId), eq(ways.kind, 'person')))
    .limit(1)
  if (person) refuse(422, 'not-anonymous', 'Responses can’t be anonymous: some people have personal links.')
}

/** Refuses a form whose responses can’t be anonymous. */
export function refuseNaming(form: Form): void {
  const why = namesRespondents(form)
  if (why !== null) refuse(422, 'not-anonymous', `Responses can’t be anonymous: ${why}.`)
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

/** Refuses where as many responses stand as the form takes. */
export async function refuseIfFull(db: Database, formId: string): Promise<void> {
  const { settings, state } = await loadOpening(db, formId)
  if (state === 'full') refuseNotOpen(settings, state)
}

/** A short address is typed off paper: no letter in it is taken for another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'
const CODE = 7
/** Somebody else’s code is hit once in some thousand million times. */
const TRIES = 5

/** Gives a form its short address; one that it has it keeps. @returns its end */
export async function makeShortAddress(db: Database, formId: string): Promise<string> {
  await ensureOpening(db, formId)
  for (let tries = 0; tries < TRIES; tries++) {
    const code = Array.from({ length: CODE }, () => LETTERS[randomInt(LETTERS.length)]).join('')
    const [taken] = await db.select({ id: openings.formId }).from(openings).where(eq(openings.code, code))
    if (taken) continue
    const [opening] = await db
      .update(openings)
      .set({ code: sql`coalesce(${openings.code}, ${code})` })
      .where(eq(openings.formId, formId))
      .returning({ code: openings.code })
    if (opening?.code) return opening.code
  }
  throw new Error('No short address was free.')
}

/** The token behind a short address; null where there is none. */
export async function findByCode(db: Database, code: string): Promise<string | null> {
  const [found] = await db
    .select({ token: openings.token })
    .from(openings)
    .where(eq(openings.code, code.trim().toLowerCase()))
  return found?.token ?? null
}
