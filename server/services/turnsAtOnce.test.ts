import { setImmediate } from 'node:timers/promises'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { Turn } from '../../core/form/turns'
import type { Database } from '../store/database'
import { messages, responses, turns } from '../store/schema'
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
import { loadBoard } from './board'
import { ResponseQuery } from '../../shared/api/responses'
import { isoToday } from './calendar'
import { loadRespondentPage } from './respondentPage'
import { listResponses } from './responseTable'
import { returnTurn } from './returnTurn'
import { submitAnswers } from './submitAnswers'
import { actOnTurn } from './turnActs'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const section = (code: string) => ({
  ...formOf([question(`${code}_hours`, { type: 'integer', required: true })]).sections[0],
  code,
  title: code,
})
const turn = (code: string, more: Partial<Turn> = {}): Turn => ({
  ...{ code, party: code, by: { person: `${code}@wherry.example` }, access: { [code]: 'fills' } },
  ...more,
})
const CODES = ['owner', 'rigger', 'fitter', 'office']
/** The rigger and the fitter work at once; the office bills what both have done. */
const form: Form = {
  ...formOf([]),
  sections: CODES.map(section).map(s => ({ items: [], ...s })),
  parties: CODES.map(code => ({ code, name: code })),
  turns: [
    turn('owner', { by: 'link' }),
    turn('rigger', {
      handOff: [{ when: 'rigger_hours + fitter_hours > 0', to: 'office' }, { to: 'done' }],
    }),
    turn('fitter', { alongside: 'rigger' }),
    turn('office', { access: { rigger: 'reads', fitter: 'reads', office: 'fills' } }),
  ],
}
const send = (token: string, answers: Answers) =>
  submitAnswers(db, byLink(token), { release: 1, key: fresh('sending'), begunOn: isoToday(), answers })
const returning = { remark: 'Once more, please.', pointed: [], draft: null }

async function sendFirst() {
  const { id, token } = await releaseNew(store, form)
  const sent = await send(token, { owner_hours: 1 })
  const [response] = await storedResponses(db, id)
  if (!response) throw new Error('The response was not stored.')
  const rows = await db.select().from(turns).where(eq(turns.responseId, response.id))
  const link = async (code: string) => linkTo(db, rows.find(r => r.turn === code)?.id ?? '')
  return { formId: id, id: response.id, sent, rigger: await link('rigger'), fitter: await link('fitter') }
}
const openCodes = async (id: string) => {
  const rows = await db.select().from(turns).where(eq(turns.responseId, id))
  return rows.flatMap(r => (r.handedOffAt === null && r.givenBackAt === null ? [r.turn] : [])).sort()
}
const linkOf = async (id: string, code: string) => {
  const rows = await db.select().from(turns).where(eq(turns.responseId, id))
  return linkTo(db, rows.findLast(r => r.turn === code)?.id ?? '')
}
const stored = async (id: string) => (await db.select().from(responses).where(eq(responses.id, id)))[0]

describe('turns that are open at once', () => {
  it('are opened and posted together, kept apart, and join before the next', async () => {
    const { formId, id, sent, rigger, fitter } = await sendFirst()
    expect(sent.next).toBe('rigger')
    expect(await openCodes(id)).toEqual(['fitter', 'rigger'])
    const posted = await db.select().from(messages).where(eq(messages.responseId, id))
    expect(posted.map(m => m.to).sort()).toEqual(['fitter@wherry.example', 'rigger@wherry.example'])
    const board = await loadBoard(db, formId, { turn: '', late: false, search: '', page: 1, size: 20 })
    expect(board.rows.map(r => r.turn).sort()).toEqual(['fitter', 'rigger'])
    const waiting = async (turn: string) =>
      (await listResponses(db, formId, ResponseQuery.parse({ turn }))).count
    expect([await waiting('rigger'), await waiting('fitter'), await waiting('office')]).toEqual([1, 1, 0])
    const first = await send(fitter, { fitter_hours: 2 })
    expect([await waiting('rigger'), await waiting('fitter')]).toEqual([1, 0])
    expect([first.next, (await stored(id))?.turn]).toEqual(['rigger', 'rigger'])
    expect((await refusalOf(send(fitter, { fitter_hours: 3 }))).code).toBe('handed-off')
    const page = await loadRespondentPage(db, byLink(rigger))
    expect(JSON.stringify(page)).not.toContain('fitter_hours')
    expect(page.turn?.returnsTo.map(t => t.name)).toEqual(['owner'])
    expect((await send(rigger, { rigger_hours: 0 })).next).toBe('office')
    expect(await openCodes(id)).toEqual(['office'])
    expect((await stored(id))?.answers).toEqual({ owner_hours: 1, rigger_hours: 0, fitter_hours: 2 })
  })

  it('lose no answer when both are handed on in the same moment', async () => {
    for (let i = 0; i < 5; i++) {
      const { id, rigger, fitter } = await sendFirst()
      await setImmediate()
      const sent = await Promise.all([send(rigger, { rigger_hours: 4 }), send(fitter, { fitter_hours: 5 })])
      expect((await stored(id))?.answers).toEqual({ owner_hours: 1, rigger_hours: 4, fitter_hours: 5 })
      expect(await openCodes(id)).toEqual(['office'])
      expect(sent.filter(s => s.next === 'office')).toHaveLength(1)
    }
  })
})

describe('turns that are open at once', () => {
  it('are each given back to alone, and both when it goes back to before them', async () => {
    const { id, rigger, fitter } = await sendFirst()
    await send(rigger, { rigger_hours: 4 })
    await send(fitter, { fitter_hours: 5 })
    const office = await linkOf(id, 'office')
    await returnTurn(db, byLink(office), { ...returning, to: 'fitter' })
    expect([await openCodes(id), (await stored(id))?.turn]).toEqual([['fitter'], 'rigger'])
    expect((await refusalOf(send(rigger, { rigger_hours: 9 }))).code).toBe('handed-off')
    expect((await send(fitter, { fitter_hours: 6 })).next).toBe('office')
    await returnTurn(db, byLink(office), { ...returning, to: 'owner' })
    expect(await openCodes(id)).toEqual(['owner'])
    expect((await loadRespondentPage(db, byLink(fitter))).turn?.givenBackTo).toBe('owner')
    await send(await linkOf(id, 'owner'), { owner_hours: 2 })
    expect(await openCodes(id)).toEqual(['fitter', 'rigger'])
    await send(fitter, { fitter_hours: 6 })
    await send(rigger, { rigger_hours: 7 })
    expect((await stored(id))?.answers).toEqual({ owner_hours: 2, rigger_hours: 7, fitter_hours: 6 })
    expect(await openCodes(id)).toEqual(['office'])
  })

  it('are withdrawn together', async () => {
    const { id, rigger, fitter } = await sendFirst()
    const rows = await db.select().from(turns).where(eq(turns.responseId, id))
    const open = rows.find(r => r.turn === 'fitter')
    await actOnTurn(
      db,
      open?.id ?? '',
      { do: 'withdraw', reason: 'Sold.' },
      { name: 'Ines', email: 'ines@wherry.example' },
    )
    for (const link of [rigger, fitter])
      expect((await refusalOf(loadRespondentPage(db, byLink(link)))).code).toBe('withdrawn')
  })
})
