import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { ResponseFilter } from '../../shared/api/responses'
import { users } from '../store/schema'
import { formOf, openTestStore, question, refusalOf, releaseNew, type TestStore } from '../testing/testStore'
import { changeDashboard, deleteDashboard, keepDashboard, listDashboards } from './dashboards'
import { shareForm } from './people/sharing'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

it('a dashboard shows its figures to whom it is shared with, but for those of forms whose responses they may not see', async () => {
  const { db, designer } = store
  const [mine, theirs] = await Promise.all(
    ['a', 'b'].map(code => releaseNew(store, formOf([question('tons', { type: 'integer' })], { code }))),
  )
  const [office] = await db.select().from(users).where(eq(users.email, 'office@wherry.example'))
  const officeId = office?.id ?? ''
  const filter = ResponseFilter.parse({ where: 'tons > 10' })
  const tile = (form: string) => ({ form, figure: 'tons', title: 'Heavy', filter, by: '' })
  const tiles = [tile(mine?.id ?? ''), tile(theirs?.id ?? '')]
  const board = { name: 'Mornings', isShared: false, tiles }
  const { id } = await keepDashboard(db, designer.id, board)
  const boardOf = async (userId: string) => (await listDashboards(db, userId)).find(b => b.id === id)
  expect((await boardOf(designer.id))?.tiles.map(t => t.formTitle)).toEqual(['Boat', 'Boat'])
  await changeDashboard(db, designer.id, id, { ...board, isShared: true })
  // None of its forms is shared with the office yet.
  expect(await boardOf(officeId)).toBeUndefined()
  await shareForm(db, theirs?.id ?? '', { holder: { kind: 'person', id: officeId }, rights: ['responses'] })
  const seen = await boardOf(officeId)
  expect(seen).toMatchObject({ isOwn: false, hidden: 1, by: designer.name })
  expect(seen?.tiles.map(t => t.form)).toEqual([theirs?.id])
  expect(JSON.stringify(seen)).not.toContain(mine?.id)
  expect(await refusalOf(changeDashboard(db, officeId, id, board))).toMatchObject({ status: 404 })
  expect(await refusalOf(deleteDashboard(db, officeId, id))).toMatchObject({ status: 404 })
  await deleteDashboard(db, designer.id, id)
  expect(await boardOf(designer.id)).toBeUndefined()
})
