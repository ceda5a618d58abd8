import { randomBytes } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import type { Turn } from '../../core/form/turns'
import { firstTurn, turnOf } from '../../core/parties/turns'
import { peopleLists, withPeople, type PeopleRows } from '../../core/lists/people'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { presentPeople } from './teamRows'

type Release = typeof releases.$inferSelect

/** What a link leads to: a release to begin with, or a turn of a response under way. */
export interface LinkTarget {
  release: Release
  plan: Plan
  /** The turn that the link opens; null in a form without turns. */
  turn: Turn | null
  /** The turn as it is stored; null for the link of a release. */
  row: typeof turns.$inferSelect | null
  response: typeof responses.$inferSelect | null
}

/** A token that nobody guesses: 120 bits. */
export const newToken = (): string => randomBytes(15).toString('base64url')

/** What the token of a link leads to. `lock` keeps the turn for this transaction. */
export async function resolveLink(db: Database, token: string, lock = false): Promise<LinkTarget> {
  const [begun] = await db.select({ id: releases.id }).from(releases).where(eq(releases.token, token))
  if (begun) {
    const { release, plan } = await readyTarget(db, begun.id, {})
    return { release, plan, turn: firstTurn(release.definition), row: null, response: null }
  }
  const query = db.select().from(turns).where(eq(turns.token, token))
  const [row] = lock ? await query.for('update') : await query
  if (!row) return refuseUnknown()
  const [response] = await db.select().from(responses).where(eq(responses.id, row.responseId))
  if (!response) return refuse(404, 'not-found', 'The response of this link is no longer kept.')
  const { release, plan } = await readyTarget(db, response.releaseId, response.people ?? {})
  const turn = turnOf(release.definition, row.turn)
  return turn
    ? { release, plan, turn, row, response }
    : refuse(404, 'not-found', 'The turn of this link is no longer part of the form.')
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
