import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import fc from 'fast-check'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { applyEdits, EditError, type Edit } from '../../core/form/edits'
import type { Answers } from '../../core/form/answers'
import { seededRandom } from '../../core/fill/draw'
import { answersInPlay, fill } from '../../core/fill/fill'
import { drawPlausibleAnswers } from '../../core/fill/plausible'
import { planOf } from '../../core/fill/plan'
import { riskBasis, riskKey } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'
import type { Form, Item } from '../../core/form/definition'
import type { ChoiceList } from '../../core/form/choiceLists'
import { smallForm } from '../../tests/support/forms'
import { Refused } from '../http/refuse'
import type { Designer } from '../../shared/api/session'
import { openStore, type Database, type MigrationFiles, type Store } from '../store/database'
import { changes, forms, responses, sharedLists, turns, users } from '../store/schema'
import { responseById, responsesOf, takeResponse } from './answering'
import { changesSince, createForm, draftAt, formRow, historyOf, listForms, saveEdits } from './drafts'
import { fileById, takeFile } from './files'
import { accept, acceptancesOf, release, releasesOf, todayText } from './releases'
import { DEMO_OWNER, seed } from './seed'
import { followEdits, saveShared, sharedList, sharedListsOf } from './sharedLists'
import { cutAgain, findRows, giveBack, pageOf, turnsOf } from './turns'
import { hashOf, userWith } from './users'

const MIGRATIONS = fileURLToPath(new URL('../store/migrations', import.meta.url))

async function migrations(): Promise<MigrationFiles> {
  const names = (await readdir(MIGRATIONS, { recursive: true, withFileTypes: true }))
    .filter(e => e.isFile())
    .map(e => join(e.parentPath, e.name))
  return Object.fromEntries(
    await Promise.all(
      names.map(async path => [path.slice(MIGRATIONS.length + 1), await readFile(path, 'utf8')] as const),
    ),
  )
}

/** An embedded store in a folder of its own, with the demo data; `end` closes it and takes the folder away. */
async function demoStore(): Promise<{
  db: Database
  folder: string
  designer: Designer
  store: Store
  end: () => Promise<void>
}> {
  const folder = await mkdtemp(join(tmpdir(), 'tobbin-test-'))
  const store = await openStore({
    url: undefined,
    folder,
    migrations: await migrations(),
    first: db => seed(db, true),
  })
  const [owner] = await store.db
    .select({ id: users.id, name: users.name, email: users.email })
    .from(users)
    .where(eq(users.email, DEMO_OWNER.email))
  if (!owner) throw new Error('The demo owner is missing.')
  const end = async () => {
    await store.close()
    await rm(folder, { recursive: true, force: true })
  }
  return { db: store.db, folder, designer: owner, store, end }
}

/** What a refused call says. */
async function refusal(call: Promise<unknown>): Promise<{ status: number; code: string; paths: string[] }> {
  const error: unknown = await call.then(
    () => null,
    (e: unknown) => e,
  )
  expect(error).toBeInstanceOf(Refused)
  if (!(error instanceof Refused)) throw new Error('Nothing was refused.')
  return {
    status: error.status,
    code: error.refusal.code,
    paths: (error.refusal.problems ?? []).map(p => p.path),
  }
}

let db: Database
let designer: Designer
let folder: string
let end: () => Promise<void>
beforeAll(async () => {
  ;({ db, designer, folder, end } = await demoStore())
}, 120_000)
afterAll(() => end())

const TODAY = todayText()
let count = 0
const key = () => `sending-${(count += 1)}`
const made = async (definition: unknown) => (await createForm(db, { definition })).id
const question = (code: string, more: Record<string, unknown> = {}) =>
  ({ kind: 'question', type: 'text', code, label: code, ...more }) as Item
