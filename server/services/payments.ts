import { and, eq, inArray } from 'drizzle-orm'
import type { z } from 'zod'
import { amountPlaceOf, paymentDue, type PaymentDue } from '../../core/parties/payment'
import { planOf } from '../../core/fill/plan'
import { withoutQuotes } from '../../core/form/quotes'
import type { Turn } from '../../core/form/turns'
import { accessViewOf, maySee } from '../../core/parties/access'
import type { PaymentAct, PaymentAsked, PaymentPage } from '../../shared/api/payments'
import type { EventKind } from '../../shared/api/storedEvents'
import { refuse } from '../http/refuse'
import { takePayment } from '../stand-ins/receiver'
import type { Database } from '../store/database'
import { payments, releases, responses } from '../store/schema'
import { fillFor, pathToPay, queueDeliveries, type Happened } from './deliveries/queue'
import { countTry } from './people/tallies'
import { keepEvent } from './responseEvents'

type PaymentRow = typeof payments.$inferSelect

const told = ({ amount, currency, title, state }: PaymentRow) => ({ amount, currency, title, state })
const asked = (row: PaymentRow): PaymentAsked => ({ ...told(row), link: pathToPay(row.id) })

/** What is to be paid for a response, or was; null for nothing. */
export async function findPayment(db: Database, responseId: string): Promise<PaymentAsked | null> {
  const [row] = await db.select().from(payments).where(eq(payments.responseId, responseId))
  return row ? asked(row) : null
}

/** The same for whoever has sent a response, by its number, where they see the amount. `turn` is the one that they had; null without turns. */
export async function paymentForSender(
  db: Database,
  { release, turn }: { release: Happened['release']; turn: Turn | null },
  number: number,
): Promise<PaymentAsked | null> {
  const form = release.definition
  if (!form.payment) return null
  const plan = planOf(form)
  const place = amountPlaceOf(plan)
  if (!place || !maySee(accessViewOf(form, plan.places, turn), place)) return null
  const [found] = await db
    .select({ payment: payments })
    .from(payments)
    .innerJoin(responses, eq(payments.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(and(eq(releases.formId, release.formId), eq(responses.number, number)))
  return found ? asked(found.payment) : null
}

/**
 * Asks for what is to be paid for a response of which nobody’s turn is next, or follows what its answers say now: what is paid stays as it is.
 * @returns whether it counts as done only when it is paid
 */
export async function askPayment(db: Database, happened: Happened): Promise<boolean> {
  const { response, release } = happened
  if (!release.definition.payment) return false
  const [row] = await db.select().from(payments).where(eq(payments.responseId, response.id))
  if (row && row.state !== 'open' && row.state !== 'refused') return false
  const due = paymentDue(await fillFor(db, happened))
  await keepDue(db, response.id, due)
  const unpaid = due !== null && release.definition.payment.completes === true
  await db.update(responses).set({ unpaid }).where(eq(responses.id, response.id))
  return unpaid
}

async function keepDue(db: Database, responseId: string, due: PaymentDue | null): Promise<void> {
  if (!due) {
    await db.delete(payments).where(eq(payments.responseId, responseId))
    return
  }
  const set = { ...due, state: 'open' as const, changedAt: new Date() }
  await db
    .insert(payments)
    .values({ responseId, ...set })
    .onConflictDoUpdate({ target: payments.responseId, set })
}

/** A payment as whoever has its address sees it. */
export async function loadPayment(db: Database, id: string): Promise<z.output<typeof PaymentPage>> {
  return pageOf(await findWhole(db, id, false))
}

/** Pays it by the payment service, which may refuse; what is paid already is not paid twice. */
export async function pay(db: Database, id: string): Promise<z.output<typeof PaymentPage>> {
  await countTry(db, 'payByPayment', id)
  return db.transaction(async tx => {
    const whole = await findWhole(tx, id, true)
    if (whole.payment.state !== 'open' && whole.payment.state !== 'refused') return pageOf(whole)
    const state = await takePayment(tx)
    await settle(tx, whole, state, { kind: state === 'paid' ? 'paid' : 'payment refused', who: '' })
    return pageOf({ ...whole, payment: { ...whole.payment, state } })
  })
}

/** What those who work with a response do with its payment. */
export async function actOnPayment(
  db: Database,
  responseId: string,
  act: PaymentAct['do'],
  who: string,
): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(payments).where(eq(payments.responseId, responseId))
    if (!row) return refuse(404, 'not-found', 'There is nothing to be paid for this response.')
    const whole = await findWhole(tx, row.id, true)
    const isPaid = whole.payment.state === 'paid'
    if (isPaid !== (act === 'pay back')) return refuse(409, 'payment-settled', SETTLED[whole.payment.state])
    if (whole.payment.state === 'paid back') return refuse(409, 'payment-settled', SETTLED['paid back'])
    if (act === 'pay back') await settle(tx, whole, 'paid back', { kind: 'paid back', who })
    else await settle(tx, whole, 'paid', { kind: 'paid', who })
  })
}

const SETTLED: Record<PaymentRow['state'], string> = {
  open: 'It is not paid yet.',
  refused: 'It is not paid yet: the payment service refused.',
  paid: 'It is paid already.',
  'paid back': 'It was paid back already.',
}

type Whole = Awaited<ReturnType<typeof findWhole>>

/** A payment with its response; with `lock` kept for this transaction: the response before it is read, so that what is read is what the last one left. */
async function findWhole(db: Database, id: string, lock: boolean) {
  if (lock) await lockResponseOf(db, id)
  const [found] = await db
    .select({ payment: payments, response: responses, release: releases })
    .from(payments)
    .innerJoin(responses, eq(payments.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(payments.id, id))
  if (!found) return refuse(404, 'not-found', 'There is nothing to be paid here.')
  if (found.response.withdrawnAt !== null || found.response.binnedAt !== null)
    return refuse(410, 'withdrawn', 'This response was withdrawn; nothing is to be paid.')
  return found
}

async function lockResponseOf(db: Database, id: string): Promise<void> {
  const its = db.select({ id: payments.responseId }).from(payments).where(eq(payments.id, id))
  await db.select({ id: responses.id }).from(responses).where(inArray(responses.id, its)).for('update')
}

const pageOf = ({ payment, response, release }: Whole): z.output<typeof PaymentPage> => ({
  ...told(payment),
  form: withoutQuotes(release.definition.title),
  number: response.number,
})

/** Keeps how a payment stands now, and lets happen what happens by itself. */
async function settle(
  db: Database,
  { payment, response, release }: Whole,
  state: PaymentRow['state'],
  { kind, who }: { kind: EventKind; who: string },
): Promise<void> {
  await db.update(payments).set({ state, changedAt: new Date() }).where(eq(payments.id, payment.id))
  await keepEvent(db, { responseId: response.id, kind, turn: '', who, details: {} })
  if (state !== 'paid') return
  await db.update(responses).set({ unpaid: false }).where(eq(responses.id, response.id))
  const isDoneNow = response.unpaid ? [{ event: 'done' as const }] : []
  await queueDeliveries(db, { response, release }, [{ event: 'paid' }, ...isDoneNow])
}
