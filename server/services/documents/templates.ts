import { randomUUID } from 'node:crypto'
import { count, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Form } from '../../../core/form/definition'
import type { BroughtTemplate, KeptTemplates } from '../../../shared/api/documents'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { templates, users } from '../../store/schema'
import { runTask } from '../../threads/run'
import { loadFormRow } from '../drafts'

/** So many files are kept as templates of a form: every one that was brought in, since releases name them. */
const MOST_TEMPLATES = 500

/** The media type of a DOCX (ECMA-376). */
export const DOCX_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'

/** Takes a file in as a template of a form: it is read against the form as it is now, and kept only where nothing is wrong with it. */
export async function bringTemplate(
  db: Database,
  formId: string,
  { name, bytes, by }: { name: string; bytes: Uint8Array; by: string },
): Promise<BroughtTemplate> {
  const { draft } = await loadFormRow(db, formId)
  const read = await runTask('readTemplate', { form: draft, bytes })
  if (read.refused !== null) return refuse(422, 'no-template', read.refused)
  if (read.problems.length > 0) return { template: null, problems: read.problems }
  const [found] = await db.select({ number: count() }).from(templates).where(eq(templates.formId, formId))
  if (Number(found?.number ?? 0) >= MOST_TEMPLATES)
    refuse(422, 'too-many', `A form keeps at most ${MOST_TEMPLATES} files as templates.`)
  const [row] = await db
    .insert(templates)
    .values({ formId, name, content: bytes, userId: by })
    .returning({ id: templates.id })
  if (!row) return refuse(500, 'not-kept', 'The template could not be kept.')
  return { template: { file: row.id, name, bytes: bytes.length, tags: read.tags }, problems: [] }
}

/** A file that is kept as a template; null where there is none. */
export async function findTemplate(
  db: Database,
  id: string,
): Promise<{ formId: string; name: string; content: Uint8Array } | null> {
  const [row] = await db
    .select({ formId: templates.formId, name: templates.name, content: templates.content })
    .from(templates)
    .where(eq(templates.id, id))
  return row ?? null
}

/** A template of a form: its own, or one that its draft names, as a copy of another form does. `document`: by whose tags it is named as they are called now, where they were renamed. */
export async function loadTemplate(
  db: Database,
  formId: string,
  { template: id, document = '' }: { template: string; document?: string },
): Promise<{ name: string; mediaType: string; content: Uint8Array }> {
  const { draft } = await loadFormRow(db, formId)
  const row = await findTemplate(db, id)
  const isOwn = row?.formId === formId || filesOf(draft).includes(id)
  if (!row || !isOwn) return refuse(404, 'not-found', 'There is no such template.')
  const own = draft.documents?.find(d => d.code === document)?.template
  const isNamed = own && !('written' in own) && own.file === id
  const renamed = isNamed ? await runTask('renameTags', { bytes: row.content, tags: own.tags }) : null
  return { name: row.name, content: renamed ?? row.content, mediaType: DOCX_TYPE }
}

/** The files that were brought in as templates of a form, the newest first. */
export async function listTemplates(db: Database, formId: string): Promise<KeptTemplates> {
  const rows = await db
    .select({
      id: templates.id,
      name: templates.name,
      at: templates.madeAt,
      by: users.name,
      bytes: sql<number>`length(${templates.content})`,
    })
    .from(templates)
    .leftJoin(users, eq(users.id, templates.userId))
    .where(eq(templates.formId, formId))
    .orderBy(desc(templates.madeAt), desc(templates.id))
  return { templates: rows.map(({ at, by, ...row }) => ({ ...row, by: by ?? '', at: at.toISOString() })) }
}

/** The files that a form names as templates. */
const filesOf = ({ documents = [] }: Form): string[] =>
  documents.flatMap(({ template }) => ('written' in template ? [] : [template.file]))

/** A form with templates of its own in place of those of another: they go with the other when it is deleted. `keepFor` keeps them for a form, once it has an id. */
export async function withOwnTemplates(
  db: Database,
  form: Form,
): Promise<{ form: Form; keepFor: (formId: string) => Promise<void> }> {
  if (!form.documents) return { form, keepFor: async () => {} }
  const files = new Map(filesOf(form).map(file => [file, randomUUID()]))
  const renamed = (file: string) => files.get(file) ?? file
  const documents = form.documents.map(d => ({
    ...d,
    template: 'written' in d.template ? d.template : { ...d.template, file: renamed(d.template.file) },
  }))
  const keepFor = async (formId: string) => {
    const rows = await db
      .select()
      .from(templates)
      .where(inArray(templates.id, [...files.keys()]))
    if (rows.length > 0)
      await db.insert(templates).values(rows.map(row => ({ ...row, id: renamed(row.id), formId })))
  }
  return { form: { ...form, documents }, keepFor }
}