const formOf = (items: Item[], more: Partial<Form> = {}): Form => ({
  tobbin: 2,
  code: 'boat',
  title: 'Boat',
  sections: [{ code: 's', title: 'S', items }],
  ...more,
})
/** Releases a form with all its risks accepted; its link's token. */
async function released(definition: Form): Promise<{ id: string; token: string; number: number }> {
  const id = await made(definition)
  for (const risk of prove(definition, TODAY).findings.filter(f => f.severity === 'risk'))
    await accept(db, id, designer, {
      key: riskKey(risk),
      basis: riskBasis(definition, risk),
      reason: 'It is meant.',
    })
  return { id, ...(await release(db, id, designer, 0)) }
}

describe('the store', () => {
  it('is filled once: a second start keeps what is there', async () => {
    const before = (await db.select().from(forms)).length
    await seed(db, true)
    expect((await db.select().from(forms)).length).toBe(before)
    expect(before).toBeGreaterThan(3)
  })

  it('keeps a second process out of its folder', async () => {
    await expect(
      openStore({ url: undefined, folder, migrations: await migrations(), first: () => Promise.resolve() }),
    ).rejects.toThrow('is open in another Tobbin')
  })

  it('lets in who knows the password, and nobody else', async () => {
    expect((await userWith(db, ` ${DEMO_OWNER.email.toUpperCase()} `, DEMO_OWNER.password))?.name).toBe(
      DEMO_OWNER.name,
    )
    expect(await userWith(db, DEMO_OWNER.email, 'another')).toBeNull()
    expect(await userWith(db, 'nobody@wherry.example', DEMO_OWNER.password)).toBeNull()
    expect(await hashOf('twice')).not.toBe(await hashOf('twice'))
  })
})

describe('drafts', () => {
  const edit = fc.oneof(
    fc
      .nat(5)
      .map((at): Edit => ({ do: 'insert', into: 'section/s', at, node: question(`new_${(count += 1)}`) })),
    fc.constant<Edit>({ do: 'change', what: 'section/s', set: { title: 'Other' } }),
    fc.constant<Edit>({ do: 'change', what: 'item/q', set: { label: 'Changed' } }),
    fc.constant<Edit>({ do: 'remove', what: 'item/q' }),
    fc.constant<Edit>({ do: 'move', what: 'item/q', into: 'section/s', at: 1 }),
  )

  it('any earlier state is found again, and a save that can’t be made changes nothing', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(edit, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 6 }),
        async saves => {
          const start = formOf([question('q'), question('r')])
          const id = await made(start)
          const states = [start]
          for (const edits of saves) {
            let expected: Form | null
            try {
              expected = applyEdits(states[states.length - 1]!, edits).form
            } catch (error) {
              if (!(error instanceof EditError)) throw error
              expected = null
            }
            if (expected === null)
              expect(await refusal(saveEdits(db, id, designer.id, states.length - 1, edits))).toMatchObject({
                status: 422,
                code: 'edit-impossible',
              })
            else {
              expect((await saveEdits(db, id, designer.id, states.length - 1, edits)).revision).toBe(
                states.length,
              )
              states.push(expected)
            }
          }
          for (const [revision, state] of states.entries())
            expect((await draftAt(db, id, revision)).form).toEqual(state)
          expect((await formRow(db, id)).draft).toEqual(states[states.length - 1])
          expect((await historyOf(db, id)).saves.map(s => s.revision)).toEqual(
            states
              .slice(1)
              .map((_, i) => i + 1)
              .reverse(),
          )
          expect((await changesSince(db, id, 1)).map(c => c.revision)).toEqual(
            states.slice(2).map((_, i) => i + 2),
          )
        },
      ),
      { numRuns: 25 },
    )
  })

  it('of two who save at once on the same state one comes first, and the other is told', async () => {
    const id = await made(formOf([question('q')]))
    const save = (label: string) =>
      saveEdits(db, id, designer.id, 0, [{ do: 'change', what: 'item/q', set: { label } }]).then(
        () => label,
        () => null,
      )
    const outcomes = await Promise.all(['one', 'two', 'three'].map(save))
    const [first, ...others] = outcomes.filter(o => o !== null)
    expect(others).toEqual([])
    const { draft, revision } = await formRow(db, id)
    expect([draft.sections[0]?.items[0], revision]).toMatchObject([{ label: first }, 1])
    expect(
      await refusal(
        saveEdits(db, id, designer.id, 0, [{ do: 'change', what: 'item/q', set: { label: 'late' } }]),
      ),
    ).toMatchObject({ status: 409, code: 'outdated' })
    expect(await db.select().from(changes).where(eq(changes.formId, id))).toHaveLength(1)
  })

  it('a definition that is none is refused with its places; what is not there is said', async () => {
    expect(
      await refusal(createForm(db, { definition: { tobbin: 2, code: 'X', sections: [{}] } })),
    ).toMatchObject({
      status: 422,
      code: 'wrong-definition',
      paths: expect.arrayContaining(['code', 'title']),
    })
    const nobody = '00000000-0000-4000-8000-000000000000'
    expect((await refusal(formRow(db, nobody))).status).toBe(404)
    expect((await refusal(draftAt(db, await made(formOf([])), 3))).status).toBe(404)
    expect((await refusal(release(db, nobody, designer, 0))).status).toBe(404)
    expect((await refusal(responseById(db, nobody))).status).toBe(404)
    const { id } = await createForm(db, { title: 'Crane log' })
    expect((await listForms(db)).find(f => f.id === id)).toMatchObject({
      title: 'Crane log',
      code: 'crane_log',
      questions: 0,
      release: 0,
      responses: 0,
    })
  })
})

