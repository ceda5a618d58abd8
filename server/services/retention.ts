import { and, asc, eq, isNull, lt, sql } from 'drizzle-orm'
import type { Database } from '../store/database'
import { releases, responses, retentions } from '../store/schema'
import { actOnOne } from './actOnOne'
import { binResponse } from './bin'
import { personalStripper } from './stripPersonal'

/** So many responses of a form are looked at in one go. */
const AT_ONCE = 2_000

/** Lets go of what is older than its form keeps it: what is done or withdrawn, counted from the day it was sent. */
export async function keepRetentions(db: Database): Promise<void> {
  for (const { formId, months, act } of await db.select().from(retentions)) {
    const over = await db
      .select({ id: responses.id })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(
        and(
          eq(releases.formId, formId),
          isNull(responses.turn),
          isNull(responses.binnedAt),
          act === 'strip' ? isNull(responses.strippedAt) : undefined,
          lt(responses.sentAt, sql`now() - make_interval(months => ${months})`),
        ),
      )
      .orderBy(asc(responses.sentAt))
      .limit(AT_ONCE)
    const reason = `Kept for ${months === 1 ? 'a month' : `${months} months`}`
    const perform =
      act === 'delete' ? binResponse('', reason) : await personalStripper(db, formId, '', reason)
    for (const { id } of over) await db.transaction(tx => actOnOne(tx, formId, id, perform))
  }
}
