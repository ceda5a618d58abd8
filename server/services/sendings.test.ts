import { and, eq, isNull } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import {
  byLink,
  formOf,
  fresh,
  linkTo,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  storedReleases,
  storedResponses,
  type TestStore,
} from '../testing/testStore'
import { messages, turns } from '../store/schema'
import { isoToday } from './calendar'
import { createForm } from './drafts'
import { releaseForm } from './releases'
import { loadRespondentPage } from './respondentPage'
import { loadResponse } from './responses'
import { returnTurn } from './returnTurn'
import { digestOfSending } from './sendings'
import { saveSharedList } from './sharedLists'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const TODAY = isoToday()
const twoTurns: Form = {
  ...formOf([question('boat'), question('mail', { type: 'email' })]),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: { answer: 'mail' }, access: { s: 'fills' } },
    {
      code: 'check',
      party: 'yard',
      by: { person: 'yard@wherry.example' },
      access: { s: 'reads', work: 'fills' },
    },
  ],
}
twoTurns.sections.push({
  code: 'work',
  title: 'Work',
  items: [question('hours', { type: 'integer', required: true })],
})
const send = (token: string, key: string, answers: Answers) =>
  submitAnswers(store.db, byLink(token), { release: 1, key, begunOn: TODAY, answers })
async function openLink(responseId: string): Promise<string> {
  const [row] = await store.db
    .select({ id: turns.id })
    .from(turns)
    .where(and(eq(turns.responseId, responseId), isNull(turns.handedOffAt)))
  return linkTo(store.db, row?.id ?? '')
}

describe('the same sending', () => {
  it('is told from another by what it says, in whatever order', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), answers => {
        const read = (value: unknown): Answers => JSON.parse(JSON.stringify(value))
        const sending = { begunOn: TODAY, answers: read(answers) }
        const turned = {
          begunOn: TODAY,
          answers: read(Object.fromEntries(Object.entries(answers).toReversed())),
        }
        expect(digestOfSending(turned)).toBe(digestOfSending(sending))
        const other = { begunOn: TODAY, answers: { ...read(answers), one_more: 1 } }
        expect(digestOfSending(other)).not.toBe(digestOfSending(sending))
      }),
    )
  })

  it('again gets the same answer; other answers under its key are refused, and nothing is lost', async () => {
    const { db } = store
    const { id, token } = await releaseNew(store, twoTurns)
    const key = fresh('sending')
    const answers = { boat: 'Teasel', mail: 'ada@wherry.example' }
    const first = await send(token, key, answers)
    expect(first).toMatchObject({ next: 'Yard', link: expect.stringMatching(/^\/f\/[\w-]+$/) })
    const again = await send(token, key, answers)
    expect({ ...again, link: null }).toEqual({ ...first, link: null })
    const pages = [first, again].map(({ link }) => loadRespondentPage(db, byLink(link ?? '')))
    expect((await pages[1])?.turn).toEqual((await pages[0])?.turn)
    expect((await refusalOf(send(token, key, { ...answers, boat: 'Wren' }))).code).toBe('sent-before')
    const [response] = await storedResponses(db, id)
    expect(response?.answers).toEqual(answers)
    const yard = await openLink(response?.id ?? '')
    const handed = await send(yard, fresh('sending'), { hours: 3 }).then(async done => {
      expect((await refusalOf(send(yard, fresh('sending'), { hours: 3 }))).code).toBe('handed-off')
      return done
    })
    expect(handed.next).toBeNull()
    expect(await storedResponses(db, id)).toHaveLength(1)
  })

  it('of a hand-off again, after a lost connection, gets the same answer', async () => {
    const { id, token } = await releaseNew(store, twoTurns)
    await send(token, fresh('sending'), { boat: 'Teasel' })
    const [response] = await storedResponses(store.db, id)
    const yard = await openLink(response?.id ?? '')
    const key = fresh('sending')
    const both = await Promise.all([send(yard, key, { hours: 3 }), send(yard, key, { hours: 3 })])
    expect(both[0]).toEqual(both[1])
    expect(await send(yard, key, { hours: 3 })).toEqual(both[0])
    expect((await refusalOf(send(yard, key, { hours: 4 }))).code).toBe('sent-before')
  })
})

describe('given back to a first party that came by the open link', () => {
  it('it reaches them at their own link and by e-mail, and the remark stays', async () => {
    const { db } = store
    const { id, token } = await releaseNew(store, twoTurns)
    const { link } = await send(token, fresh('sending'), { boat: 'Teasel', mail: 'ada@wherry.example' })
    const response = (await storedResponses(db, id))[0]!
    await returnTurn(db, byLink(await openLink(response.id)), {
      remark: 'Which berth?',
      pointed: [],
      draft: null,
    })
    const own = link?.replace('/f/', '') ?? ''
    expect((await loadRespondentPage(db, byLink(own))).turn?.remark).toBe('Which berth?')
    const posted = await db.select().from(messages).where(eq(messages.responseId, response.id))
    const letter = posted.find(m => m.to === 'ada@wherry.example' && m.subject.includes('given back'))
    const inLetter = /\/f\/[\w-]+/.exec(letter?.text ?? '')?.[0] ?? ''
    const opened = await loadRespondentPage(db, byLink(inLetter))
    expect(opened.turn).toEqual((await loadRespondentPage(db, byLink(own))).turn)
    await send(own, fresh('sending'), { boat: 'Teasel, berth 4', mail: 'ada@wherry.example' })
    const details = await loadResponse(db, response.id, { email: '', mayAct: true })
    const returned = details.history.filter(h => h.kind === 'returned')
    expect(returned).toMatchObject([{ turn: 'Yard', target: 'Owner', remark: 'Which berth?' }])
    expect(details.turns.map(t => t.name)).toEqual(['Owner', 'Yard'])
    const without = await loadResponse(db, response.id, { email: '', mayAct: false })
    expect(JSON.stringify(without)).not.toMatch(/\/f\/[\w-]{10}/)
    expect(without.turns.some(t => t.mayOpen)).toBe(false)
  })
})

describe('at the same time', () => {
  it('releases of one draft make one version', async () => {
    const { db, designer } = store
    const { id } = await createForm(db, { definition: formOf([question('q')]) }, designer.id)
    const made = await Promise.all([1, 2, 3].map(() => releaseForm(db, id, designer, { revision: 0 })))
    expect(new Set(made.map(m => `${m.number} ${m.token}`)).size).toBe(1)
    expect(await storedReleases(db, id)).toHaveLength(1)
  })

  it('a list is saved once, and three are told that somebody was faster', async () => {
    const { db, designer } = store
    const code = fresh('list')
    const { id: from } = await createForm(db, { title: 'F' }, designer.id)
    const save = (base: number) =>
      saveSharedList(db, designer, code, { base, from, list: { code, rows: [{ code: 'a', label: 'A' }] } })
    for (const base of [0, 1]) {
      const four = await Promise.allSettled([1, 2, 3, 4].map(() => save(base)))
      const refused = four.filter(f => f.status === 'rejected')
      expect(refused).toHaveLength(3)
      for (const { reason } of refused) expect(reason).toMatchObject({ status: 409 })
    }
  })
})
