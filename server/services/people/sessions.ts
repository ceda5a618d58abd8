import { and, desc, eq, lt, ne, or, sql } from 'drizzle-orm'
import type { Designer, OpenSession } from '../../../shared/api/session'
import type { Database } from '../../store/database'
import { sessions, users } from '../../store/schema'
import { digestOf, newSecret } from './tokens'

/** A session ends after so long without a request, and after so long in all. */
export const IDLE_HOURS = 12
export const LONGEST_DAYS = 14
/** The time of the last request is written no more often than this. */
const SEEN_SECONDS = 60

/** Who sends a request, and by which session. */
export interface Caller extends Designer {
  sessionId: string
}

const isIdle = sql`${sessions.seenAt} < now() - make_interval(hours => ${IDLE_HOURS})`
const isOld = sql`${sessions.openedAt} < now() - make_interval(days => ${LONGEST_DAYS})`

/** Begins a session; the token goes into the browser's cookie, its digest into the store. */
export async function beginSession(
  db: Database,
  userId: string,
  { source, agent }: { source: string; agent: string },
): Promise<string> {
  const token = newSecret()
  await db.insert(sessions).values({ userId, tokenHash: digestOf(token), source, agent: agent.slice(0, 200) })
  return token
}

/** Whose session a token is; null when it ended, is over, or its person is suspended. */
export async function findCaller(db: Database, token: string): Promise<Caller | null> {
  const [row] = await db
    .select({
      sessionId: sessions.id,
      id: users.id,
      name: users.name,
      email: users.email,
      role: users.role,
      suspendedAt: users.suspendedAt,
      isOver: sql<boolean>`${isIdle} or ${isOld}`,
      isStale: sql<boolean>`${sessions.seenAt} < now() - make_interval(secs => ${SEEN_SECONDS})`,
    })
    .from(sessions)
    .innerJoin(users, eq(sessions.userId, users.id))
    .where(eq(sessions.tokenHash, digestOf(token)))
  if (!row || row.isOver || row.suspendedAt !== null) return null
  const { sessionId, id, name, email, role, isStale } = row
  if (isStale)
    await db
      .update(sessions)
      .set({ seenAt: sql`now()` })
      .where(eq(sessions.id, sessionId))
  return { sessionId, id, name, email, role }
}

/** Ends the session of a token. */
export async function endSession(db: Database, token: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.tokenHash, digestOf(token)))
}

/** Ends one session of somebody; false when they have no such session. */
export async function endSessionOf(db: Database, userId: string, sessionId: string): Promise<boolean> {
  const ended = await db
    .delete(sessions)
    .where(and(eq(sessions.userId, userId), eq(sessions.id, sessionId)))
    .returning({ id: sessions.id })
  return ended.length > 0
}

/** Ends all sessions of somebody, but the one that is to go on. */
export async function endSessions(db: Database, userId: string, except?: string): Promise<void> {
  const others = except ? ne(sessions.id, except) : undefined
  await db.delete(sessions).where(and(eq(sessions.userId, userId), others))
}

/** The browsers that somebody is signed in with, the last seen first. */
export async function listSessions(db: Database, { id, sessionId }: Caller): Promise<OpenSession[]> {
  const rows = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.userId, id), sql`not (${isIdle} or ${isOld})`))
    .orderBy(desc(sessions.seenAt))
  return rows.map(row => ({
    id: row.id,
    openedAt: row.openedAt.toISOString(),
    seenAt: row.seenAt.toISOString(),
    source: row.source,
    agent: row.agent,
    isThis: row.id === sessionId,
  }))
}

/** Clears sessions that are over. */
export async function sweepSessions(db: Database): Promise<void> {
  await db
    .delete(sessions)
    .where(
      or(
        lt(sessions.seenAt, sql`now() - make_interval(hours => ${IDLE_HOURS})`),
        lt(sessions.openedAt, sql`now() - make_interval(days => ${LONGEST_DAYS})`),
      ),
    )
}
