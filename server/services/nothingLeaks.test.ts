import fc from 'fast-check'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import haulOut from '../../demo/forms/haul_out.form.json'
import { sharedForm } from '../../tests/support/sharedForms'
import { seededRandom } from '../../core/fill/draw'
import { planOf } from '../../core/fill/plan'
import { drawPlausibleAnswers } from '../../core/fill/plausible'
import { isRecord, type Answer, type Answers } from '../../core/form/answers'
import type { Form, Item } from '../../core/form/definition'
import { readForm } from '../../core/form/read'
import type { Turn } from '../../core/form/turns'
import { listPlaces } from '../../core/form/walk'
import { accessViewOf, maySee } from '../../core/parties/access'
import { filledBy } from '../../core/parties/turns'
import { byLink, fresh, linkTo, openTestStore, type TestStore } from '../testing/testStore'
import { Refused } from '../http/refuse'
import { forms, messages, releases, responses, turns } from '../store/schema'
import { isoToday } from './calendar'
import type { Sending } from '../../shared/api/answering'
import { readToSign } from './documents/readToSign'
import { loadFileOfLink } from './files'
import type { LinkUse } from './links'
import { keepTurn } from './keepTurn'
import { loadRespondentPage, refetchForm } from './respondentPage'
import { returnTurn } from './returnTurn'
import { findOfferedRows } from './rowSearch'
import { submitAnswers } from './submitAnswers'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const TODAY = isoToday()
/** Stands in every text of what a turn never sees, and in nothing else. */
const MARK = 'LEAK'

/** A form in which everything that a turn never sees is marked: labels, help and the words of its choices. */
function marked(form: Form, turn: Turn): { form: Form; hidden: string[] } {
  const places = listPlaces(form)
  const view = accessViewOf(form, places, turn)
  const hidden = new Set(places.flatMap(p => (p.kind === 'question' && !maySee(view, p) ? [p.code] : [])))
  const mark = (item: Item): Item => {
    if (item.kind === 'group') return { ...item, items: item.items.map(mark) }
    if (item.kind !== 'question' || !hidden.has(item.code)) return item
    const words = { label: `${MARK} ${item.label}`, help: `${MARK} help` }
    const options = 'options' in item ? item.options?.map(o => ({ ...o, label: `${MARK} ${o.label}` })) : null
    return Object.assign({}, item, words, options ? { options } : {})
  }
  const sections = form.sections.map(s => ({ ...s, items: s.items.map(mark) }))
  return { form: { ...form, sections }, hidden: [...hidden] }
}

/** A response that waits at a turn, with likely answers; hidden texts among them are marked. Gives a link to it. */
async function waitingAt(form: Form, turn: Turn, hidden: readonly string[], s: number) {
  const { db } = store
  const plan = planOf(form)
  const drawn = drawPlausibleAnswers(plan, {}, TODAY, seededRandom(s), () => ['oak', 'elm']) ?? {}
  const markedAnswer = (code: string, answer: Answer): Answer => {
    if (Array.isArray(answer)) return answer.map(entry => markedAnswer(code, entry))
    if (isRecord(answer)) return markedAll(answer)
    const isHiddenText = hidden.includes(code) && plan.byCode.get(code)?.place.node.type === 'text'
    return isHiddenText && typeof answer === 'string' ? `${MARK} ${answer}` : answer
  }
  const markedAll = (given: Answers): Answers =>
    Object.fromEntries(Object.entries(given).map(([code, answer]) => [code, markedAnswer(code, answer)]))
  const answers = markedAll(drawn)
  const [made] = await db.insert(forms).values({ title: form.title, draft: form }).returning({ id: forms.id })
  const [release] = await db
    .insert(releases)
    .values({
      formId: made!.id,
      number: 1,
      token: fresh('leaks'),
      definition: form,
      findings: [],
      accepted: [],
    })
    .returning({ id: releases.id })
  const [response] = await db
    .insert(responses)
    .values({
      releaseId: release!.id,
      number: 1,
      sendingKey: fresh('key'),
      begunOn: TODAY,
      answers,
      turn: turn.code,
    })
    .returning({ id: responses.id })
  const before = form.turns?.[form.turns.findIndex(t => t.code === turn.code) - 1]
  const taken = { responseId: response!.id, to: ['somebody@wherry.example'] }
  const early = new Date(Date.now() - 60_000)
  if (before)
    await db.insert(turns).values({ ...taken, turn: before.code, openedAt: early, handedOffAt: early })
  const [row] = await db
    .insert(turns)
    .values({ ...taken, turn: turn.code })
    .returning({ id: turns.id })
  return { use: byLink(await linkTo(db, row!.id)), answers, response: response!.id }
}

