import { and, count, desc, eq, gt, or } from 'drizzle-orm'
import type { z } from 'zod'
import type { DeliveryQuery, DeliveryRuns } from '../../../shared/api/deliveries'
import type { Power } from '../../../shared/api/sharing'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { deliveryRuns, responses } from '../../store/schema'
import { secretOf } from './hookOf'

const PAGE = 50

/** What was to be done by itself for the responses of a form, the newest first. The key of its hooks is for those who may design it. */
export async function listDeliveries(
  db: Database,
  formId: string,
  { state, page }: DeliveryQuery,
  powers: ReadonlySet<Power>,
): Promise<z.output<typeof DeliveryRuns>> {
  const own = eq(deliveryRuns.formId, formId)
  const where = and(own, state === '' ? undefined : eq(deliveryRuns.state, state))
  const counted = (fits: typeof where) => db.select({ number: count() }).from(deliveryRuns).where(fits)
  const [found] = await counted(where)
  const rows = await db
    .select({ run: deliveryRuns, number: responses.number })
    .from(deliveryRuns)
    .innerJoin(responses, eq(responses.id, deliveryRuns.responseId))
    .where(where)
    .orderBy(desc(deliveryRuns.madeAt), desc(deliveryRuns.id))
    .limit(PAGE)
    .offset((page - 1) * PAGE)
  return {
    count: Number(found?.number ?? 0),
    failing: await countFailing(db, formId),
    secret: powers.has('design') ? await secretOf(db, formId) : null,
    rows: rows.map(({ run: { id, title, responseId, state: is, tries, said, madeAt, dueAt }, number }) => ({
      ...{ id, title, response: responseId, number, state: is, tries, said },
      madeAt: madeAt.toISOString(),
      dueAt: dueAt.toISOString(),
    })),
  }
}

/** How many deliveries of a form wait for another try, or were given up. */
export async function countFailing(db: Database, formId: string): Promise<number> {
  const isRetried = and(eq(deliveryRuns.state, 'waiting'), gt(deliveryRuns.tries, 0))
  const [found] = await db
    .select({ number: count() })
    .from(deliveryRuns)
    .where(and(eq(deliveryRuns.formId, formId), or(eq(deliveryRuns.state, 'given up'), isRetried)))
  return Number(found?.number ?? 0)
}

/** Has something done once more that was given up, left, or waits for another try; what was done stays done. */
export async function deliverAgain(db: Database, formId: string, id: string): Promise<void> {
  const again = await db
    .update(deliveryRuns)
    .set({ state: 'waiting', tries: 0, dueAt: new Date(), doneAt: null })
    .where(and(eq(deliveryRuns.id, id), eq(deliveryRuns.formId, formId)))
    .returning({ id: deliveryRuns.id })
  if (again.length === 0) refuse(404, 'not-found', 'There is no such delivery.')
}
