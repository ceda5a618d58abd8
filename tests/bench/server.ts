import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import pg from 'pg'
import { riskBasis, riskKey } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'
import { seed } from '../../server/services/seed'
import { openStore, type Database } from '../../server/store/database'
import { useFileFolder } from '../../server/store/fileFolder'
import { readMigrations } from '../../server/store/migrationFiles'
import { releases, responses, turns, users } from '../../server/store/schema'
import { listInbox } from '../../server/services/inbox'
import { InboxQuery } from '../../shared/api/inbox'
import { startServer } from '../browser/ownServer'
import { realForm } from './real/realForm'

type Say = (what: string, value: string, goal: string) => void
const TOGETHER = [1, 8, 32]
const SENDINGS = 400
const PAGES = 200
const LARGE = 2_000
const WAITING = 10_000
const AT_ONCE = 1_000
const FORM = 'demo_slipway_incident'
const day = new Date().toISOString().slice(0, 10)
const ANSWERS = { happened_on: day, kind: 'mistake', told: 'The tractor rolled back a metre.' }

interface Measured {
  /** A second. */
  rate: number
  /** Milliseconds that 95 of 100 took at most. */
  p95: number
}

/** Does something `times` times, so many at once. */
async function atOnce(times: number, together: number, act: () => Promise<unknown>): Promise<Measured> {
  const took: number[] = []
  let left = times
  const begun = performance.now()
  const one = async () => {
    while (left-- > 0) {
      const from = performance.now()
      await act()
      took.push(performance.now() - from)
    }
  }
  await Promise.all(Array.from({ length: together }, one))
  const rate = (times * 1000) / (performance.now() - begun)
  took.sort((a, b) => a - b)
  return { rate, p95: took[Math.floor(took.length * 0.95)] ?? 0 }
}

const told = ({ rate, p95 }: Measured) => `${rate.toFixed(0)}/s, ${p95.toFixed(0)} ms`

