import { asc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Form } from '../../core/form/definition'
import type { Answers } from '../../core/form/answers'
import { behave } from '../stand-ins/receiver'
import { deliveryRuns, messages } from '../store/schema'
import {
  byLink,
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { amendResponse, loadCorrectable } from './amendResponse'
import { isoToday } from './calendar'
import { runDeliveries } from './deliveries/run'
import { actOnPayment, findPayment, loadPayment, pay } from './payments'
import { listResponses } from './responseTable'
import { ResponseQuery } from '../../shared/api/responses'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const message = (code: string, on: 'sent' | 'done' | 'paid', text: string) =>
  ({
    ...{ code, title: '', on },
    act: { do: 'message', to: { answer: 'mail' }, subject: code, text },
  }) as const

/** A berth is paid by the night; more than ten are free. */
const berth = (more: Partial<NonNullable<Form['payment']>> = {}): Form =>
  formOf(
    [
      question('boat'),
      question('mail', { type: 'email', required: true }),
      question('nights', { type: 'integer', required: true }),
      {
        kind: 'question',
        type: 'value',
        code: 'fee',
        label: 'Fee',
        value: 'nights * 12.10',
        currency: 'EUR',
      },
    ],
    {
      payment: { amount: 'fee', title: 'Berth of {{ boat }}', when: 'nights <= 10', ...more },
      deliveries: [
        message('bill', 'sent', 'Pay at {{ response.pay }}'),
        message('thanks', 'done', 'It is done'),
        message('receipt', 'paid', 'Paid'),
      ],
    },
  )

async function sent(form: Form, answers: Answers = {}) {
  const { db } = store
  const { id, token } = await releaseNew(store, form)
  const sending = {
    ...{ release: 1, key: fresh('x'), begunOn: isoToday() },
    answers: { boat: 'Teasel', mail: 'a@wherry.example', nights: 3, ...answers },
  }
  const got = await submitAnswers(db, byLink(token), sending)
  const again = await submitAnswers(db, byLink(token), sending)
  expect(again.payment).toEqual(got.payment)
  const [response] = await storedResponses(db, id)
  if (!response) throw new Error('nothing was stored')
  const told = async () => {
    await runDeliveries(db)
    const runs = await db
      .select()
      .from(deliveryRuns)
      .where(eq(deliveryRuns.formId, id))
      .orderBy(asc(deliveryRuns.delivery))
    return runs.map(r => r.delivery)
  }
  const inState = async (state: 'unpaid' | 'done') =>
    (await listResponses(db, id, ResponseQuery.parse({ state }))).count
  return { id, response, payment: got.payment, told, inState }
}
const idOf = (payment: { link: string } | null) => payment?.link.replace('/pay/', '') ?? ''

describe('what is to be paid', () => {
  it('is the exact amount of the answers, asked for once, refused and tried again, and never paid twice', async () => {
    const { db } = store
    const { payment, told, inState, response } = await sent(berth())
    expect(payment).toMatchObject({
      amount: '36.3',
      currency: 'EUR',
      title: 'Berth of Teasel',
      state: 'open',
    })
    expect([await inState('done'), await told()]).toEqual([1, ['bill', 'thanks']])
    const id = idOf(payment)
    await behave(db, { hooks: 'takes', payments: 'refuses', bounces: [] })
    expect((await pay(db, id)).state).toBe('refused')
    await behave(db, { hooks: 'takes', payments: 'takes', bounces: [] })
    const both = await Promise.all([pay(db, id), pay(db, id)])
    expect(both.map(p => p.state)).toEqual(['paid', 'paid'])
    expect(await told()).toEqual(['bill', 'receipt', 'thanks'])
    const [bill] = await db.select().from(messages).where(eq(messages.responseId, response.id))
    expect(bill?.text).toContain(`/pay/${id}`)
  })

  it('makes a response done only when it is paid, where the form says so', async () => {
    const { db } = store
    const { payment, told, inState, response } = await sent(berth({ completes: true }))
    expect([await inState('unpaid'), await inState('done'), await told()]).toEqual([1, 0, ['bill']])
    await actOnPayment(db, response.id, 'paid otherwise', 'Ines')
    expect([await inState('unpaid'), await inState('done')]).toEqual([0, 1])
    expect(await told()).toEqual(['bill', 'receipt', 'thanks'])
    await actOnPayment(db, response.id, 'pay back', 'Ines')
    expect((await loadPayment(db, idOf(payment))).state).toBe('paid back')
    expect(await refusalOf(actOnPayment(db, response.id, 'pay back', 'Ines'))).toMatchObject({
      code: 'payment-settled',
    })
    expect((await pay(db, idOf(payment))).state).toBe('paid back')
  })

  it('is nothing where the condition does not hold, and follows a correction until it is paid', async () => {
    const { db } = store
    const { payment, inState, response } = await sent(berth({ completes: true }), { nights: 11 })
    expect([payment, await inState('done')]).toEqual([null, 1])
    const { base } = await loadCorrectable(db, response.id)
    await amendResponse(db, response.id, { answers: { nights: 2 }, reason: 'two', base }, 'Ines')
    const now = await findPayment(db, response.id)
    expect([now?.amount, await inState('unpaid')]).toEqual(['24.2', 1])
    await pay(db, idOf(now))
    const { base: later } = await loadCorrectable(db, response.id)
    await amendResponse(db, response.id, { answers: { nights: 5 }, reason: 'five', base: later }, 'Ines')
    expect(await findPayment(db, response.id)).toMatchObject({ amount: '24.2', state: 'paid' })
  })
})
