import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { Database } from '../store/database'
import { forms, releases, responses, turns, users } from '../store/schema'
import { isoToday } from './calendar'
import { keepTurn } from './keepTurn'
import { returnTurn } from './returnTurn'
import { actOnTurn } from './turnActs'

const OF = 'haul_out'
const TURN = 'acceptance'
const SEAT = { seat: 'office-computer', base: null, key: 'office-computer' }
const DAY = 86_400_000

/** Turns of the demo in each state: one is begun, one was given back, one is late, and one was withdrawn. */
export async function seedTurns(db: Database): Promise<void> {
  const open = await db
    .select({ id: turns.id })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .innerJoin(forms, eq(releases.formId, forms.id))
    .where(and(sql`${forms.draft} ->> 'code' = ${OF}`, eq(turns.turn, TURN), isNull(turns.handedOffAt)))
    .orderBy(asc(turns.openedAt))
  const [late, begun, givenBack] = open
  const [caller] = await db.select().from(users).where(eq(users.email, 'office@wherry.example'))
  if (!late || !begun || !givenBack || !caller) throw new Error('The demo’s turns under way are missing.')
  await keepTurn(
    db,
    { token: begun.id, caller },
    { ...SEAT, answers: { cradle: 'large', yard_remark: 'Ask the mechanic about the keel bolts.' } },
  )
  await returnTurn(
    db,
    { token: givenBack.id, caller },
    {
      remark: 'This berth is taken until June. Which other one would do?',
      pointed: ['berth_no'],
      draft: { ...SEAT, answers: { yard_remark: 'Waiting for the owner.' } },
    },
  )
  await makeLate(db, late.id)
  await withdrawOne(db)
}

/** A turn that has waited longer than it should. */
async function makeLate(db: Database, id: string) {
  await db
    .update(turns)
    .set({ dueOn: isoToday(new Date(Date.now() - 2 * DAY)), noticeOn: null })
    .where(eq(turns.id, id))
}

/** A response that nobody needs any more. */
async function withdrawOne(db: Database) {
  const [found] = await db
    .select({ id: turns.id })
    .from(turns)
    .innerJoin(responses, eq(turns.responseId, responses.id))
    .where(and(eq(turns.turn, 'inspection'), eq(responses.turn, 'inspection'), isNull(turns.handedOffAt)))
    .limit(1)
  const [doer] = await db.select().from(users).where(eq(users.email, 'ines@wherry.example'))
  if (!found || !doer) return
  await actOnTurn(
    db,
    found.id,
    { do: 'withdraw', reason: 'The owner has sold the boat and asked to stop.' },
    doer,
  )
}
