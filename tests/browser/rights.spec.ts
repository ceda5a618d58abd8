import { expect, request, test, type APIRequestContext, type Page } from '@playwright/test'
import { API } from '../../shared/api/endpoints'
import type { Right } from '../../shared/api/sharing'
import { releaseForm } from '../support/release'
import { responsesOf, signIn } from './support'

const NOBODY = '00000000-0000-4000-8000-000000000000'
const PASSWORD = 'a long enough password'

/** Everybody who calls: by their right to the form, by their role, or without a session that counts. */
const HOLDERS = ['own', 'design', 'suggest', 'release', 'responses', 'act'] as const satisfies Right[]
const CALLERS = [...HOLDERS, 'member', 'maker', 'admin', 'ended', 'stranger'] as const
type Caller = (typeof CALLERS)[number]

const ALL = CALLERS
const SIGNED_IN = CALLERS.filter(c => c !== 'ended' && c !== 'stranger')
const READERS: readonly Caller[] = ['own', 'design', 'suggest', 'release', 'responses']
/** The holders of rights are members; the owner is the admin who made the form. */
const MAKERS: readonly Caller[] = ['own', 'maker', 'admin']
const DESIGNING: readonly Caller[] = [...MAKERS, 'design']
const ADMINS: readonly Caller[] = ['own', 'admin']

/** Who is let through to each route: written down once more, apart from the application's own table. */
const LET_THROUGH: Readonly<Record<keyof typeof API, readonly Caller[]>> = {
  ...{ signIn: ALL, signOut: ALL, loadSetUp: ALL, setUp: ALL, forgetPassword: ALL, openKey: ALL },
  ...{ choosePassword: ALL, openLink: ALL, sendAnswers: ALL, refetchForm: ALL, searchRows: ALL },
  ...{
    returnTurn: ALL,
    keepTurn: ALL,
    loadHealth: ALL,
    giveFile: ALL,
    readFile: ALL,
    enterPassphrase: ALL,
    mailCopy: ALL,
    fetchDocument: ALL,
    loadPayment: ALL,
    readToSign: ALL,
    checkFile: ALL,
    pay: ALL,
  },
  ...{ keepAnswers: ALL, recallAnswers: ALL, mailKept: ALL },
  ...{ loadAccount: SIGNED_IN, changeAccount: SIGNED_IN, changePassword: SIGNED_IN, endSession: SIGNED_IN },
  ...{ beginSecondFactor: SIGNED_IN, confirmSecondFactor: SIGNED_IN, removeSecondFactor: SIGNED_IN },
  ...{ listForms: SIGNED_IN, listInbox: SIGNED_IN },
  ...{ listPeople: ADMINS, invitePerson: ADMINS, inviteAgain: ADMINS, changePerson: ADMINS },
  ...{ handOverForms: ADMINS, createTeam: ADMINS, changeTeam: ADMINS, deleteTeam: ADMINS },
  ...{ listRecord: ADMINS, loadPost: ADMINS, loadWorkspace: ADMINS, saveWorkspace: ADMINS },
  ...{ saveLook: MAKERS, removeLook: MAKERS },
  ...{ loadDirectory: DESIGNING, createForm: MAKERS, listSharedLists: DESIGNING, loadSharedList: DESIGNING },
  saveSharedList: MAKERS,
  ...{ loadForm: READERS, copyForm: ['own'], loadChanges: READERS, loadHistory: READERS, loadState: READERS },
  ...{ fileForm: ['own', 'design'], saveEdits: ['own', 'design'], acceptRisk: ['own', 'design'] },
  listSuggestions: READERS,
  ...{ suggest: ['own', 'design', 'suggest'], decideSuggestion: ['own', 'design', 'suggest'] },
  listUnderWay: ['own', 'release'],
  ...{
    releaseForm: ['own', 'release'],
    withdrawRelease: ['own', 'release'],
    saveOpening: ['own', 'release'],
    listWays: ['own', 'release'],
    makeWay: ['own', 'release'],
    changeWay: ['own', 'release'],
    removeWay: ['own', 'release'],
    invitePeople: ['own', 'release'],
    postInvitations: ['own', 'release'],
    savePassphrase: ['own', 'release'],
    makeShortAddress: ['own', 'release'],
    askApproval: ['own', 'release'],
    dropApproval: ['own', 'release'],
    checkProof: ['own', 'release'],
  },
  loadOpening: READERS,
  ...{ deleteForm: ['own'], listShares: ['own'], shareForm: ['own'] },
  ...{
    listResponses: ['own', 'responses'],
    loadBoard: ['own', 'responses'],
    weighStored: ['own', 'responses'],
    exportResponses: ['own', 'responses'],
    actOnTurn: ['own', 'act'],
    actOnResponses: ['own', 'responses'],
    loadWorkbench: ['own', 'responses'],
    summariseResponses: ['own', 'responses'],
    crossResponses: ['own', 'responses'],
    loadPageSteps: ['own', 'responses'],
    countStep: ALL,
    saveTrays: ['own', 'act'],
    ...{ weighImport: ['own', 'act'], takeImport: ['own', 'act'] },
    ...{ listDashboards: SIGNED_IN, keepDashboard: SIGNED_IN },
    ...{ changeDashboard: SIGNED_IN, deleteDashboard: SIGNED_IN },
    ...{ saveRetention: ['own'], findAboutPerson: SIGNED_IN, handOutAboutPerson: SIGNED_IN },
    keepView: ['own', 'responses'],
    changeView: ['own', 'responses'],
    deleteView: ['own', 'responses'],
    noteResponse: ['own', 'responses'],
    ...{ listAccessKeys: ['own'], makeAccessKey: ['own'], removeAccessKey: ['own'] },
    ...{ readLive: ALL, describeApi: ALL, listByKey: ALL, loadByKey: ALL, sendByKey: ALL },
    ...{ listHooksByKey: ALL, makeHookByKey: ALL, removeHookByKey: ALL },
    listDeliveries: ['own', 'responses'],
    deliverAgain: ['own', 'act'],
    loadOutsideWorld: ADMINS,
    tellOutsideWorld: ADMINS,
    loadCorrectable: ['own', 'act'],
    amendResponse: ['own', 'act'],
    actOnPayment: ['own', 'act'],
    bringTemplate: ['own', 'design'],
    loadTemplate: READERS,
    listTemplates: READERS,
    makeDocument: ['own', 'act'],
    loadDocument: ['own', 'responses'],
    loadResponse: ['own', 'responses'],
    loadFile: ['own', 'responses'],
  },
}

