import { count, eq } from 'drizzle-orm'
import { codeFromLabel } from '../../core/form/codes'
import type { Filing } from '../../shared/api/forms'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { deleteFiles } from '../store/fileFolder'
import { files, forms, releases, responses } from '../store/schema'
import { withOwnTemplates } from './documents/templates'
import { loadFormRow, storeForm } from './drafts'

/** A copy of a form's draft, with a title and code of its own; releases, responses and acceptances stay with the first. */
export async function copyForm(
  db: Database,
  id: string,
  title: string,
  ownerId: string,
): Promise<{ id: string }> {
  const { draft, tags } = await loadFormRow(db, id)
  return db.transaction(async tx => {
    const own = await withOwnTemplates(tx, draft)
    const copy = { ...own.form, title, code: codeFromLabel(title, 'form') }
    const made = await storeForm(tx, { title, draft: copy, begun: copy, tags }, ownerId)
    await own.keepFor(made.id)
    return made
  })
}

/** Files a form: its tags, each once, and whether it is put away. Its links stay as they are. */
export async function fileForm(db: Database, id: string, { tags, isArchived }: Filing): Promise<void> {
  const { archivedAt } = await loadFormRow(db, id)
  const since = isArchived ? (archivedAt ?? new Date()) : null
  await db
    .update(forms)
    .set({ tags: [...new Set(tags)], archivedAt: since })
    .where(eq(forms.id, id))
}

/** Deletes a form with all its releases, and with its responses only when its title is typed. @returns what it was called, and how many responses went with it */
export async function deleteForm(
  db: Database,
  id: string,
  confirmed: string,
): Promise<{ title: string; responses: number }> {
  const { ids, ...done } = await db.transaction(async tx => {
    const [form] = await tx.select({ title: forms.title }).from(forms).where(eq(forms.id, id)).for('update')
    if (!form) return refuse(404, 'not-found', 'There is no such form.')
    const [answered] = await tx
      .select({ number: count() })
      .from(responses)
      .innerJoin(releases, eq(responses.releaseId, releases.id))
      .where(eq(releases.formId, id))
    const number = answered?.number ?? 0
    if (number > 0 && confirmed.trim() !== form.title.trim())
      refuse(
        409,
        'not-confirmed',
        `This form has ${number === 1 ? 'a response' : `${number} responses`}; type its title to delete it with them.`,
      )
    const own = await tx
      .select({ id: files.id })
      .from(files)
      .innerJoin(releases, eq(files.releaseId, releases.id))
      .where(eq(releases.formId, id))
    await tx.delete(forms).where(eq(forms.id, id))
    return { title: form.title, responses: number, ids: own.map(f => f.id) }
  })
  await deleteFiles(ids)
  return done
}
