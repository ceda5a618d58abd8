import { eq, lt, sql } from 'drizzle-orm'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { tallies } from '../../store/schema'

/** So many tries within so many seconds. */
export interface Allowance {
  most: number
  seconds: number
}

/** What strangers may ask for: each by what it is counted for. */
export const ALLOWANCES = {
  signInByAddress: { most: 10, seconds: 15 * 60 },
  signInBySource: { most: 60, seconds: 15 * 60 },
  resetByAddress: { most: 3, seconds: 60 * 60 },
  resetBySource: { most: 20, seconds: 60 * 60 },
  keyBySource: { most: 30, seconds: 15 * 60 },
  setUpBySource: { most: 10, seconds: 15 * 60 },
  refetchByLink: { most: 300, seconds: 10 * 60 },
  searchByLink: { most: 1_200, seconds: 10 * 60 },
  passphraseBySource: { most: 60, seconds: 15 * 60 },
  passphraseByLink: { most: 300, seconds: 15 * 60 },
  payByPayment: { most: 60, seconds: 60 * 60 },
  documentByResponse: { most: 60, seconds: 60 * 60 },
  signingBySource: { most: 600, seconds: 60 * 60 },
  checkBySource: { most: 300, seconds: 60 * 60 },
  copyByResponse: { most: 3, seconds: 24 * 60 * 60 },
  keepBySource: { most: 1_200, seconds: 60 * 60 },
  recallBySource: { most: 120, seconds: 60 * 60 },
  mailKeptBySource: { most: 5, seconds: 60 * 60 },
  proofByPerson: { most: 30, seconds: 10 * 60 },
  shortBySource: { most: 120, seconds: 15 * 60 },
  stepsBySource: { most: 2_000, seconds: 60 * 60 },
  filesBySource: { most: 600, seconds: 60 * 60 },
} as const satisfies Record<string, Allowance>

/**
 * Counts a try of something by someone, over all processes that share the store; refused with the time to wait once there were too many.
 * The count is made before what is tried, so that tries side by side count too.
 */
export async function countTry(db: Database, what: keyof typeof ALLOWANCES, whose: string): Promise<void> {
  return countWithin(db, keyOf(what, whose), ALLOWANCES[what])
}

/** The same by an allowance of its own. */
export async function countWithin(db: Database, key: string, { most, seconds }: Allowance): Promise<void> {
  const isOver = sql`${tallies.since} < now() - make_interval(secs => ${seconds})`
  const [row] = await db
    .insert(tallies)
    .values({ key, number: 1 })
    .onConflictDoUpdate({
      target: tallies.key,
      set: {
        number: sql`case when ${isOver} then 1 else ${tallies.number} + 1 end`,
        since: sql`case when ${isOver} then now() else ${tallies.since} end`,
      },
    })
    .returning({
      number: tallies.number,
      left: sql<number>`extract(epoch from ${tallies.since} + make_interval(secs => ${seconds}) - now())`.mapWith(
        Number,
      ),
    })
  if (!row || row.number <= most) return
  refuse(429, 'too-often', `That was tried too often. Try again in ${inWords(row.left)}.`)
}

/** Forgets the tries of something that went well. */
export async function forgetTries(db: Database, what: keyof typeof ALLOWANCES, whose: string): Promise<void> {
  await db.delete(tallies).where(eq(tallies.key, keyOf(what, whose)))
}

/** Takes back the count of a try that went well, where only others are to count. */
export async function forgiveTry(db: Database, what: keyof typeof ALLOWANCES, whose: string): Promise<void> {
  await db
    .update(tallies)
    .set({ number: sql`greatest(${tallies.number} - 1, 0)` })
    .where(eq(tallies.key, keyOf(what, whose)))
}

/** Clears counts whose time is long over. */
export async function sweepTallies(db: Database): Promise<void> {
  await db.delete(tallies).where(lt(tallies.since, sql`now() - interval '1 day'`))
}

const keyOf = (what: string, whose: string) => `${what} ${whose.slice(0, 200)}`

function inWords(seconds: number): string {
  const minutes = Math.ceil(seconds / 60)
  return minutes <= 1 ? 'a minute' : `${minutes} minutes`
}
