import { desc, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { HOOK_MANNERS, OutsideManner, OutsideWorld } from '../../shared/api/deliveries'
import type { Database } from '../store/database'
import { messages, outsideWorld, payments, receivedHooks } from '../store/schema'

type Manner = (typeof HOOK_MANNERS)[number]

/** What each manner answers: an HTTP status; 0 for nothing. */
const ANSWERS: Record<Manner, number> = { takes: 200, refuses: 503, silent: 0 }
/** So many hooks and letters are shown, and so many hooks are kept. */
const MOST_SHOWN = 100
const MOST_KEPT = 1_000

/** How the simulated receiver behaves. */
export async function mannerOf(db: Database): Promise<Manner> {
  const [row] = await db.select({ hooks: outsideWorld.hooks }).from(outsideWorld)
  return row?.hooks ?? 'takes'
}

/** Addresses at which letters come back, in small letters. */
export async function listBouncing(db: Database): Promise<string[]> {
  const [row] = await db.select({ bounces: outsideWorld.bounces }).from(outsideWorld)
  return row?.bounces ?? []
}

/** Stands in for a payment service: takes a payment, or refuses it, as it was told to. */
export async function takePayment(db: Database): Promise<'paid' | 'refused'> {
  const [row] = await db.select({ payments: outsideWorld.payments }).from(outsideWorld)
  return row?.payments === 'refuses' ? 'refused' : 'paid'
}

/** Tells it how to behave. */
export async function behave(db: Database, manner: z.output<typeof OutsideManner>): Promise<void> {
  const bounces = manner.bounces.map(address => address.toLowerCase())
  await db
    .insert(outsideWorld)
    .values({ ...manner, bounces })
    .onConflictDoUpdate({ target: outsideWorld.id, set: { ...manner, bounces } })
}

/** Stands in for whoever receives web hooks: keeps what comes, and answers as it was told to. @returns the status that it answers with */
export async function takeHook(
  db: Database,
  { address, body, signature }: { address: string; body: string; signature: string },
): Promise<number> {
  const answered = ANSWERS[await mannerOf(db)]
  await db.insert(receivedHooks).values({ address, body, signature, answered })
  await db
    .delete(receivedHooks)
    .where(
      sql`${receivedHooks.id} in (select id from received_hooks order by at desc, id offset ${MOST_KEPT})`,
    )
  return answered
}

/** How the world outside behaves, and what it has got of hooks and letters. */
export async function loadOutsideWorld(db: Database): Promise<z.output<typeof OutsideWorld>> {
  const hooks = await db.select().from(receivedHooks).orderBy(desc(receivedHooks.at)).limit(MOST_SHOWN)
  const letters = await db
    .select({
      at: messages.at,
      to: messages.to,
      subject: messages.subject,
      text: messages.text,
      attachments: messages.attachments,
      state: messages.state,
      said: messages.said,
    })
    .from(messages)
    .orderBy(desc(messages.at))
    .limit(MOST_SHOWN)
  const [manner] = await db.select().from(outsideWorld)
  const asked = await db.select().from(payments).orderBy(desc(payments.changedAt)).limit(MOST_SHOWN)
  return {
    hooks: manner?.hooks ?? 'takes',
    payments: manner?.payments ?? 'takes',
    bounces: manner?.bounces ?? [],
    received: hooks.map(({ at, address, signature, body, answered }) => ({
      ...{ address, signature, body, answered },
      at: at.toISOString(),
    })),
    letters: letters.map(letter => ({ ...letter, at: letter.at.toISOString() })),
    paid: asked.map(({ amount, currency, title, state, changedAt }) => ({
      ...{ amount, currency, title, state },
      at: changedAt.toISOString(),
    })),
  }
}
