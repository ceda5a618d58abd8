import { ResponseQuery } from '../../shared/api/responses'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import { prove } from '../../core/prove/prove'
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
import type { Database } from '../store/database'
import { users } from '../store/schema'
import { isoToday } from './calendar'
import { createForm, loadFormRow } from './drafts'
import { bringTeamsToDraft } from './followTeams'
import { changePerson } from './people/people'
import { saveTeam } from './people/teams'
import { loadRespondentPage } from './respondentPage'
import { loadResponse } from './responses'
import { listResponses } from './responseTable'
import { submitAnswers } from './submitAnswers'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

async function person(name: string): Promise<string> {
  const email = `${fresh('somebody')}@wherry.example`
  const [row] = await db.insert(users).values({ name, email, role: 'member' }).returning({ id: users.id })
  return row!.id
}
const formFedBy = (team: string): Form =>
  formOf([question('who', { type: 'choice', list: 'crew' })], {
    lists: [{ code: 'crew', people: team, rows: [] }],
  })
/** Who is on offer under a link: names and codes, and whether e-mail addresses went with them. */
async function offered(token: string) {
  const { definition } = await loadRespondentPage(db, byLink(token))
  const rows = definition.lists?.[0]?.rows ?? []
  expect(JSON.stringify(definition)).not.toContain('@wherry.example')
  return new Map(rows.map(row => [row.label, row.code]))
}
const send = (token: string, answers: Answers) =>
  submitAnswers(db, byLink(token), { release: 1, key: fresh('sending'), begunOn: isoToday(), answers })

/** A team of two, and a form that is fed by it and released with them. */
async function begin() {
  const [mia, jon] = [await person('Mia Tarn'), await person('Jon Weir')]
  const name = fresh('Night crew')
  const team = await saveTeam(db, null, { name, members: [mia, jon] })
  const { id } = await createForm(db, { definition: formFedBy(name) }, store.designer.id)
  await bringTeamsToDraft(db, id, store.designer.id)
  const { draft } = await loadFormRow(db, id)
  const form = await releaseNew(store, draft)
  return { mia, jon, name, team: team.id, draft: { id, form: draft }, ...form }
}

describe('a list fed by a team', () => {
  it('follows it in drafts, by name also after the team was renamed', async () => {
    const { jon, team, draft } = await begin()
    const names = async () => (await loadFormRow(db, draft.id)).draft.lists?.[0]?.rows.map(row => row.label)
    expect(await names()).toEqual(['Jon Weir', 'Mia Tarn'])
    const { revision, draft: followed } = await loadFormRow(db, draft.id)
    expect(prove(followed, isoToday()).findings.map(f => f.code)).not.toContain('unused-column')
    await bringTeamsToDraft(db, draft.id, store.designer.id)
    expect((await loadFormRow(db, draft.id)).revision).toBe(revision)
    await saveTeam(db, team, { name: fresh('Late crew'), members: [jon] })
    await bringTeamsToDraft(db, draft.id, store.designer.id)
    expect(await names()).toEqual(['Jon Weir'])
  })

  it('offers who is in it now; who has left stays by name where they were chosen', async () => {
    const { mia, jon, name, team, token, id } = await begin()
    const code = (await offered(token)).get('Mia Tarn')!
    await send(token, { who: code })
    const ada = await person('Ada Lock')
    await saveTeam(db, team, { name, members: [jon, ada] })
    expect([...(await offered(token)).keys()]).toEqual(['Ada Lock', 'Jon Weir'])
    expect(await refusalOf(send(token, { who: code }))).toMatchObject({ code: 'wrong-answers' })
    await send(token, { who: (await offered(token)).get('Ada Lock')! })
    await changePerson(db, mia, { name: 'Mia Sand' })
    await changePerson(db, ada, { isSuspended: true })
    expect([...(await offered(token)).keys()]).toEqual(['Jon Weir'])
    const [first, second] = await storedResponses(db, id)
    expect(first?.answers).toEqual({ who: code })
    expect((await loadResponse(db, first!.id, { email: '', mayAct: false })).lines[0]?.text).toBe('Mia Tarn')
    expect((await loadResponse(db, second!.id, { email: '', mayAct: false })).lines[0]?.text).toBe('Ada Lock')
    const found = await listResponses(db, id, { ...ResponseQuery.parse({}), search: 'Ada L', sort: 'sentAt' })
    expect(found.rows.map(row => row.cells.who)).toEqual(['Ada Lock'])
  })
})

describe('a list fed by a team', () => {
  it('a turn keeps whom an earlier one has chosen', async () => {
    const { mia, jon, name, team, draft } = await begin()
    const turns: Form = {
      ...draft.form,
      parties: [
        { code: 'asks', name: 'Asks' },
        { code: 'works', name: 'Works' },
      ],
      turns: [
        { code: 'ask', party: 'asks', by: 'link', access: { s: 'fills' } },
        { code: 'work', party: 'works', by: 'link', access: { s: 'reads', done: 'fills' } },
      ],
      sections: [...draft.form.sections, { code: 'done', title: 'Done', items: [question('note')] }],
    }
    const { id, token } = await releaseNew(store, turns)
    const code = (await offered(token)).get('Mia Tarn')!
    await send(token, { who: code })
    await saveTeam(db, team, { name, members: [jon] })
    await changePerson(db, mia, { isSuspended: true })
    const [response] = await storedResponses(db, id)
    const details = await loadResponse(db, response!.id, { email: '', mayAct: true })
    const open = details.turns.find(t => t.handedOffAt === null)
    const next = await linkTo(db, open?.id ?? '')
    expect((await offered(next)).get('Mia Tarn')).toBe(code)
    await send(next, { note: 'Done' })
    expect((await storedResponses(db, id))[0]?.answers).toEqual({ who: code, note: 'Done' })
  })
})
