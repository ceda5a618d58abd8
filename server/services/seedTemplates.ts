import { eq } from 'drizzle-orm'
import { writeDocx } from '../../core/documents/docx/writeDocx'
import type { Form } from '../../core/form/definition'
import type { FormDocument } from '../../core/form/documents'
import type { Database } from '../store/database'
import { forms } from '../store/schema'
import { bringTemplate } from './documents/templates'

/** The documents of the demo whose templates stand there as files that were brought in, by the code of their form. */
const BROUGHT: Readonly<Record<string, string>> = { haul_out: 'works_order' }

/** Brings the template of a demo form in as a file, as somebody does who writes it in a word processor. @returns the form with it */
export async function bringDemoTemplate(db: Database, formId: string, form: Form, by: string): Promise<Form> {
  const documents: FormDocument[] = []
  for (const document of form.documents ?? []) {
    const { code, template } = document
    if (code !== BROUGHT[form.code] || !('written' in template)) {
      documents.push(document)
      continue
    }
    const bytes = await writeDocx(template.written)
    const brought = await bringTemplate(db, formId, { name: `${code}.docx`, bytes, by })
    if (!brought.template)
      throw new Error(`The demo’s template “${code}” does not fit: ${brought.problems[0]?.sentence ?? ''}`)
    documents.push({ ...document, template: brought.template })
  }
  if (documents.length === 0) return form
  const changed = { ...form, documents }
  await db.update(forms).set({ draft: changed, begun: changed }).where(eq(forms.id, formId))
  return changed
}
