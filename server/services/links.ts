import { eq } from 'drizzle-orm'
import { z } from 'zod'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import type { Turn } from '../../core/form/turns'
import { filledBy, firstTurn, turnOf } from '../../core/parties/turns'
import { peopleLists, withPeople, type PeopleRows } from '../../core/lists/people'
import type { Designer } from '../../shared/api/session'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { refuseIfSpent, refuseUnlessAdmitted } from './admission'
import { findEntrance, refuseUnlessTaken, type Entrance } from './entrances'
import { presentPeople } from './teamRows'
import { findPowers } from './people/rights'
import { findByOwnLink } from './ownLinks'
import { lockTurn } from './openTurnTarget'
import { findByLink } from './turnLinks'

type Release = typeof releases.$inferSelect
type TurnRow = typeof turns.$inferSelect

/** Whoever opens a link: by what stands in it, and as whom they are signed in. */
export interface LinkUse {
  /** The token of a release or a private link, or the id of a turn, which only those open who are signed in. */
  token: string
  caller: Pick<Designer, 'id' | 'name' | 'email'> | null
  /** What the browser has of passphrases that were entered. */
  passes?: readonly string[]
  /** A digest of where the request comes from, which tells nothing else. */
  source?: string
}

/** What a link leads to: a release to begin with, or a turn of a response under way. */
export interface LinkTarget {
  release: Release
  plan: Plan
  /** The turn that the link opens; null in a form without turns. */
  turn: Turn | null
  /** The turn as it is stored; null for the link of a release, and for the own link of a response, which has its response. */
  row: TurnRow | null
  response: typeof responses.$inferSelect | null
  /** Who has opened it, as far as it is known: a name or an address, else empty. */
  who: string
  /** What decides whether a response is taken; null for turns under way. */
  entrance: Entrance | null
}

/** `lock` keeps the response with its turns for this transaction. `for`: a response is begun, which has to be before the closing; goes on; or is sent, where it may have been taken already. */
interface Resolving {
  lock?: boolean
  for?: 'beginning' | 'goingOn' | 'sending'
}

/** What a link leads to. */
export async function resolveLink(
  db: Database,
  use: LinkUse,
  { lock = false, for: purpose = 'goingOn' }: Resolving = {},
): Promise<LinkTarget> {
  const entrance = await findEntrance(db, use.token)
  if (!entrance) return (await resolveOwn(db, use, lock)) ?? resolveTurn(db, use, lock)
  if (purpose !== 'sending') refuseUnlessTaken(entrance, purpose === 'goingOn')
  await refuseUnlessAdmitted(db, use, entrance)
  if (purpose === 'beginning') await refuseIfSpent(db, use, entrance)
  const { release, plan } = await readyTarget(db, entrance.releaseId, {})
  const turn = firstTurn(release.definition)
  if (turn?.signIn) refuseStranger(use)
  const own = { row: null, response: null, who: use.caller?.name ?? '' }
  return { release, plan, turn, ...own, entrance }
}

/** The response behind its own link; null where the link is none. */
async function resolveOwn(db: Database, { token }: LinkUse, lock: boolean): Promise<LinkTarget | null> {
  const response = isId(token) ? null : await findByOwnLink(db, token, lock)
  if (!response) return null
  const { release, plan } = await readyTarget(db, response.releaseId, response.people ?? {})
  return { release, plan, turn: null, row: null, response, who: '', entrance: null }
}

/** What the link of a turn leads to. */
async function resolveTurn(db: Database, use: LinkUse, lock: boolean): Promise<LinkTarget> {
  const { row: found, address } = await findTurn(db, use)
  const row = lock ? ((await lockTurn(db, found)) ?? refuseUnknown()) : found
  const [response] = await db.select().from(responses).where(eq(responses.id, row.responseId))
  if (!response) return refuse(404, 'not-found', 'The response of this link is no longer kept.')
  if (response.withdrawnAt !== null || response.binnedAt !== null)
    return refuse(410, 'withdrawn', 'This response was withdrawn; there is nothing left to do.')
  const { release, plan } = await readyTarget(db, response.releaseId, response.people ?? {})
  const turn = turnOf(release.definition, row.turn)
  if (!turn) return refuse(404, 'not-found', 'The turn of this link is no longer part of the form.')
  if (turn.signIn) refuseStranger(use, row.to)
  if (address === null && isId(use.token)) await refuseUninvited(db, use, row, release.formId)
  return { release, plan, turn, row, response, who: use.caller?.name ?? address ?? '', entrance: null }
}

