import type { Form } from '../../../core/form/definition'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { runTask } from '../../threads/run'
import { findTemplate } from './templates'

/**
 * Refuses a form whose documents can’t be made: a template that is not kept here, as after an import from elsewhere, or whose tags are not those
 * on which the proof stood.
 */
export async function refuseForeignTemplates(db: Database, form: Form): Promise<void> {
  for (const { title, code, template } of form.documents ?? []) {
    const name = `“${title || code}”`
    if ('written' in template) continue
    const kept = await findTemplate(db, template.file)
    if (!kept)
      return refuse(422, 'no-template', `The template of ${name} is not kept here. Bring it in once more.`)
    const read = await runTask('readTemplate', { form, bytes: kept.content, tags: template.tags })
    if (read.refused !== null)
      refuse(422, 'no-template', `${name}: ${read.refused} Bring its template in once more.`)
  }
}