/** What the guard itself says: nothing of the request was read. */
const GUARD =
  /^(?:Sign in to go on|You may not|Only (?:admins|those who make forms) may|There is nothing at this address|There is no such (?:form, or it is not|response\.|turn\.|file\.))/

const FORM = {
  tobbin: 2,
  code: 'sweep',
  title: 'Sweep',
  sections: [
    {
      code: 's',
      title: 'S',
      items: [{ kind: 'question', type: 'file', code: 'paper', label: 'Paper', required: true }],
    },
  ],
  parties: [
    { code: 'asks', name: 'Asks' },
    { code: 'reads', name: 'Reads' },
  ],
  turns: [
    { code: 'ask', party: 'asks', by: 'link', access: { s: 'fills' } },
    { code: 'read', party: 'reads', by: 'link', access: { s: 'reads' } },
  ],
}

let baseURL = ''
const context = () => request.newContext({ baseURL })
async function signedIn(email: string, password: string): Promise<APIRequestContext> {
  const own = await context()
  const answer = await own.post('/api/session', { data: { email, password } })
  expect(answer.status()).toBe(200)
  return own
}

/** Somebody new in the workspace, signed in. */
async function join(admin: APIRequestContext, name: string, role: 'member' | 'maker' | 'admin') {
  const email = `${name}-${Date.now()}@wherry.example`
  const { link } = await (await admin.post('/api/people', { data: { name, email, role } })).json()
  const own = await context()
  const joined = await own.post(link.replace('/key/', '/api/keys/'), { data: { password: PASSWORD } })
  expect(joined.status()).toBe(200)
  return { own, email, id: (await joined.json()).user.id }
}

/** Whether the guard lets a call through; whatever the route says then. */
async function isLetThrough(caller: APIRequestContext, name: keyof typeof API, ids: Record<string, string>) {
  const { method, path } = API[name]
  const id = path.startsWith('/api/forms/') ? ids.form : (ids[name] ?? NOBODY)
  const address = path
    .replace(':id', id ?? NOBODY)
    .replace(/:(?:revision|release)/, '0')
    .replace(':number', '1')
    .replace(/:(?:hook|payment)/, NOBODY)
    .replace(/:(?:file|suggestion|way|view|run|issued|template|document)/, NOBODY)
    .replace(/:(?:key|token|code)/, 'nobody')
    .replace(':secret', `${'nobody'.repeat(5)}.csv`)
  const query = name === 'loadChanges' ? '?since=0' : ''
  const data = method === 'POST' || method === 'PUT' ? {} : undefined
  const answer = await caller.fetch(`${address}${query}`, { method, data })
  expect(answer.status(), `${method} ${address}`).toBeLessThan(500)
  if (answer.ok()) return true
  const { message } = await answer.json()
  return !GUARD.test(message)
}

/** A released form with a response that has a file: what the addresses name. */
async function makeForm(page: Page): Promise<Record<string, string>> {
  await signIn(page)
  const made = await page.request.post('/api/forms', { data: { definition: FORM } })
  const { id } = await made.json()
  const link = `/api/answer/${await releaseForm(page, id)}`
  const stranger = await context()
  const key = 'key-of-the-sweep'
  const given = await stranger.post(`${link}/files?question=paper&key=${key}&name=a.txt`, {
    data: Buffer.from('plain words'),
    headers: { 'content-type': 'application/octet-stream' },
  })
  const file = await given.json()
  const begunOn = new Date().toISOString().slice(0, 10)
  const sending = { release: 1, key, begunOn, answers: { paper: file } }
  expect((await stranger.post(link, { data: sending })).status()).toBe(200)
  const { rows } = await responsesOf(page, id)
  const { turns } = await (await page.request.get(`/api/responses/${rows[0]?.id}`)).json()
  const response = rows[0]?.id ?? ''
  const ofResponse = {
    loadResponse: response,
    loadCorrectable: response,
    amendResponse: response,
    actOnPayment: response,
    makeDocument: response,
    loadDocument: response,
    noteResponse: response,
  }
  return { form: id, ...ofResponse, loadFile: file.file, actOnTurn: turns.at(-1)?.id ?? '' }
}

