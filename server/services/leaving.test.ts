import { buffer } from 'node:stream/consumers'
import { eq, sql } from 'drizzle-orm'
import { strFromU8, unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { docxOf, paragraphOf } from '../../tests/support/docx'
import { RIGHTS } from '../../shared/api/sharing'
import { ExportQuery } from '../../shared/api/responses'
import { sendMail } from '../stand-ins/mailer'
import { receiveFile } from '../store/fileFolder'
import { responses } from '../store/schema'
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
import { findAboutPerson, handOutAboutPerson } from './aboutPerson'
import { actOnResponses } from './actOnResponses'
import { amendResponse, loadCorrectable } from './amendResponse'
import { listTables } from './backup/tables'
import { isoToday } from './calendar'
import { makeByHand } from './documents/documents'
import { bringTemplate } from './documents/templates'
import { createForm } from './drafts'
import { exportResponses } from './exportResponses'
import { takeFile } from './files'
import { saveRetention } from './keptFor'
import { noteResponse } from './noteResponse'
import { loadResponse } from './responses'
import { keepRetentions } from './retention'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const ASKED = [
  question('keeper', { label: 'Keeper', personal: true }),
  question('mail', { type: 'email', label: 'E-mail', personal: true }),
  question('papers', { type: 'file', label: 'Papers', personal: true }),
  question('hives', { type: 'integer', label: 'Hives' }),
  question('fee', { type: 'value', value: 'hives * 2', currency: 'EUR' }),
  {
    ...{ kind: 'group' as const, code: 'helpers', title: 'Helpers', repeat: { min: 0, max: 3 } },
    items: [question('helper', { personal: true }), question('hours', { type: 'integer' })],
  },
]

/** A form that ends with a letter and a payment, both of which name who is asked. */
async function formWithLetter() {
  const { db, designer } = store
  const { id } = await createForm(db, { definition: formOf(ASKED) }, designer.id)
  const letter = { name: 'letter.docx', bytes: docxOf(paragraphOf('Dear {{ keeper }}')), by: designer.id }
  const { template } = await bringTemplate(db, id, letter)
  if (!template) throw new Error('the template has errors')
  return formOf(ASKED, {
    payment: { amount: 'fee', title: 'Fee of {{ keeper }}' },
    documents: [
      { code: 'letter', title: 'Letter', on: 'done', fileName: 'Letter to {{ keeper }}', template },
    ],
  })
}

/** A response whose personal answers hold words that stand nowhere else. */
async function begun() {
  const { db } = store
  const form = await releaseNew(store, await formWithLetter())
  const word = fresh('Zoe').replace('_', '')
  const address = `${word.toLowerCase()}@comb.example`
  const key = fresh('leaving')
  const use = byLink(form.token)
  const papers = await takeFile(db, use, { question: 'papers', key, name: `${word}.txt` }, () =>
    receiveFile(write => write(Buffer.from(`papers of ${word}`))),
  )
  const helpers = [{ helper: `${word} the elder`, hours: 4 }]
  const answers = { keeper: word, mail: address, papers: [papers], hives: 7, helpers }
  await submitAnswers(db, use, { release: 1, key, begunOn: isoToday(), answers })
  const [sent] = await storedResponses(db, form.id)
  const id = sent?.id ?? ''
  await sendMail(db, [{ responseId: id, to: address, subject: 'Hives', text: `Dear ${word}` }])
  await makeByHand(db, id, 'letter', 'Ines')
  const { base } = await loadCorrectable(db, id)
  await amendResponse(db, id, { answers: { keeper: `${word}-Ann` }, reason: 'Rang up', base }, 'Ines')
  return { formId: form.id, id, word, address }
}

/** The tables of which a row holds a word. */
async function tablesWith(word: string): Promise<string[]> {
  const found: string[] = []
  for (const name of await listTables(store.db)) {
    const [row] = await store.db
      .select({ count: sql<number>`count(*)::int` })
      .from(sql`${sql.identifier(name)} t`)
      .where(sql`to_jsonb(t)::text ilike ${`%${word}%`}`)
    if ((row?.count ?? 0) > 0) found.push(name)
  }
  return found.sort()
}
const OWNER = { name: 'Ines', powers: new Set(RIGHTS) }
const age = (id: string, months: number) =>
  store.db
    .update(responses)
    .set({ sentAt: sql`now() - make_interval(months => ${months}, days => 1)` })
    .where(eq(responses.id, id))

describe('leaving', () => {
  it('once personal answers are taken out, no table holds a word of them, and the rest is there', async () => {
    const { db } = store
    const { formId, id, word } = await begun()
    expect(await tablesWith(word)).toEqual([
      ...['documents', 'files', 'messages', 'payments', 'response_events', 'responses'],
    ])
    const strip = () =>
      actOnResponses(db, formId, { ids: [id], act: { do: 'strip', reason: 'Asked for' } }, OWNER)
    expect(await strip()).toEqual({ done: 1, left: [] })
    expect(await tablesWith(word)).toEqual([])
    const [left] = await storedResponses(db, formId)
    expect(left?.answers).toEqual({ hives: 7, helpers: [{ hours: 4 }] })
    const { history } = await loadResponse(db, id, { email: '', mayAct: true })
    expect(history.map(h => [h.kind, h.remark])).toEqual([
      ['document made', 'Letter'],
      ['corrected', 'Rang up'],
      ['stripped', 'Asked for'],
    ])
    expect((await strip()).left).toEqual([{ number: 1, sentence: 'Nothing personal is left in it.' }])
  })

  it('a form keeps its responses for so many months, and those in progress or younger are left alone', async () => {
    const { db } = store
    const [old, young, stripped] = [await begun(), await begun(), await begun()]
    await saveRetention(db, old.formId, { months: 3, act: 'delete' })
    await saveRetention(db, young.formId, { months: 3, act: 'delete' })
    await saveRetention(db, stripped.formId, { months: 3, act: 'strip' })
    for (const { id } of [old, stripped]) await age(id, 3)
    await keepRetentions(db)
    await keepRetentions(db)
    const stateOf = async ({ id }: { id: string }) => {
      const { binnedAt, history } = await loadResponse(db, id, { email: '', mayAct: false })
      return [binnedAt !== null, history.filter(h => h.kind === 'stripped' || h.kind === 'deleted').length]
    }
    expect([await stateOf(old), await stateOf(young), await stateOf(stripped)]).toEqual([
      [true, 1],
      [false, 0],
      [false, 1],
    ])
    expect(await tablesWith(stripped.word)).toEqual([])
  })
})

describe('one person', () => {
  it('is found wherever they stand, by owners only, and handed out with files but without links', async () => {
    const { db } = store
    const { id, word, address, formId } = await begun()
    const own = { id: store.designer.id, email: store.designer.email }
    const { found } = await findAboutPerson(db, own, word.toUpperCase())
    expect(found.map(f => [f.id, f.where])).toEqual([
      [id, ['Keeper', 'E-mail', 'Papers', 'helper', 'a letter', 'the history']],
    ])
    expect((await findAboutPerson(db, own, '%%%')).found).toEqual([])
    const stranger = { id: '00000000-0000-4000-8000-000000000000', email: '' }
    expect((await findAboutPerson(db, stranger, word)).found).toEqual([])
    await noteResponse(db, id, { text: `Ring ${address}`, tells: [] }, 'Ines')
    const { content, count } = await handOutAboutPerson(db, own, address)
    const parts = unzipSync(await buffer(content))
    expect([count, Object.keys(parts)]).toEqual([1, ['Boat 1/response.txt', `Boat 1/papers ${word}.txt`]])
    expect(strFromU8(parts[`Boat 1/papers ${word}.txt`]!)).toBe(`papers of ${word}`)
    for (const text of [`Keeper: ${word}-Ann`, `Dear ${word}`, `Ring ${address}`])
      expect(strFromU8(parts['Boat 1/response.txt']!)).toContain(text)
    const zipped = await exportResponses(db, formId, ExportQuery.parse({ format: 'files' }))
    expect(Object.keys(unzipSync(await buffer(zipped.content)))).toEqual([`1/papers ${word}.txt`])
    const none = exportResponses(db, formId, ExportQuery.parse({ format: 'files', where: 'hives > 9' }))
    expect(await refusalOf(none)).toMatchObject({ code: 'no-files' })
  })
})
