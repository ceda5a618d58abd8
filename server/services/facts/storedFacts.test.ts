import { randomUUID } from 'node:crypto'
import { inflateSync } from 'node:zlib'
import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { RIGHTS } from '../../../shared/api/sharing'
import { SummaryQuery } from '../../../shared/api/summaries'
import type { Database } from '../../store/database'
import { factPieces, factSets, releases, responses } from '../../store/schema'
import {
  formOf,
  openTestStore,
  question,
  releaseNew,
  storedResponses,
  type TestStore,
} from '../../testing/testStore'
import { actOnResponses } from '../actOnResponses'
import { isoToday } from '../calendar'
import { summariseResponses } from '../summaries'
import { prepareStoring, loadFactSet, storeFacts } from './storedFacts'
import { loadFacts } from './loadFacts'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const COUNT = 1_200
const FORM = formOf([
  question('metres', { type: 'integer' }),
  question('skipper', { personal: true }),
  question('refit', { type: 'choices', options: ['hull', 'mast'].map(code => ({ code, label: code })) }),
])
const OWNER = { name: 'Ines', powers: new Set(RIGHTS) }
/** The same store as another process sees it, which has read nothing yet. */
const another = (): Database => Object.create(store.db)

/** Whether every transaction is over that was open when responses were written last, in other databases of the same server too. */
async function isOver(): Promise<boolean> {
  const [found] = await store.db
    .select({ is: sql<boolean>`pg_snapshot_xmin(pg_current_snapshot())::text::bigint > max(touched_by)` })
    .from(responses)
  return found?.is === true
}

async function begun() {
  const form = await releaseNew(store, FORM)
  const [release] = await store.db.select().from(releases).where(eq(releases.formId, form.id))
  const word = `Ottilie${randomUUID().slice(0, 8)}`
  await store.db.insert(responses).values(
    Array.from({ length: COUNT }, (_, i) => ({
      ...{ releaseId: release?.id ?? '', number: 1 + i, sendingKey: randomUUID(), begunOn: isoToday() },
      answers: {
        metres: i % 40,
        skipper: i === 7 ? word : 'Ben',
        refit: i % 3 === 0 ? ['hull', 'mast'] : [],
      },
    })),
  )
  await vi.waitUntil(isOver, 30_000)
  const all = await storedResponses(store.db, form.id)
  const marked = all.find(r => r.answers.skipper === word)?.id ?? ''
  return { id: form.id, word, marked, others: all.map(r => r.id).filter(id => id !== marked) }
}

async function figures(db: Database, formId: string) {
  for (;;) {
    const told = await summariseResponses(db, formId, SummaryQuery.parse({}))
    if (told.isReady) return { count: told.count, measures: told.groups[0]?.measures }
  }
}

/** Asks for figures until the facts stand in the store. */
async function stored(db: Database, formId: string) {
  for (;;) {
    await figures(db, formId)
    const set = await loadFactSet(db, formId)
    if (set?.setId) return set
    await new Promise(setImmediate)
  }
}

/** Whether a word stands in any stored piece. */
async function standsInPieces(formId: string, word: string): Promise<boolean> {
  const pieces = await store.db.select().from(factPieces).where(eq(factPieces.formId, formId))
  return pieces.some(piece => inflateSync(piece.bytes).includes(word))
}

/** How many responses a process reads that begins now. */
const readAnew = async (formId: string) => (await loadFacts(another(), formId, 60_000)).all

describe('stored facts', () => {
  it('are what the next process begins with, and only what changed since is read', async () => {
    const { id, others } = await begun()
    const before = await figures(store.db, id)
    await stored(store.db, id)
    expect(await figures(another(), id)).toEqual(before)
    expect(await readAnew(id)).toBeLessThan(COUNT)
    await store.db
      .update(responses)
      .set({ answers: { metres: 900 } })
      .where(eq(responses.id, others[0] ?? ''))
    const [there, here] = [await figures(another(), id), await figures(store.db, id)]
    expect(there).toEqual(here)
    expect(there).not.toEqual(before)
  })

  it('say nothing where they were made from something else, or a piece is missing', async () => {
    const { id } = await begun()
    const set = await stored(store.db, id)
    await store.db.update(factSets).set({ madeFrom: 'another build' }).where(eq(factSets.formId, id))
    expect(await readAnew(id)).toBe(COUNT)
    // Whoever has read them stores them in its own way.
    await vi.waitUntil(async () => (await loadFactSet(store.db, id))?.madeFrom === set.madeFrom, 30_000)
    expect(await readAnew(id)).toBeLessThan(COUNT)
    await store.db.delete(factPieces).where(eq(factPieces.key, 'metres'))
    expect(await readAnew(id)).toBe(COUNT)
  })

  it('hold nothing of what was taken out for good, also where they are being stored meanwhile', async () => {
    const { id, word, marked, others } = await begun()
    const set = await stored(store.db, id)
    expect(await standsInPieces(id, word)).toBe(true)
    const { table } = await loadFacts(store.db, id, 60_000)
    const strip = { ids: [marked], act: { do: 'strip', reason: 'Asked for' } } as const
    expect((await actOnResponses(store.db, id, strip, OWNER)).done).toBe(1)
    expect(await store.db.select().from(factPieces).where(eq(factPieces.formId, id))).toEqual([])
    // What was read before is not stored any more.
    if (!table) throw new Error('Figures take too long.')
    expect(await storeFacts(store.db, set, { table, madeFrom: set.madeFrom, upTo: 0n })).toBe(false)
    expect(await store.db.select().from(factPieces).where(eq(factPieces.formId, id))).toEqual([])
    const next = another()
    await stored(next, id)
    expect(await standsInPieces(id, word)).toBe(false)
    await store.db.delete(responses).where(eq(responses.id, others[0] ?? ''))
    expect(await store.db.select().from(factPieces).where(eq(factPieces.formId, id))).toEqual([])
    expect((await figures(another(), id)).count).toBe(COUNT - 1)
  })

  it('go with their form, and are prepared once', async () => {
    const { id } = await begun()
    await stored(store.db, id)
    await prepareStoring(store.db, id)
    expect((await loadFactSet(store.db, id))?.setId).not.toBeNull()
    await store.db.execute(sql`delete from forms where id = ${id}`)
    expect(await store.db.select().from(factSets).where(eq(factSets.formId, id))).toEqual([])
  })
})