describe('releases', () => {
  const risky = formOf([
    question('age', { type: 'integer', min: 18 }),
    question('guardian', { shownWhen: 'age >= 18 or age = null' }),
  ])

  it('are refused while a fault is open, and while a risk has no reason', async () => {
    const faulty = await made(
      formOf([question('age', { type: 'integer' }), question('never', { shownWhen: 'age > 5 and age < 3' })]),
    )
    expect(await refusal(release(db, faulty, designer, 0))).toEqual({
      status: 422,
      code: 'open-faults',
      paths: ['never'],
    })
    const id = await made(risky)
    expect(await refusal(release(db, id, designer, 0))).toEqual({
      status: 422,
      code: 'open-risks',
      paths: ['guardian'],
    })
    expect(await refusal(release(db, id, designer, 7))).toMatchObject({ status: 409, code: 'outdated' })
    expect(await releasesOf(db, id)).toEqual([])
  })

  it('keep the reason and the form as it was; a reason holds only as long as what it rests on', async () => {
    const { id, number } = await released(risky)
    const [kept] = await releasesOf(db, id)
    expect([number, kept?.definition, kept?.accepted.map(a => [a.reason, a.by])]).toEqual([
      1,
      risky,
      [['It is meant.', designer.name]],
    ])
    await saveEdits(db, id, designer.id, 0, [{ do: 'change', what: 'section/s', set: { title: 'Renamed' } }])
    expect((await release(db, id, designer, 1)).number).toBe(2)
    await saveEdits(db, id, designer.id, 1, [{ do: 'change', what: 'item/age', set: { min: 19 } }])
    expect((await refusal(release(db, id, designer, 2))).code).toBe('open-risks')
    expect((await releasesOf(db, id)).map(r => r.definition.sections[0]?.title)).toEqual(['Renamed', 'S'])
    const [known] = await acceptancesOf(db, id)
    expect(await accept(db, id, designer, { key: known?.key ?? '', basis: '', reason: '' })).toEqual([])
  })
})

