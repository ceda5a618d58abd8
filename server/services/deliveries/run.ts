import { and, asc, eq, lte } from 'drizzle-orm'
import { holds, type DoneByItself } from '../../../core/parties/deliveries'
import type { Filled } from '../../../core/fill/frame'
import type { Database } from '../../store/database'
import { deliveryRuns, releases, responses } from '../../store/schema'
import { describeForLog } from '../../store/storeErrors'
import { hookOf } from './hookOf'
import { postHook } from './hook'
import { MINUTE, PAUSES } from '../pauses'
import { fillFor, listDoneByItself } from './queue'
import { performInStore } from './perform'

type Run = typeof deliveryRuns.$inferSelect

/** How long a hook that is being posted is left to whoever posts it. */
const LEASE = MINUTE
const AT_ONCE = 50

/** What is known of a response when something is done for it. */
export interface Doing {
  run: Run
  delivery: DoneByItself
  filled: Filled
  response: typeof responses.$inferSelect
  release: typeof releases.$inferSelect
}
/** What came of it: `again` where it is to be tried again. */
export interface Outcome {
  is: 'done' | 'left' | 'again'
  said: string
}

/** Does everything that is due, whoever else does so at the same time: each is done once in the store, and posted outside at least once. */
export async function runDeliveries(db: Database): Promise<void> {
  for (;;) {
    const due = await db
      .select({ id: deliveryRuns.id })
      .from(deliveryRuns)
      .where(and(eq(deliveryRuns.state, 'waiting'), lte(deliveryRuns.dueAt, new Date())))
      .orderBy(asc(deliveryRuns.dueAt))
      .limit(AT_ONCE)
    for (const { id } of due) await runOne(db, id)
    if (due.length < AT_ONCE) return
  }
}

async function runOne(db: Database, id: string): Promise<void> {
  try {
    const posting = await db.transaction(tx => perform(tx, id))
    if (!posting) return
    const { isTaken, said } = await postHook(db, posting.address, posting)
    await db.transaction(tx => settle(tx, posting.run, { is: isTaken ? 'done' : 'again', said }))
  } catch (error) {
    // One that fails by itself keeps no other from being done; it is tried again.
    console.error(`Something to be done by itself failed. ${describeForLog(error)}`)
    await db.transaction(tx => failed(tx, id))
  }
}

async function failed(db: Database, id: string): Promise<void> {
  const [run] = await db.select().from(deliveryRuns).where(eq(deliveryRuns.id, id)).for('update')
  if (run?.state === 'waiting') await settle(db, run, { is: 'again', said: 'Tobbin could not do it.' })
}

/** Does one in the store; a hook is claimed for a while, and posted by whoever asked. */
async function perform(db: Database, id: string) {
  const doing = await claim(db, id)
  if (!doing) return null
  const { run, delivery, response } = doing
  const isOver = response.binnedAt !== null || response.withdrawnAt !== null
  if (isOver) return leave(db, run, 'The response no longer stands.')
  if (!holds(doing.filled, delivery)) return leave(db, run, 'Its condition does not hold any more.')
  if (delivery.act.do !== 'hook') {
    await settle(db, run, await performInStore(db, { ...doing, act: delivery.act }))
    return null
  }
  await db
    .update(deliveryRuns)
    .set({ dueAt: new Date(Date.now() + LEASE) })
    .where(eq(deliveryRuns.id, id))
  return { run, key: run.id, address: delivery.act.address, ...(await hookOf(db, doing, delivery.act)) }
}

async function leave(db: Database, run: Run, said: string): Promise<null> {
  await settle(db, run, { is: 'left', said })
  return null
}

/** What is due with its response, kept for this transaction; null where somebody else does it, or it is not due any more. */
async function claim(db: Database, id: string): Promise<Doing | null> {
  const [run] = await db
    .select()
    .from(deliveryRuns)
    .where(
      and(eq(deliveryRuns.id, id), eq(deliveryRuns.state, 'waiting'), lte(deliveryRuns.dueAt, new Date())),
    )
    .for('update', { skipLocked: true })
  if (!run) return null
  const [found] = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(responses.id, run.responseId))
  const all = found ? await listDoneByItself(db, found.release) : []
  const delivery = all.find(d => d.code === run.delivery)
  if (!found || !delivery) {
    await settle(db, run, { is: 'left', said: 'The response, or who asked for it, is not there any more.' })
    return null
  }
  return { run, delivery, ...found, filled: await fillFor(db, found) }
}

/** Writes down what came of a try. */
async function settle(db: Database, run: Run, { is, said }: Outcome): Promise<void> {
  const tries = run.tries + 1
  const pause = PAUSES[run.tries]
  const isOver = is !== 'again' || pause === undefined
  const ended = is === 'again' ? 'given up' : is
  await db
    .update(deliveryRuns)
    .set({
      tries,
      said,
      state: isOver ? ended : 'waiting',
      doneAt: isOver ? new Date() : null,
      dueAt: new Date(Date.now() + (pause ?? 0) * MINUTE),
    })
    .where(eq(deliveryRuns.id, run.id))
}
