import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form, Item } from '../../core/form/definition'
import type { Database } from '../store/database'
import { openings, turns } from '../store/schema'
import {
  byLink,
  formOf,
  fresh,
  linkTo,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { isoToday } from './calendar'
import { saveEdits } from './drafts'
import { releaseForm } from './releases'
import { refetchForm } from './respondentPage'
import { submitAnswers } from './submitAnswers'
import { actOnTurn } from './turnActs'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const berths = (north?: number) => [
  { code: 'north', label: 'North quay', ...(north === undefined ? {} : { places: north }) },
  { code: 'south', label: 'South quay' },
]
const berth = (places?: number) => question('berth', { type: 'choice', options: berths(places) })
const CREW = {
  ...{ kind: 'group', code: 'crew', title: 'Crew', repeat: { min: 0, max: 5 } },
  items: [question('watch', { type: 'choices', options: berths(3) })],
} as unknown as Item

const send = (token: string, answers: Answers, release = 1) =>
  submitAnswers(db, byLink(token), { release, key: fresh('sending'), begunOn: isoToday(), answers })

async function takenOf(id: string): Promise<number[]> {
  const [opening] = await db.select().from(openings).where(eq(openings.formId, id))
  return opening?.places.map(p => p.taken) ?? []
}

/** The choices that a page offers now. */
async function offeredAt(token: string, own: Answers = {}): Promise<string[]> {
  const { definition } = await refetchForm(db, byLink(token), { answers: own, begunOn: isoToday() })
  const [item] = definition.sections[0]?.items ?? []
  if (item?.kind !== 'question' || item.type !== 'choice') throw new Error('The first question is no choice.')
  return (item.options ?? []).filter(o => o.shownWhen !== 'false').map(o => o.code)
}

describe('an option with a number of places', () => {
  it('is taken just so often, however many come at once, and not offered afterwards', async () => {
    const { id, token } = await releaseNew(store, formOf([berth(4)]))
    const sent = await Promise.allSettled(Array.from({ length: 64 }, () => send(token, { berth: 'north' })))
    expect(sent.filter(s => s.status === 'fulfilled')).toHaveLength(4)
    const refused = sent.flatMap(s => (s.status === 'rejected' ? [s.reason] : []))
    expect(refused.every(r => r.refusal.code === 'run-out')).toBe(true)
    expect(await storedResponses(db, id)).toHaveLength(4)
    expect(await takenOf(id)).toEqual([4])
    expect(await offeredAt(token)).toEqual(['south'])
    expect((await send(token, { berth: 'south' })).number).toBe(5)
  })

  it('is counted in every entry, and names its question when it has run out', async () => {
    const { id, token } = await releaseNew(store, formOf([CREW]))
    await send(token, { crew: [{ watch: ['north', 'south'] }, { watch: ['north'] }] })
    const more = send(token, { crew: [{ watch: ['north'] }, { watch: ['north'] }] })
    expect(await refusalOf(more)).toEqual({ status: 409, code: 'run-out', paths: ['watch'] })
    expect(await takenOf(id)).toEqual([2])
  })

  it('counts what was chosen before it had a limit, and under older versions', async () => {
    const { id, token } = await releaseNew(store, formOf([CREW, berth()]))
    await send(token, { berth: 'north', crew: [{ watch: ['north'] }] })
    const edit = { do: 'change' as const, what: 'item/berth' as const, set: { options: berths(2) } }
    await saveEdits(db, id, store.designer.id, 0, [edit])
    const second = await releaseForm(db, id, store.designer, { revision: 1 })
    expect(await takenOf(id)).toEqual([1, 1])
    await send(token, { berth: 'north' })
    expect(await refusalOf(send(second.token, { berth: 'north' }, 2))).toMatchObject({ code: 'run-out' })
  })
})

describe('in turns', () => {
  const FORM: Form = formOf([berth(1), question('fee')], {
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'office', name: 'Office' },
    ],
    turns: [
      { code: 'apply', party: 'owner', by: 'link', access: { s: 'fills', fee: 'never' } },
      { code: 'check', party: 'office', by: 'link', access: { s: 'reads', fee: 'fills' } },
    ],
  })

  it('a place is its response’s own, can be given back, and is free when the response is withdrawn', async () => {
    const { id, token } = await releaseNew(store, FORM)
    await send(token, { berth: 'north' })
    const [response] = await storedResponses(db, id)
    const rows = await db.select().from(turns).where(eq(turns.responseId, response!.id))
    const open = rows.find(row => row.handedOffAt === null)
    const link = (await linkTo(db, open!.id)).replace('/f/', '')
    expect(await offeredAt(token)).toEqual(['south'])
    expect(await offeredAt(link)).toEqual(['north', 'south'])
    await actOnTurn(db, open!.id, { do: 'withdraw', reason: 'Sold.' }, store.designer)
    expect(await takenOf(id)).toEqual([0])
    expect(await offeredAt(token)).toEqual(['north', 'south'])
  })
})