describe('responses', () => {
  it('are stored just as the rules leave them, however much else is sent; the same sending once', async () => {
    await fc.assert(
      fc.asyncProperty(smallForm, fc.nat(1_000), async (form, seed) => {
        const plan = planOf(form)
        if (prove(form, TODAY).findings.some(f => f.severity === 'fault')) return
        const answers = drawPlausibleAnswers(plan, {}, TODAY, seededRandom(seed), () => ['oak'], seed % 2)
        if (!answers) return
        const { id, token, number } = await released(form)
        const sending = { release: number, key: key(), begunOn: TODAY, answers }
        await takeResponse(db, token, sending)
        await takeResponse(db, token, sending)
        const stored = await responsesOf(db, id)
        expect(stored.map(r => r.answers)).toEqual([answersInPlay(fill(plan, answers, TODAY))])
      }),
      { numRuns: 25 },
    )
  })

  it('that don’t fit are refused as a whole, each problem at its place', async () => {
    const form = formOf([
      question('name', { required: true }),
      question('size', { type: 'integer', min: 2 }),
      question('gone', { shownWhen: 'size > 5' }),
      question('pick', { type: 'choice', options: [{ code: 'a', label: 'A' }] }),
    ])
    const { id, token } = await released(form)
    const send = (answers: Answers, more: Record<string, unknown> = {}) =>
      takeResponse(db, token, { release: 1, key: key(), begunOn: TODAY, answers, ...more })
    expect(await refusal(send({ size: 1 }))).toEqual({
      status: 422,
      code: 'wrong-answers',
      paths: ['name', 'size'],
    })
    expect(await refusal(send({ name: 'Teasel', pick: 'z' }))).toEqual({
      status: 422,
      code: 'wrong-answers',
      paths: ['pick'],
    })
    expect(await refusal(send({ name: 'Teasel', mast: 3 }))).toEqual({
      status: 422,
      code: 'unknown-question',
      paths: ['mast'],
    })
    expect((await refusal(send({ name: 'Teasel' }, { release: 2 }))).code).toBe('outdated')
    expect((await refusal(send({ name: 'Teasel' }, { begunOn: '2001-01-01' }))).code).toBe('wrong-day')
    expect(
      (await refusal(takeResponse(db, 'nowhere', { release: 1, key: key(), begunOn: TODAY, answers: {} })))
        .status,
    ).toBe(404)
    expect(await responsesOf(db, id)).toEqual([])
    await send({ name: 'Teasel', size: 3, gone: 'not asked' })
    expect((await responsesOf(db, id)).map(r => r.answers)).toEqual([{ name: 'Teasel', size: 3 }])
  })

  it('with files: told by their content, bound to the sending that gave them', async () => {
    const { token } = await released(
      formOf([question('plan', { type: 'file', kinds: ['text'], megabytes: 1 })]),
    )
    const sending = key()
    const give = (content: string | Uint8Array, name = 'plan.txt', question = 'plan') =>
      takeFile(
        db,
        token,
        { question, key: sending, name },
        typeof content === 'string' ? new TextEncoder().encode(content) : content,
      )
    expect((await refusal(give(''))).code).toBe('file-empty')
    expect((await refusal(give(new Uint8Array([0x25, 0x50, 0x44, 0x46, 0x2d, 0x31, 0x2e, 0x37])))).code).toBe(
      'wrong-kind',
    )
    expect((await refusal(give(new Uint8Array([1, 2, 3])))).code).toBe('wrong-kind')
    expect((await refusal(give('x'.repeat(1_000_001)))).status).toBe(413)
    expect((await refusal(give('a', 'a.txt', 'other'))).code).toBe('no-file-question')
    const file = await give('Deck plan')
    expect(
      (
        await refusal(
          takeResponse(db, token, { release: 1, key: key(), begunOn: TODAY, answers: { plan: [file] } }),
        )
      ).code,
    ).toBe('unknown-file')
    await takeResponse(db, token, { release: 1, key: sending, begunOn: TODAY, answers: { plan: [file] } })
    const kept = await fileById(db, file.file)
    expect([kept.name, kept.size, new TextDecoder().decode(kept.content), kept.responseId !== null]).toEqual([
      'plan.txt',
      9,
      'Deck plan',
      true,
    ])
  })
})

