import { and, asc, count, desc, eq, gt, lte, sql } from 'drizzle-orm'
import { applyEdits, EditError, type Edit } from '../../core/form/edits'
import { emptyForm, type Form } from '../../core/form/definition'
import { codeFromLabel } from '../../core/form/codes'
import { readForm } from '../../core/form/read'
import { listPlaces } from '../../core/form/walk'
import type { Database } from '../store/database'
import { changes, forms, releases, responses, users } from '../store/schema'
import { refuse } from '../http/route'

/** The forms with what home shows of each, the last saved first. */
export async function listForms(db: Database) {
  const rows = await db
    .select({ id: forms.id, title: forms.title, draft: forms.draft, savedAt: forms.savedAt })
    .from(forms)
    .orderBy(desc(forms.savedAt))
  const released = await db
    .select({ formId: releases.formId, number: sql<number>`max(${releases.number})`.mapWith(Number) })
    .from(releases)
    .groupBy(releases.formId)
  const answered = await db
    .select({ formId: releases.formId, number: count(responses.id) })
    .from(releases)
    .leftJoin(responses, eq(responses.releaseId, releases.id))
    .groupBy(releases.formId)
  return rows.map(row => ({
    id: row.id,
    title: row.title,
    code: row.draft.code,
    savedAt: row.savedAt.toISOString(),
    questions: listPlaces(row.draft).filter(p => p.kind === 'question').length,
    release: released.find(r => r.formId === row.id)?.number ?? 0,
    responses: answered.find(r => r.formId === row.id)?.number ?? 0,
  }))
}

export async function createForm(
  db: Database,
  body: { title: string } | { definition?: unknown },
): Promise<{ id: string }> {
  const form =
    'title' in body ? emptyForm(codeFromLabel(body.title, 'form'), body.title) : definitionOf(body.definition)
  const [row] = await db
    .insert(forms)
    .values({ title: form.title, draft: form, begun: form })
    .returning({ id: forms.id })
  return row ?? refuse(500, 'not-stored', 'The form could not be stored.')
}

function definitionOf(data: unknown): Form {
  const { form, problems } = readForm(data)
  return (
    form ?? refuse(422, 'wrong-definition', 'This is not a form definition; nothing was changed.', problems)
  )
}

export async function formRow(db: Database, id: string) {
  const [row] = await db.select().from(forms).where(eq(forms.id, id))
  return row ?? refuse(404, 'not-found', 'There is no such form.')
}

/** Saves edits on top of a revision; refused when somebody else saved in between, and nothing is changed. */
export async function saveEdits(
  db: Database,
  id: string,
  userId: string,
  base: number,
  edits: Edit[],
): Promise<{ revision: number; savedAt: string }> {
  return db.transaction(async tx => {
    const [row] = await tx.select().from(forms).where(eq(forms.id, id)).for('update')
    if (!row) return refuse(404, 'not-found', 'There is no such form.')
    if (row.revision !== base)
      return refuse(
        409,
        'outdated',
        'Somebody else changed this form in the meantime; their changes come first.',
      )
    const form = edited(row.draft, edits)
    const savedAt = new Date()
    const revision = base + 1
    await tx.update(forms).set({ draft: form, title: form.title, revision, savedAt }).where(eq(forms.id, id))
    await tx.insert(changes).values({ formId: id, revision, userId, edits, at: savedAt })
    return { revision, savedAt: savedAt.toISOString() }
  })
}

/** The saves after a revision, oldest first: what somebody else has changed meanwhile. */
export async function changesSince(db: Database, id: string, revision: number) {
  return db
    .select({ revision: changes.revision, edits: changes.edits, by: users.name, userId: changes.userId })
    .from(changes)
    .leftJoin(users, eq(changes.userId, users.id))
    .where(and(eq(changes.formId, id), gt(changes.revision, revision)))
    .orderBy(asc(changes.revision))
    .limit(500)
}

/** Every save of a draft, the newest first: when, by whom, and how many edits; the edits of the last ones to tell what they did. */
export async function historyOf(db: Database, id: string) {
  const { begun, createdAt } = await formRow(db, id)
  const rows = await db
    .select({ revision: changes.revision, at: changes.at, by: users.name, edits: changes.edits })
    .from(changes)
    .leftJoin(users, eq(changes.userId, users.id))
    .where(eq(changes.formId, id))
    .orderBy(desc(changes.revision))
    .limit(1_000)
  return {
    canLook: begun !== null,
    begunAt: createdAt.toISOString(),
    saves: rows.map(r => ({
      revision: r.revision,
      at: r.at.toISOString(),
      by: r.by ?? 'somebody',
      edits: r.edits.slice(0, 20).map(e => ({ do: e.do, what: 'what' in e ? e.what : '' })),
    })),
  }
}

/** The draft as it was after a save; 0 is the beginning. */
export async function draftAt(db: Database, id: string, revision: number): Promise<{ form: Form }> {
  const row = await formRow(db, id)
  if (row.begun === null)
    return refuse(
      404,
      'no-beginning',
      'The beginning of this form is not kept, so earlier states can’t be looked at.',
    )
  if (revision > row.revision) return refuse(404, 'not-found', 'There is no such state.')
  const saves = await db
    .select({ edits: changes.edits })
    .from(changes)
    .where(and(eq(changes.formId, id), lte(changes.revision, revision)))
    .orderBy(asc(changes.revision))
  return {
    form: applyEdits(
      row.begun,
      saves.flatMap(s => s.edits),
    ).form,
  }
}

function edited(form: Form, edits: Edit[]): Form {
  try {
    const result = applyEdits(form, edits).form
    return readForm(result).form ?? refuse(422, 'too-large', 'The form would become too large.')
  } catch (error) {
    if (error instanceof EditError) return refuse(422, 'edit-impossible', error.message)
    throw error
  }
}
