import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Form } from '../../core/form/definition'
import { applyEdits, EditError, type Edit } from '../../core/form/edits'
import { formOf, fresh, openTestStore, question, refusalOf, type TestStore } from '../testing/testStore'
import type { Database } from '../store/database'
import { changes } from '../store/schema'
import { createForm, listForms, loadFormRow, saveEdits } from './drafts'
import { loadChanges, loadHistory, loadState } from './history'
import { releaseForm } from './releases'
import { loadResponse } from './responses'

let store: TestStore
let db: Database
beforeAll(async () => {
  store = await openTestStore()
  db = store.db
}, 120_000)
afterAll(() => store.end())

const make = async (definition: unknown) => (await createForm(db, { definition }, store.designer.id)).id
const save = (id: string, base: number, edits: Edit[]) => saveEdits(db, id, store.designer.id, base, edits)
const edit = fc.oneof(
  fc.nat(5).map((at): Edit => ({ do: 'insert', into: 'section/s', at, node: question(fresh('new')) })),
  fc.constant<Edit>({ do: 'change', what: 'section/s', set: { title: 'Other' } }),
  fc.constant<Edit>({ do: 'change', what: 'item/q', set: { label: 'Changed' } }),
  fc.constant<Edit>({ do: 'remove', what: 'item/q' }),
  fc.constant<Edit>({ do: 'move', what: 'item/q', into: 'section/s', at: 1 }),
)
const someSaves = fc.array(fc.array(edit, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 6 })

/** The form after edits; null where they can’t be made. */
function after(form: Form, edits: Edit[]): Form | null {
  try {
    return applyEdits(form, edits).form
  } catch (error) {
    if (error instanceof EditError) return null
    throw error
  }
}
/** Makes saves on a draft; the states it went through. */
async function saveAll(id: string, start: Form, saves: Edit[][]): Promise<Form[]> {
  const states = [start]
  for (const edits of saves) {
    const expected = after(states.at(-1)!, edits)
    const saving = save(id, states.length - 1, edits)
    if (expected === null) {
      expect(await refusalOf(saving)).toMatchObject({ status: 422, code: 'edit-impossible' })
      continue
    }
    expect((await saving).revision).toBe(states.length)
    states.push(expected)
  }
  return states
}

describe('drafts', () => {
  it('any earlier state is found again, and a save that can’t be made changes nothing', async () => {
    await fc.assert(
      fc.asyncProperty(someSaves, async saves => {
        const start = formOf([question('q'), question('r')])
        const id = await make(start)
        const states = await saveAll(id, start, saves)
        for (const [revision, state] of states.entries())
          expect((await loadState(db, id, revision)).form).toEqual(state)
        expect((await loadFormRow(db, id)).draft).toEqual(states.at(-1))
        const revisions = states.slice(1).map((_, i) => i + 1)
        expect((await loadHistory(db, id)).saves.map(s => s.revision)).toEqual(revisions.toReversed())
        expect((await loadChanges(db, id, 1, store.designer.id)).map(c => c.revision)).toEqual(
          revisions.slice(1),
        )
      }),
      { numRuns: 25 },
    )
  })

  it('of two who save at once on the same state one comes first, and the other is told', async () => {
    const id = await make(formOf([question('q')]))
    const relabel = (label: string) => save(id, 0, [{ do: 'change', what: 'item/q', set: { label } }])
    const tryTo = (label: string) =>
      relabel(label).then(
        () => label,
        () => null,
      )
    const outcomes = await Promise.all(['one', 'two', 'three'].map(tryTo))
    const [first, ...others] = outcomes.filter(o => o !== null)
    expect(others).toEqual([])
    const { draft, revision } = await loadFormRow(db, id)
    expect([draft.sections[0]?.items[0], revision]).toMatchObject([{ label: first }, 1])
    expect(await refusalOf(relabel('late'))).toMatchObject({ status: 409, code: 'outdated' })
    expect(await db.select().from(changes).where(eq(changes.formId, id))).toHaveLength(1)
  })

  it('a definition that is none is refused with its places; what is not there is said', async () => {
    const wrong = createForm(db, { definition: { tobbin: 2, code: 'X', sections: [{}] } }, store.designer.id)
    expect(await refusalOf(wrong)).toMatchObject({
      status: 422,
      code: 'wrong-definition',
      paths: expect.arrayContaining(['code', 'title']),
    })
    const nobody = '00000000-0000-4000-8000-000000000000'
    expect((await refusalOf(loadFormRow(db, nobody))).status).toBe(404)
    expect((await refusalOf(loadState(db, await make(formOf([])), 3))).status).toBe(404)
    expect((await refusalOf(releaseForm(db, nobody, store.designer, { revision: 0 }))).status).toBe(404)
    expect((await refusalOf(loadResponse(db, nobody, { email: '', mayAct: true }))).status).toBe(404)
    const { id } = await createForm(db, { title: 'Crane log' }, store.designer.id)
    const brief = (await listForms(db, store.designer.id)).find(f => f.id === id)
    const empty = { questions: 0, release: 0, responses: 0 }
    expect(brief).toMatchObject({ title: 'Crane log', code: 'crane_log', ...empty })
  })
})