describe('turns', () => {
  const form: Form = {
    ...formOf([question('boat', { required: true }), question('paid', { type: 'yesNo' })]),
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'yard', name: 'Yard' },
    ],
    turns: [
      { code: 'ask', party: 'owner', by: 'link', access: { s: 'fills' } },
      {
        code: 'check',
        party: 'yard',
        by: { person: 'yard@wherry.example' },
        access: { s: 'reads', work: 'fills' },
      },
      { code: 'thanks', party: 'owner', by: 'link', access: { s: 'reads', work: 'reads' } },
    ],
  }
  form.sections.push({
    code: 'work',
    title: 'Work',
    items: [
      question('hours', { type: 'integer', required: true }),
      question('secret', { privateTo: 'yard' }),
    ],
  })

  it('go from party to party and back; each link gives and takes only what is its own', async () => {
    const { id, token } = await released(form)
    const first = await pageOf(db, token)
    expect(JSON.stringify(first.definition)).not.toContain('secret')
    const sent = await takeResponse(db, token, {
      release: 1,
      key: key(),
      begunOn: TODAY,
      answers: { boat: 'Teasel' },
    })
    const [response] = await responsesOf(db, id)
    const open = async () => (await turnsOf(db, response?.id ?? '')).findLast(t => t.handedOffAt === null)
    const yard = (await open())?.token ?? ''
    expect([sent.next, response?.turn, (await open())?.to]).toEqual([
      'Yard',
      'check',
      ['yard@wherry.example'],
    ])
    const page = await pageOf(db, yard)
    expect([page.answers, page.turn?.returnsTo]).toEqual([{ boat: 'Teasel' }, 'Owner'])
    const answer = (answers: Answers) =>
      takeResponse(db, yard, { release: 1, key: key(), begunOn: TODAY, answers })
    expect(await refusal(answer({}))).toEqual({ status: 422, code: 'wrong-answers', paths: ['hours'] })
    expect((await refusal(answer({ hours: 3, boat: 'Forged' }))).paths).toEqual(['boat'])
    expect((await giveBack(db, yard, 'Which berth?')).to).toBe('Owner')
    expect((await refusal(pageOf(db, yard))).status).toBe(404)
    const again = (await open())?.token ?? ''
    expect((await pageOf(db, again)).turn?.remark).toBe('Which berth?')
    await takeResponse(db, again, {
      release: 1,
      key: key(),
      begunOn: TODAY,
      answers: { boat: 'Teasel, berth 4' },
    })
    const next = (await open())?.token ?? ''
    await takeResponse(db, next, { release: 1, key: key(), begunOn: TODAY, answers: { hours: 5 } })
    expect(
      (
        await refusal(
          takeResponse(db, next, { release: 1, key: key(), begunOn: TODAY, answers: { hours: 6 } }),
        )
      ).code,
    ).toBe('handed-off')
    expect((await refusal(cutAgain(db, next, { answers: {}, begunOn: TODAY }))).code).toBe('handed-off')
    expect((await refusal(giveBack(db, again, 'No.'))).code).toBe('no-turn-before')
    const whole = await responseById(db, response?.id ?? '')
    expect([whole.answers, whole.turn, whole.turns.map(t => t.turn), whole.messages.length > 0]).toEqual([
      { boat: 'Teasel, berth 4', hours: 5 },
      'thanks',
      ['ask', 'check', 'thanks'],
      true,
    ])
  })

  it('of the demo are under way: every open one has its link', async () => {
    const rows = await db.select({ turn: responses.turn, id: responses.id }).from(responses)
    const underWay = rows.filter(r => r.turn !== null)
    const links = await db.select().from(turns)
    expect(
      underWay.every(r =>
        links.some(t => t.responseId === r.id && t.turn === r.turn && t.handedOffAt === null),
      ),
    ).toBe(true)
  })
})

