import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Edit } from '../../core/form/edits'
import { renameEdits } from '../../core/form/rename'
import { ResponseQuery } from '../../shared/api/responses'
import { responses } from '../store/schema'
import {
  formOf,
  openTestStore,
  question,
  releaseNew,
  storedReleases,
  type TestStore,
} from '../testing/testStore'
import { loadFormRow, saveEdits } from './drafts'
import { releaseForm } from './releases'
import { listResponses } from './responseTable'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

it('the columns of questions follow them through renames, in the cells and in the order', async () => {
  const { db, designer } = store
  const { id } = await releaseNew(store, formOf([question('name'), question('size', { type: 'integer' })]))
  let revision = 0
  const save = async (edits: Edit[]) => {
    await saveEdits(db, id, designer.id, revision, edits)
    revision += 1
  }
  const rename = async (from: string, to: string) =>
    save(renameEdits((await loadFormRow(db, id)).draft, `item/${from}`, to))
  const answer = async (answers: Record<string, string | number>, second: number) => {
    const [newest] = await storedReleases(db, id)
    const sentAt = new Date(Date.UTC(2026, 0, 1, 0, 0, second))
    const row = {
      releaseId: newest!.id,
      number: second,
      sendingKey: `renamed-${second}`,
      sentAt,
      begunOn: '2026-01-01',
      answers,
    }
    await db.insert(responses).values(row)
  }
  await answer({ name: 'Tern', size: 7 }, 1)
  // The two exchange their codes by way of a third one; what is asked under an old code later is another question.
  await rename('name', 'boat')
  await rename('size', 'name')
  await rename('name', 'metres')
  await save([{ do: 'insert', into: 'section/s', at: 2, node: question('name') }])
  await releaseForm(db, id, designer, { revision })
  await answer({ boat: 'Auk', metres: 12, name: 'Ines' }, 2)

  const list = (sort: string) => listResponses(db, id, { ...ResponseQuery.parse({}), sort })
  const { columns, rows } = await list('cells.metres')
  expect(columns.map(c => c.code)).toEqual(['boat', 'metres', 'name'])
  expect(rows.map(r => r.cells)).toEqual([
    { boat: 'Tern', metres: '7' },
    { boat: 'Auk', metres: '12', name: 'Ines' },
  ])
  expect((await list('-cells.boat')).rows.map(r => r.cells.boat)).toEqual(['Tern', 'Auk'])
})