const isId = (token: string) => z.uuid().safeParse(token).success

/** The turn that a link is of, or that somebody who is signed in names by its id. */
async function findTurn(
  db: Database,
  { token, caller }: LinkUse,
): Promise<{ row: TurnRow; address: string | null }> {
  if (!isId(token)) return (await findByLink(db, token)) ?? refuseUnknown()
  if (!caller) return refuseSignedOut()
  const [row] = await db.select().from(turns).where(eq(turns.id, token))
  return row ? { row, address: null } : refuseUnknown()
}

const refuseSignedOut = () => refuse(401, 'sign-in', 'Sign in to open this turn.')

/** Refuses whoever is not signed in, or is none of those who are to act. */
function refuseStranger({ caller }: LinkUse, to: readonly string[] = []): void {
  if (!caller) return refuseSignedOut()
  if (to.length > 0 && !to.includes(caller.email))
    refuse(403, 'not-yours', 'This turn waits for somebody else. You are signed in under another address.')
}

/** Refuses who opens a turn without a link of it: it is for those that it names, or for those who may act where it names nobody. */
async function refuseUninvited(
  db: Database,
  { caller }: LinkUse,
  { to }: TurnRow,
  formId: string,
): Promise<void> {
  if (!caller) return refuseSignedOut()
  if (to.includes(caller.email)) return
  const powers = await findPowers(db, caller.id, formId)
  if (!powers.has('act')) return refuseUnknown()
  if (to.length > 0)
    refuse(403, 'not-yours', 'This turn waits for somebody else. It can be taken over on the board.')
}

/** A release to be filled now: its lists of people have those who are in the teams today, and those that the response has chosen. */
async function readyTarget(db: Database, id: string, kept: PeopleRows): Promise<Ready> {
  const found = await readyRelease(db, id)
  const { definition } = found.release
  if (peopleLists(definition).length === 0) return found
  const form = withPeople(definition, await presentPeople(db, definition), kept)
  const key = `${id} ${JSON.stringify(peopleLists(form))}`
  return keepReady(key, () => ({ release: { ...found.release, definition: form }, plan: planOf(form) }))
}

/** How many releases are kept ready to be filled; a release never changes, and one with a long list takes long to read. */
const READY = 12
const ready = new Map<string, Ready>()
interface Ready {
  release: Release
  plan: Plan
}

/** A release, read and planned once. */
async function readyRelease(db: Database, id: string): Promise<Ready> {
  const found = ready.get(id) ?? (await planRelease(db, id))
  return keepReady(id, () => found)
}

/** What is ready under a key, or made now; the one used last stands last. */
function keepReady(key: string, make: () => Ready): Ready {
  const found = ready.get(key) ?? make()
  ready.delete(key)
  ready.set(key, found)
  const [oldest] = ready.keys()
  if (ready.size > READY && oldest !== undefined) ready.delete(oldest)
  return found
}

async function planRelease(db: Database, id: string) {
  const [release] = await db.select().from(releases).where(eq(releases.id, id))
  return release ? { release, plan: planOf(release.definition) } : refuseUnknown()
}

const refuseUnknown = () =>
  refuse(404, 'not-found', 'This link leads nowhere. Ask whoever sent it for a new one.')

/** What the link answers by itself: hidden questions of the first turn, whatever a page says. */
export function broughtBy({ plan, turn, entrance }: LinkTarget): Record<string, string> {
  const own = filledBy(plan, turn)
  const brought = Object.entries(entrance?.way?.values ?? {})
  return Object.fromEntries(
    brought.filter(([code]) => own.has(code) && plan.byCode.get(code)?.place.node.type === 'hidden'),
  )
}
