import { eq, inArray } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { formOf, openTestStore, question, refusalOf, type TestStore } from '../testing/testStore'
import { files, forms, releases, responses } from '../store/schema'
import { createForm, listForms, loadFormRow } from './drafts'
import { copyForm, deleteForm, fileForm } from './keepForms'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

describe('forms that are kept', () => {
  it('a copy has the draft, a title and code of its own, and the tags; nothing else', async () => {
    const { db } = store
    const { id } = await createForm(db, { definition: formOf([question('q')]) }, store.designer.id)
    await fileForm(db, id, { tags: ['water', 'water', 'yard'], isArchived: true })
    const copied = await copyForm(db, id, 'Night dives', store.designer.id)
    const [own, copy] = [await loadFormRow(db, id), await loadFormRow(db, copied.id)]
    expect(copy.draft).toEqual({ ...own.draft, title: 'Night dives', code: 'night_dives' })
    expect([copy.tags, copy.archivedAt, copy.revision]).toEqual([['water', 'yard'], null, 0])
    const listed = (await listForms(db, store.designer.id)).filter(f => [id, copied.id].includes(f.id))
    expect(listed.map(f => f.isArchived).toSorted()).toEqual([false, true])
    await fileForm(db, id, { tags: [], isArchived: false })
    expect((await loadFormRow(db, id)).archivedAt).toBeNull()
  })

  it('one with responses goes with them only when its title is typed, and others stay as they are', async () => {
    const { db } = store
    const before = await listForms(db, store.designer.id)
    const doomed = before.find(f => (f.responses ?? 0) > 0)
    if (!doomed) throw new Error('The demo has responses.')
    for (const typed of ['', doomed.title.toUpperCase(), `${doomed.title}!`])
      expect(await refusalOf(deleteForm(db, doomed.id, typed))).toMatchObject({ code: 'not-confirmed' })
    expect(await listForms(db, store.designer.id)).toEqual(before)
    const own = await db.select({ id: releases.id }).from(releases).where(eq(releases.formId, doomed.id))
    const ids = own.map(r => r.id)
    await deleteForm(db, doomed.id, ` ${doomed.title} `)
    expect(await listForms(db, store.designer.id)).toEqual(before.filter(f => f.id !== doomed.id))
    const left = [
      await db.select().from(forms).where(eq(forms.id, doomed.id)),
      await db.select().from(responses).where(inArray(responses.releaseId, ids)),
      await db.select().from(files).where(inArray(files.releaseId, ids)),
    ]
    expect(left).toEqual([[], [], []])
    expect(await refusalOf(deleteForm(db, doomed.id, doomed.title))).toMatchObject({ code: 'not-found' })
  })
})
