import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import { ResponseFilter, ResponseQuery } from '../../shared/api/responses'
import { RIGHTS, type Power } from '../../shared/api/sharing'
import { NewView, type ResponsesAct } from '../../shared/api/workbench'
import { listMail } from '../stand-ins/mailer'
import { files, responses } from '../store/schema'
import {
  formOf,
  fresh,
  openTestStore,
  question,
  refusalOf,
  releaseNew,
  type TestStore,
} from '../testing/testStore'
import { actOnResponses } from './actOnResponses'
import { amendResponse, loadCorrectable } from './amendResponse'
import { sweepBin } from './bin'
import { isoToday } from './calendar'
import { noteResponse } from './noteResponse'
import { loadResponse } from './responses'
import { listResponses } from './responseTable'
import { submitAnswers } from './submitAnswers'
import { keepView, loadWorkbench, saveTrays } from './workbench'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const FORM = formOf([
  question('boat', { required: true }),
  question('mail', { type: 'email' }),
  question('leaks', { type: 'yesNo' }),
  question('where_leak', { shownWhen: 'leaks = true', required: true }),
])
const OWNER: ReadonlySet<Power> = new Set([...RIGHTS, 'read'])
const SENT: Answers[] = [
  { boat: 'Öland Skiff', mail: 'lotte@wherry.example', leaks: false },
  { boat: 'Teasel 50%', leaks: true, where_leak: 'a "soft" plank' },
  { boat: 'Dunlin', mail: 'piet@wherry.example', leaks: false },
]

async function begun() {
  const form = await releaseNew(store, FORM)
  for (const answers of SENT) {
    const sending = { release: 1, key: fresh('x'), begunOn: isoToday(), answers }
    await submitAnswers(store.db, { token: form.token, caller: null }, sending)
  }
  const list = async (more: Record<string, string> = {}) =>
    listResponses(store.db, form.id, ResponseQuery.parse({ sort: 'number', ...more }))
  const ids = (await list()).rows.map(row => row.id)
  const act = (some: readonly string[], what: ResponsesAct, powers = OWNER) =>
    actOnResponses(store.db, form.id, { ids: some, act: what }, { name: 'Ines', powers })
  return { ...form, ids, list, act }
}
const boats = ({ rows }: Awaited<ReturnType<typeof listResponses>>) => rows.map(row => row.cells.boat)

describe('the workbench of responses', () => {
  it('finds words in any case, with signs that mean something to the database', async () => {
    const { list } = await begun()
    expect(boats(await list({ search: 'öLAND' }))).toEqual(['Öland Skiff'])
    expect(boats(await list({ search: '50%' }))).toEqual(['Teasel 50%'])
    expect(boats(await list({ search: '"soft"' }))).toEqual(['Teasel 50%'])
    expect(boats(await list({ search: '50_' }))).toEqual([])
  })

  it('moves responses between trays, counts them, tells whom a tray names once, and keeps them when trays change', async () => {
    const { id, ids, act, list } = await begun()
    await saveTrays(store.db, id, [
      { id: null, name: 'New', tells: [] },
      { id: null, name: 'Checked', tells: ['office@wherry.example'] },
    ])
    const [fresher, checked] = (await loadWorkbench(store.db, id, store.designer.id)).trays
    const first = ids.slice(0, 1)
    await act(ids, { do: 'tray', tray: fresher?.id ?? '' })
    await act(first, { do: 'tray', tray: checked?.id ?? '' })
    await act(first, { do: 'tray', tray: checked?.id ?? '' })
    expect((await listMail(store.db, first[0] ?? '')).map(m => m.to)).toEqual(['office@wherry.example'])
    expect(boats(await list({ tray: checked?.id ?? '' }))).toEqual(['Öland Skiff'])
    await saveTrays(store.db, id, [{ id: checked?.id ?? null, name: 'To be ordered', tells: [] }])
    const bench = await loadWorkbench(store.db, id, store.designer.id)
    expect(bench.trays.map(t => [t.name, t.count])).toEqual([['To be ordered', 1]])
    expect(bench.untrayed).toBe(2)
    expect(await refusalOf(act(first, { do: 'tray', tray: fresher?.id ?? '' }))).toMatchObject({
      status: 404,
    })
  })

  it('puts responses into the bin and back, counts them nowhere meanwhile, and empties it after its days', async () => {
    const { id, ids, act, list } = await begun()
    const [one = '', two = ''] = ids
    expect(
      await refusalOf(act([one], { do: 'delete', reason: 'Twice' }, new Set(['responses']))),
    ).toMatchObject({
      status: 403,
    })
    expect(await act([one, two], { do: 'delete', reason: 'Twice' })).toEqual({ done: 2, left: [] })
    expect(await list()).toMatchObject({ count: 1, all: 1 })
    expect((await list({ state: 'binned' })).count).toBe(2)
    await act([one], { do: 'put back' })
    expect((await list()).count).toBe(2)
    expect(await act([one], { do: 'delete for good' })).toMatchObject({ done: 0, left: [{ number: 1 }] })
    await sweepBin(store.db)
    expect((await list({ state: 'binned' })).count).toBe(1)
    const long = new Date(Date.now() - 31 * 86_400_000)
    await store.db.update(responses).set({ binnedAt: long }).where(eq(responses.id, two))
    await sweepBin(store.db)
    expect((await loadWorkbench(store.db, id, store.designer.id)).binned).toBe(0)
    expect(await store.db.select().from(files).where(eq(files.responseId, two))).toEqual([])
  })
})