/** What is left in a browser of a session that was signed out, of an admin. */
async function endedSession(admin: APIRequestContext): Promise<APIRequestContext> {
  const { email } = await join(admin, 'ended', 'admin')
  const ended = await signedIn(email, PASSWORD)
  const storageState = await ended.storageState()
  expect((await ended.delete('/api/session')).status()).toBe(200)
  return request.newContext({ baseURL, storageState })
}

test.describe('every route and everybody', () => {
  const calling = new Map<Caller, APIRequestContext>()
  const ids: Record<string, string> = {}

  test.beforeAll(async ({ browser }, testInfo) => {
    baseURL = testInfo.project.use.baseURL ?? ''
    const page = await browser.newPage({ baseURL })
    Object.assign(ids, await makeForm(page))
    await page.close()
    const owner = await signedIn('ines@wherry.example', 'wherry-reach')
    calling.set('own', owner).set('stranger', await context())
    for (const role of ['member', 'maker', 'admin'] as const)
      calling.set(role, (await join(owner, role, role)).own)
    for (const right of HOLDERS.filter(r => r !== 'own')) {
      const { own, id: person } = await join(owner, right, 'member')
      const share = { holder: { kind: 'person', id: person }, rights: [right] }
      expect((await owner.put(`/api/forms/${ids.form}/shares`, { data: share })).status()).toBe(200)
      calling.set(right, own)
    }
    calling.set('ended', await endedSession(owner))
  })

  for (const caller of CALLERS)
    test(`are as the table says: ${caller}`, async () => {
      const own = calling.get(caller)
      if (!own) throw new Error('Nobody calls.')
      const names = Object.keys(API).filter((name): name is keyof typeof API => name in LET_THROUGH)
      expect(names).toHaveLength(Object.keys(API).length)
      // Signing out comes last: it ends what the others are asked with.
      const order = [...names.filter(n => n !== 'signOut'), 'signOut'] as const
      for (const name of order) {
        const isExpected = LET_THROUGH[name].includes(caller)
        expect(await isLetThrough(own, name, ids), `${caller}: ${name}`).toBe(isExpected)
      }
    })
})

test('a request from another site’s page changes nothing, even with a session', async ({
  playwright,
}, testInfo) => {
  baseURL = testInfo.project.use.baseURL ?? ''
  const foreign = ['https://elsewhere.example', 'null', baseURL.replace(/:\d+$/, ':1')]
  for (const origin of foreign) {
    const own = await playwright.request.newContext({ baseURL, extraHTTPHeaders: { origin } })
    const answer = await own.post('/api/session', {
      data: { email: 'ines@wherry.example', password: 'wherry-reach' },
    })
    expect(answer.status()).toBe(403)
    expect((await answer.json()).data.code).toBe('foreign-origin')
  }
  const own = await playwright.request.newContext({ baseURL, extraHTTPHeaders: { origin: baseURL } })
  const answer = await own.post('/api/session', {
    data: { email: 'ines@wherry.example', password: 'wherry-reach' },
  })
  expect(answer.status()).toBe(200)
})

test('what a designer may not see does not leave the server', async ({ request: _ }, testInfo) => {
  baseURL = testInfo.project.use.baseURL ?? ''
  const owner = await signedIn('ines@wherry.example', 'wherry-reach')
  const forms: { id: string; code: string; responses: number }[] = await (
    await owner.get('/api/forms')
  ).json()
  const form = forms.find(f => f.code === 'haul_out' && f.responses > 0)
  const { own, id } = await join(owner, 'looker', 'member')
  const give = (rights: Right[]) =>
    owner.put(`/api/forms/${form?.id}/shares`, { data: { holder: { kind: 'person', id }, rights } })
  await give(['responses'])
  const { rows } = await (await own.get(`/api/forms/${form?.id}/responses`)).json()
  const open = rows.find((r: { turn: string | null }) => r.turn !== null)
  const read = async () => (await own.get(`/api/responses/${open.id}`)).text()
  expect(await read()).not.toMatch(/\/f\/[\w-]{10}/)
  await give(['responses', 'act'])
  expect(await read()).toContain(open.id)
  await give(['design'])
  const [seen] = await (await own.get('/api/forms')).json()
  expect(seen.responses).toBeNull()
  expect((await (await own.get(`/api/forms/${form?.id}`)).json()).responses).toBeNull()
  await give([])
  expect((await own.get(`/api/forms/${form?.id}`)).status()).toBe(404)
})