async function send(url: string) {
  const response = await fetch(`${url}/api/answer/${FORM}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ release: 1, begunOn: day, key: randomUUID(), answers: ANSWERS }),
  })
  if (!response.ok) throw new Error(`A sending was refused: ${await response.text()}`)
  await response.arrayBuffer()
}

/** The rows that a sending makes, without anything around them. */
async function bareInsert(db: Database, releaseId: string) {
  await db.insert(responses).values({
    releaseId,
    number: 0,
    sendingKey: randomUUID(),
    sendingDigest: randomBytes(32).toString('hex'),
    begunOn: day,
    answers: ANSWERS,
  })
}

/** Runs something with the demo's data in a store of its own, outside a server. */
export async function withBareStore(
  url: string | undefined,
  run: (db: Database, releaseId: string) => Promise<void>,
) {
  const folder = mkdtempSync(join(tmpdir(), 'tobbin-bench-'))
  useFileFolder(folder)
  const store = await openStore({
    url,
    folder,
    migrations: await readMigrations(),
    first: db => seed(db, true),
  })
  try {
    const [release] = await store.db.select().from(releases).where(eq(releases.token, FORM))
    if (!release) throw new Error('The demo has no such form.')
    await run(store.db, release.id)
  } finally {
    await store.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** A database of its own on a PostgreSQL server. */
async function withDatabase(server: string, run: (url: string) => Promise<void>) {
  const name = `bench_${randomBytes(6).toString('hex')}`
  const client = new pg.Client({ connectionString: server })
  await client.connect()
  await client.query(`create database ${name}`)
  const url = new URL(server)
  url.pathname = `/${name}`
  try {
    await run(url.href)
  } finally {
    await client.query(`drop database ${name} with (force)`)
    await client.end()
  }
}

/** A page of an inbox with many turns: the first, the last, and what is searched for. */
async function inboxes(say: Say, kind: string, database: string | undefined) {
  await withBareStore(database, async (db, releaseId) => {
    const [designer] = await db.select().from(users).where(eq(users.email, 'ines@wherry.example'))
    if (!designer) throw new Error('The demo has no such person.')
    for (let from = 0; from < WAITING; from += AT_ONCE) await openTurns(db, releaseId, designer.email)
    const asked = { id: designer.id, email: designer.email, name: designer.name, role: designer.role }
    const page = (query: object) => () => listInbox(db, asked, InboxQuery.parse(query))
    const pages = [
      ['first page', {}],
      ['last page', { page: WAITING / 25 }],
      ['search', { search: 'slipway' }],
    ] as const
    for (const [what, query] of pages) {
      await page(query)()
      const measured = await atOnce(40, 1, page(query))
      say(`inbox of ${WAITING}, ${kind}, ${what} (rate, p95)`, told(measured), '100 ms')
    }
  })
}

/** Responses whose second turn waits for somebody. */
async function openTurns(db: Database, releaseId: string, email: string) {
  const made = await db
    .insert(responses)
    .values(
      Array.from({ length: AT_ONCE }, () => ({
        releaseId,
        number: 0,
        sendingKey: randomUUID(),
        begunOn: day,
        answers: ANSWERS,
        turn: 'check',
      })),
    )
    .returning({ id: responses.id })
  await db.insert(turns).values(made.map(({ id }) => ({ responseId: id, turn: 'check', to: [email] })))
}

async function submissions(say: Say, kind: string, database: string | undefined) {
  const bare = new Map<number, Measured>()
  await withBareStore(database, async (db, releaseId) => {
    for (const together of TOGETHER)
      bare.set(together, await atOnce(SENDINGS, together, () => bareInsert(db, releaseId)))
  })
  const server = await startServer({ demo: true, env: { DATABASE_URL: database ?? '' } })
  try {
    for (const together of TOGETHER) {
      const measured = await atOnce(SENDINGS, together, () => send(server.url))
      const beside = bare.get(together)
      const half = beside ? `${(beside.rate / 2).toFixed(0)}/s (bare inserts ${told(beside)})` : '-'
      say(`submissions, ${kind}, ${together} at once (rate, p95)`, told(measured), half)
    }
    if (database) return
    await pages(say, server.url)
  } finally {
    await server.end()
  }
}

/** First pages of a link: as most ask for them, which are kept ready, and with parameters, which are drawn for each. */
async function pages(say: Say, url: string) {
  for (const [kind, query] of [
    ['first pages', ''],
    ['first pages with parameters', '?berth=7'],
  ] as const) {
    const page = () => fetch(`${url}/f/${FORM}${query}`).then(r => r.text())
    await atOnce(20, 1, page)
    for (const together of [1, 8])
      say(`${kind}, ${together} at once`, told(await atOnce(PAGES, together, page)), '200/s')
  }
}

/** How long anybody else waits while a large form is brought in, edited and released. */
async function stalls(say: Say) {
  const form = { ...realForm(LARGE), title: 'Another title' }
  const risks = prove(form, day).findings.filter(f => f.severity === 'risk')
  const server = await startServer({ demo: true })
  const call = async (method: string, path: string, cookie: string, body: object) => {
    const response = await fetch(`${server.url}${path}`, {
      method,
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    })
    if (!response.ok) throw new Error(`${path} was refused: ${(await response.text()).slice(0, 400)}`)
    return response
  }
  try {
    const signed = await call('POST', '/api/session', '', {
      email: 'ines@wherry.example',
      password: 'wherry-reach',
    })
    const cookie = signed.headers
      .getSetCookie()
      .map(c => c.split(';')[0])
      .join('; ')
    let id = ''
    const steps: [string, () => Promise<unknown>][] = [
      [
        'brought in',
        async () => {
          id = (await (await call('POST', '/api/forms', cookie, { definition: form })).json()).id
        },
      ],
      ['edited', () => call('POST', `/api/forms/${id}/edits`, cookie, { base: 0, edits: [TITLE] })],
      ['released', () => call('POST', `/api/forms/${id}/releases`, cookie, { revision: 1 })],
    ]
    const accept = async () => {
      for (const risk of risks)
        await call('PUT', `/api/forms/${id}/acceptances`, cookie, {
          key: riskKey(risk),
          basis: riskBasis(form, risk),
          reason: 'It is meant.',
        })
    }
    for (const [what, act] of steps) {
      if (what === 'released') await accept()
      const { took, longest } = await longestWait(server.url, act)
      say(
        `longest wait of others while ${LARGE} questions are ${what} (${took.toFixed(0)} ms)`,
        `${longest.toFixed(0)} ms`,
        'under 100 ms',
      )
    }
  } finally {
    await server.end()
  }
}
const TITLE = { do: 'change', what: 'form', set: { title: 'Another title' } }

/** Asks for something small, again and again, while something large is done. */
async function longestWait(url: string, act: () => Promise<unknown>) {
  const begun = performance.now()
  let isDone = false
  const done = act().finally(() => {
    isDone = true
  })
  let longest = 0
  while (!isDone) {
    const from = performance.now()
    await fetch(`${url}/api/health`).then(r => r.text())
    longest = Math.max(longest, performance.now() - from)
  }
  await done
  return { took: performance.now() - begun, longest }
}

/** What a server does in a second, and how long others wait for one who asks for much; of the built application. */
export async function serving(say: Say): Promise<void> {
  await stalls(say)
  await submissions(say, 'embedded', undefined)
  await inboxes(say, 'embedded', undefined)
  const server = process.env.TEST_DATABASE_URL
  if (!server) {
    say('submissions, PostgreSQL', 'not measured', 'there is no PostgreSQL on this machine')
    return
  }
  await withDatabase(server, url => submissions(say, 'PostgreSQL', url))
  await withDatabase(server, url => inboxes(say, 'PostgreSQL', url))
}
