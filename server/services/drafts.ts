import { and, count, desc, eq, inArray, sql } from 'drizzle-orm'
import { codeFromLabel } from '../../core/form/codes'
import { emptyForm, type Form } from '../../core/form/definition'
import type { Edit } from '../../core/form/edits'
import { listPlaces } from '../../core/form/walk'
import type { FormBrief } from '../../shared/api/forms'
import { refuse, Refused } from '../http/refuse'
import type { Database } from '../store/database'
import { changes, forms, releases, responses } from '../store/schema'
import { runTask } from '../threads/run'
import { listPowers, makeOwner } from './people/rights'
import { countOpenSuggestions } from './openSuggestions'

/** The forms that somebody may see, with what home shows of each, the last saved first. */
export async function listForms(db: Database, userId: string): Promise<FormBrief[]> {
  const powers = await listPowers(db, userId)
  const seen = [...powers].filter(([, own]) => own.has('read')).map(([id]) => id)
  if (seen.length === 0) return []
  const rows = await db
    .select({
      id: forms.id,
      title: forms.title,
      draft: forms.draft,
      savedAt: forms.savedAt,
      tags: forms.tags,
      archivedAt: forms.archivedAt,
    })
    .from(forms)
    .where(inArray(forms.id, seen))
    .orderBy(desc(forms.savedAt))
  const released = await db
    .select({ formId: releases.formId, number: sql<number>`max(${releases.number})`.mapWith(Number) })
    .from(releases)
    .where(inArray(releases.formId, seen))
    .groupBy(releases.formId)
  const answered = await db
    .select({ formId: releases.formId, number: count(responses.id) })
    .from(releases)
    .leftJoin(responses, eq(responses.releaseId, releases.id))
    .where(inArray(releases.formId, seen))
    .groupBy(releases.formId)
  const suggested = await countOpenSuggestions(db, seen)
  return rows.map(row => ({
    id: row.id,
    title: row.title,
    code: row.draft.code,
    savedAt: row.savedAt.toISOString(),
    questions: listPlaces(row.draft).filter(p => p.kind === 'question').length,
    release: released.find(r => r.formId === row.id)?.number ?? 0,
    responses: powers.get(row.id)?.has('responses')
      ? Number(answered.find(r => r.formId === row.id)?.number ?? 0)
      : null,
    tags: row.tags,
    isArchived: row.archivedAt !== null,
    suggestions: powers.get(row.id)?.has('design') ? (suggested.get(row.id) ?? 0) : 0,
    powers: [...(powers.get(row.id) ?? [])],
  }))
}

/** Makes a form that somebody owns: an empty one with a title, or one from a definition. */
export async function createForm(
  db: Database,
  body: { title: string } | { definition?: unknown },
  ownerId: string,
): Promise<{ id: string }> {
  const form =
    'title' in body
      ? emptyForm(codeFromLabel(body.title, 'form'), body.title)
      : await readDefinition(body.definition)
  return storeForm(db, { title: form.title, draft: form, begun: form }, ownerId)
}

/** Stores a new form with its owner. */
export async function storeForm(
  db: Database,
  values: typeof forms.$inferInsert,
  ownerId: string,
): Promise<{ id: string }> {
  return db.transaction(async tx => {
    const [row] = await tx.insert(forms).values(values).returning({ id: forms.id })
    if (!row) return refuse(500, 'not-stored', 'The form could not be stored.')
    await makeOwner(tx, row.id, ownerId)
    return row
  })
}

async function readDefinition(data: unknown): Promise<Form> {
  const { form, problems } = await runTask('readDefinition', data)
  return (
    form ?? refuse(422, 'wrong-definition', 'This is not a form definition; nothing was changed.', problems)
  )
}

/** A form as it is stored; refused when there is none. */
export async function loadFormRow(db: Database, id: string): Promise<typeof forms.$inferSelect> {
  const [row] = await db.select().from(forms).where(eq(forms.id, id))
  return row ?? refuse(404, 'not-found', 'There is no such form.')
}

/**
 * Saves edits on top of a revision; refused when somebody else saved in between, and nothing is changed. The form is made anew beside
 * everything else, then put in the place of that revision only; `also` happens with it or not at all.
 */
export async function saveEdits(
  db: Database,
  id: string,
  userId: string,
  base: number,
  edits: Edit[],
  also: (tx: Database) => Promise<void> = () => Promise.resolve(),
): Promise<{ revision: number; savedAt: string }> {
  const row = await loadFormRow(db, id)
  if (row.revision !== base) refuseOutdated()
  const draft = await editOrRefuse(row.draft, edits)
  return db.transaction(async tx => {
    const savedAt = new Date()
    const revision = base + 1
    const kept = await tx
      .update(forms)
      .set({ draft, title: draft.title, revision, savedAt })
      .where(and(eq(forms.id, id), eq(forms.revision, base)))
      .returning({ id: forms.id })
    if (kept.length === 0) refuseOutdated()
    await tx.insert(changes).values({ formId: id, revision, userId, edits, at: savedAt })
    await also(tx)
    return { revision, savedAt: savedAt.toISOString() }
  })
}

/** How often edits are made anew when somebody saves in between. */
const TRIES = 3

/** Saves edits that are made of the draft as it is, whatever others save meanwhile; `also` happens with them or not at all. */
export async function saveOnTop(
  db: Database,
  id: string,
  userId: string,
  makeEdits: (draft: Form) => Promise<Edit[]>,
  also?: (tx: Database) => Promise<void>,
): Promise<void> {
  for (let left = TRIES; ; left--) {
    const { draft, revision } = await loadFormRow(db, id)
    const edits = await makeEdits(draft)
    if (edits.length === 0) return
    try {
      await saveEdits(db, id, userId, revision, edits, also)
      return
    } catch (error) {
      if (left === 1 || !(error instanceof Refused) || error.refusal.code !== 'outdated') throw error
    }
  }
}

function refuseOutdated(): never {
  return refuse(409, 'outdated', 'Somebody else changed this form in the meantime; their changes come first.')
}

async function editOrRefuse(form: Form, edits: Edit[]): Promise<Form> {
  const edited = await runTask('editForm', { form, edits })
  if ('impossible' in edited) return refuse(422, 'edit-impossible', edited.impossible)
  return (
    edited.form ??
    refuse(
      422,
      'wrong-definition',
      'The form would not be one any more; nothing was changed.',
      edited.problems,
    )
  )
}