describe('many responses at once', () => {
  it('a message goes to the address of each, with quotes; a wrong quote is refused whole', async () => {
    const { ids, act } = await begun()
    const message = {
      do: 'message',
      to: 'mail',
      subject: 'About {{ boat }}',
      text: 'Dear {{ boat }}',
    } as const
    const { done, left } = await act(ids, message)
    expect([done, left.map(l => l.number)]).toEqual([2, [2]])
    expect(await listMail(store.db, ids[0] ?? '')).toMatchObject([{ subject: 'About Öland Skiff' }])
    expect(await refusalOf(act(ids, { ...message, text: '{{ bote }}' }))).toMatchObject({
      status: 422,
      paths: ['text'],
    })
  })

  it('a view is its keeper’s until it is shared, and counts what it shows', async () => {
    const { id } = await begun()
    const settings = {
      filter: ResponseFilter.parse({ where: 'leaks = true' }),
      sort: '-sentAt',
      columns: ['boat'],
      pinned: 1,
    }
    await keepView(
      store.db,
      id,
      store.designer.id,
      NewView.parse({ name: 'Leaking', isShared: false, settings }),
    )
    const own = await loadWorkbench(store.db, id, store.designer.id)
    expect(own.views).toMatchObject([{ name: 'Leaking', isOwn: true, count: 1 }])
    const others = await loadWorkbench(store.db, id, '00000000-0000-4000-8000-000000000000')
    expect(others.views).toEqual([])
  })
})

describe('correcting a response', () => {
  it('decides the rules again, refuses what would not fit, and keeps what stood there with the reason', async () => {
    const { ids } = await begun()
    const [id = ''] = ids
    const { base } = await loadCorrectable(store.db, id)
    const amend = (answers: Record<string, string | boolean | null>, at = base) =>
      amendResponse(store.db, id, { answers, reason: 'Seen on the slip', base: at }, 'Ines')
    expect(await refusalOf(amend({ leaks: true }))).toMatchObject({ status: 422, paths: ['where_leak'] })
    expect(await refusalOf(amend({ nothing: true }))).toMatchObject({ status: 422, paths: ['nothing'] })
    await amend({ leaks: true, where_leak: 'garboard', mail: null })
    expect(await refusalOf(amend({ leaks: false }))).toMatchObject({ status: 409 })
    const { base: now } = await loadCorrectable(store.db, id)
    await amend({ leaks: false }, now)
    const read = await loadResponse(store.db, id, { email: '', mayAct: true })
    expect(read.lines.map(l => l.text)).toEqual(['Öland Skiff', '', 'No', ''])
    expect(read.history.map(h => [h.who, h.remark, h.changes.length])).toEqual([
      ['Ines', 'Seen on the slip', 2],
      ['Ines', 'Seen on the slip', 2],
    ])
  })

  it('a note is kept, and told only to those who may see the response', async () => {
    const { ids } = await begun()
    const [id = ''] = ids
    const note = (tells: string[]) => noteResponse(store.db, id, { text: 'Rang them', tells }, 'Ines')
    expect(await refusalOf(note(['surveyor@wherry.example']))).toMatchObject({ status: 422 })
    await note(['ines@wherry.example'])
    const { history } = await loadResponse(store.db, id, { email: '', mayAct: true })
    expect(history.map(h => h.kind)).toEqual(['noted', 'posted'])
  })
})
