import { randomBytes } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { desc, eq } from 'drizzle-orm'
import pg from 'pg'
import { expect } from 'vitest'
import type { Form, Item } from '../../core/form/definition'
import { riskBasis, riskKey } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'
import { Refused } from '../http/refuse'
import { acceptRisk } from '../services/acceptances'
import { isoToday } from '../services/calendar'
import { createForm } from '../services/drafts'
import { releaseForm } from '../services/releases'
import type { LinkUse } from '../services/links'
import { seed } from '../services/seed'
import { makeLink } from '../services/turnLinks'
import { DEMO_OWNER } from '../services/seedPeople'
import { openStore, type Database, type Store } from '../store/database'
import { useFileFolder } from '../store/fileFolder'
import { readMigrations } from '../store/migrationFiles'
import { releases, responses, users } from '../store/schema'
import type { Designer } from '../../shared/api/session'

/** A new database on the PostgreSQL server of `TEST_DATABASE_URL`; `drop` takes it away. */
export async function newDatabase(server: string): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `test_${randomBytes(8).toString('hex')}`
  const run = async (command: string) => {
    const client = new pg.Client({ connectionString: server })
    await client.connect()
    await client.query(command)
    await client.end()
  }
  await run(`create database ${name}`)
  const url = new URL(server)
  url.pathname = `/${name}`
  return { url: url.href, drop: () => run(`drop database ${name} with (force)`) }
}

export interface TestStore {
  db: Database
  store: Store
  folder: string
  designer: Designer
  end: () => Promise<void>
}

/** A store of its own with the demo data: on the PostgreSQL server of `TEST_DATABASE_URL`, else embedded. */
export async function openTestStore(): Promise<TestStore> {
  const server = process.env.TEST_DATABASE_URL
  const own = server ? await newDatabase(server) : null
  const folder = await mkdtemp(join(tmpdir(), 'tobbin-test-'))
  useFileFolder(folder)
  const store = await openStore({
    url: own?.url,
    folder,
    migrations: await readMigrations(),
    first: db => seed(db, true),
  })
  const [designer] = await store.db
    .select({ id: users.id, name: users.name, email: users.email, role: users.role })
    .from(users)
    .where(eq(users.email, DEMO_OWNER.email))
  if (!designer) throw new Error('The demo owner is missing.')
  const end = async () => {
    await store.close()
    await own?.drop()
    await rm(folder, { recursive: true, force: true })
  }
  return { db: store.db, store, folder, designer, end }
}

/** What a refused call says. */
export async function refusalOf(
  call: Promise<unknown>,
): Promise<{ status: number; code: string; paths: string[] }> {
  const error: unknown = await call.then(
    () => null,
    (e: unknown) => e,
  )
  expect(error).toBeInstanceOf(Refused)
  if (!(error instanceof Refused)) throw new Error('Nothing was refused.')
  const { code, problems } = error.refusal
  return { status: error.status, code, paths: (problems ?? []).map(p => p.path) }
}

export const question = (code: string, more: Record<string, unknown> = {}) =>
  ({ kind: 'question', type: 'text', code, label: code, ...more }) as Item
/** A form with one section of items. */
export const formOf = (items: Item[], more: Partial<Form> = {}): Form => ({
  tobbin: 2,
  code: 'boat',
  title: 'Boat',
  sections: [{ code: 's', title: 'S', items }],
  ...more,
})

let count = 0
/** A name that no other call gives. */
export const fresh = (name: string): string => `${name}_${(count += 1)}_${process.pid}`

/** Creates a form of a definition, releases it with all its risks accepted; its link's token. */
export async function releaseNew(
  { db, designer }: TestStore,
  definition: Form,
): Promise<{ id: string; token: string; number: number }> {
  const { id } = await createForm(db, { definition }, designer.id)
  const risks = prove(definition, isoToday()).findings.filter(f => f.severity === 'risk')
  for (const risk of risks) {
    const accepting = { key: riskKey(risk), basis: riskBasis(definition, risk), reason: 'It is meant.' }
    await acceptRisk(db, id, designer, accepting)
  }
  return { id, ...(await releaseForm(db, id, designer, { revision: 0 })) }
}

/** The stored responses of a form, the oldest first. */
export const storedResponses = (db: Database, formId: string) =>
  db
    .select({ id: responses.id, answers: responses.answers, turn: responses.turn })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(releases.formId, formId))
    .orderBy(responses.sentAt)

/** The stored releases of a form, the newest first. */
export const storedReleases = (db: Database, formId: string) =>
  db.select().from(releases).where(eq(releases.formId, formId)).orderBy(desc(releases.number))

/** A link as strangers use it. */
export const byLink = (token: string): LinkUse => ({ token: token.replace(/^\/f\//, ''), caller: null })
/** A new private link to a turn. */
export const linkTo = (db: Database, turnId: string): Promise<string> => makeLink(db, turnId, {}, null)