describe('lists of the workspace', () => {
  const rows = (...codes: string[]): ChoiceList['rows'] =>
    codes.map(code => ({ code, label: code.toUpperCase() }))

  it('follow in the forms that use them, as an edit there; a release keeps the rows of its time', async () => {
    const code = `harbours_${(count += 1)}`
    const using = (own: string): Form =>
      formOf([question('harbour', { type: 'choice', list: own })], {
        lists: [{ code: own, shared: code, rows: rows('a', 'b') }],
      })
    const from = await made(using(code))
    expect((await saveShared(db, designer, code, 0, from, { code, rows: rows('a', 'b') })).changed).toEqual(
      [],
    )
    const { id } = await released(using('own_name'))
    expect(await saveShared(db, designer, code, 1, from, { code, rows: rows('a', 'c') })).toMatchObject({
      revision: 2,
      changed: ['Boat'],
    })
    expect(await refusal(saveShared(db, designer, code, 1, from, { code, rows: rows('z') }))).toMatchObject({
      status: 409,
      code: 'outdated',
    })
    expect(await refusal(saveShared(db, designer, code, 0, from, { code, rows: rows('z') }))).toMatchObject({
      status: 409,
      code: 'outdated',
    })
    const { draft, revision } = await formRow(db, id)
    expect([draft.lists?.[0]?.code, draft.lists?.[0]?.rows.map(r => r.code), revision]).toEqual([
      'own_name',
      ['a', 'c'],
      1,
    ])
    expect((await releasesOf(db, id))[0]?.definition.lists?.[0]?.rows.map(r => r.code)).toEqual(['a', 'b'])
    expect((await sharedListsOf(db)).find(l => l.code === code)?.usedBy.find(u => u.id === id)).toEqual({
      id,
      title: 'Boat',
      releases: [1],
    })
    expect((await sharedList(db, code)).list.rows.map(r => r.code)).toEqual(['a', 'c'])
    expect((await refusal(sharedList(db, 'nothing'))).status).toBe(404)
    // Followed anew it is the same: undoing and following again ends at the workspace's rows.
    const kept = (await db.select().from(sharedLists).where(eq(sharedLists.code, code)))[0]?.list
    const followed =
      kept && applyEdits(using('own_name'), followEdits(using('own_name').lists![0]!, kept)).form
    expect(followed?.lists?.[0]?.rows).toEqual(kept?.rows)
  })

  it('are searched where they are kept, narrowed by what was answered', async () => {
    const list: ChoiceList = {
      code: 'berths',
      columns: ['coast'],
      rows: Array.from({ length: 300 }, (_, i) => ({
        code: `b${i}`,
        label: `Berth ${i}`,
        coast: i % 2 === 0 ? 'north' : 'south',
      })),
    }
    const { token } = await released(
      formOf(
        [
          question('coast', {
            type: 'choice',
            options: [
              { code: 'north', label: 'North' },
              { code: 'south', label: 'South' },
            ],
          }),
          question('berth', { type: 'choice', list: 'berths', narrowedBy: 'row.coast = coast' }),
        ],
        { lists: [list] },
      ),
    )
    const find = (typed: string, answers: Answers, path = 'berth') =>
      findRows(db, token, { path, typed, begunOn: TODAY, answers })
    expect(await find('Berth 11', { coast: 'south' })).toMatchObject({
      count: 7,
      rows: [11, 111, 113, 115, 117, 119, 211].map(n => ({ code: `b${n}` })),
    })
    expect((await find('', {})).count).toBe(0)
    expect((await refusal(find('', {}, 'nothing'))).code).toBe('no-choice')
    expect((await refusal(find('', {}, 'none[3].berth'))).code).toBe('no-choice')
  })
})