/** Everything that comes back, also as a refusal. */
async function said(call: Promise<unknown>): Promise<unknown> {
  try {
    return await call
  } catch (error) {
    if (error instanceof Refused) return error.refusal
    throw error
  }
}

/** Reads what is to be signed, signs it, and hands on. */
async function handOnSigned(use: LinkUse, sending: Sending) {
  const { documents } = await readToSign(store.db, use, sending)
  const own = { name: 'R. Reed', role: '', place: '' }
  const signatures = documents.map(({ code, basis }) => ({ ...own, code, basis }))
  return { documents, sent: await submitAnswers(store.db, use, { ...sending, signatures }) }
}

/** What the routes of a link answer, whatever is asked of them. */
async function everything(form: Form, turn: Turn, hidden: readonly string[], s: number): Promise<string> {
  const { db } = store
  const { use, answers, response } = await waitingAt(form, turn, hidden, s)
  const own = filledBy(planOf(form), turn)
  const given = Object.fromEntries(Object.entries(answers).filter(([code]) => own.has(code)))
  const spoilt = Object.fromEntries(Object.keys(given).map((code, i) => [code, i % 2 ? 'nonsense' : null]))
  const sending = (sent: Answers) => ({ release: 1, key: fresh('sending'), begunOn: TODAY, answers: sent })
  const draft = (sent: Answers) => ({ seat: 'seat-one', base: null, key: 'key-of-one', answers: sent })
  const search = (path: string) => ({ path, typed: '', begunOn: TODAY, answers: given })
  const answered = [
    await said(loadRespondentPage(db, use)),
    await said(refetchForm(db, use, sending(given))),
    await said(refetchForm(db, use, sending(spoilt))),
    await said(submitAnswers(db, use, sending(spoilt))),
    await said(submitAnswers(db, use, sending({ nobody_asked: 1 }))),
    await said(keepTurn(db, use, draft({ nobody_asked: 1 }))),
    await said(keepTurn(db, use, draft(given))),
    ...(await Promise.all(hidden.slice(0, 3).map(code => said(findOfferedRows(db, use, search(code)))))),
    await said(loadFileOfLink(db, use, '00000000-0000-4000-8000-000000000000')),
    await said(loadRespondentPage(db, use)),
    await said(submitAnswers(db, use, sending(given))),
    await said(handOnSigned(use, sending(given))),
    await said(returnTurn(db, use, { remark: 'Which one?', pointed: [...hidden].slice(0, 50), draft: null })),
    await said(loadRespondentPage(db, use)),
    await db.select().from(messages).where(eq(messages.responseId, response)),
  ]
  // What a link is made of is no word, though it may look like one.
  return JSON.stringify(answered)
    .replaceAll(/\/f\/[\w-]+/g, '')
    .replaceAll(use.token, '')
}

/** Checks that nothing of what a turn never sees is in what comes back: no words and no codes. */
async function expectNothing(whole: Form, turn: Turn, s: number) {
  const { form, hidden } = marked(whole, turn)
  const bytes = await everything(form, turn, hidden, s)
  expect(bytes).not.toContain(MARK)
  const words = new Set(bytes.match(/[a-z][a-z0-9_]*/g))
  // A code that is also a word, or the code of something else, tells nothing.
  const others = new Set(JSON.stringify({ ...form, sections: [] }).match(/[a-z][a-z0-9_]*/g))
  const telling = hidden.filter(code => /[_\d]/.test(code) && !others.has(code))
  expect(telling.filter(code => words.has(code))).toEqual([])
  return hidden.length
}

describe('nothing of what a turn never sees', () => {
  it('is in any answer of its link: random forms with turns', async () => {
    let hidden = 0
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 1e9 }), fc.nat(1), async (s, which) => {
        const form = sharedForm(s)
        const turn = form.turns?.[which]
        if (turn) hidden += await expectNothing(form, turn, s)
      }),
      { numRuns: 60, examples: [[210584423, 1]] },
    )
    expect(hidden).toBeGreaterThan(20)
  }, 120_000)

  it('is in any answer of its link: the demo’s form with parties', async () => {
    const { form } = readForm(haulOut)
    const all = form?.turns ?? []
    expect(all.length).toBeGreaterThan(2)
    for (const turn of all) if (form) expect(await expectNothing(form, turn, 7)).toBeGreaterThan(0)
  }, 120_000)
})
