import { fillDocx, TooLarge } from '../../core/documents/docx/fillDocx'
import { NotATemplate } from '../../core/documents/docx/openDocx'
import { prepareDocx } from '../../core/documents/docx/prepareDocx'
import { readDocx, type DocxReading } from '../../core/documents/docx/readDocx'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { Standing } from '../../core/form/standing'

/** A template to be read against a form. */
export interface TemplateToRead {
  form: Form
  bytes: Uint8Array
}
/** A template to be filled from a response. */
export interface TemplateToFill {
  form: Form
  answers: Answers
  begunOn: string
  standing: Standing
  template: Uint8Array
}

/** Reads a template; `refused`: why the file is none. */
export function readTemplate({ form, bytes }: TemplateToRead): DocxReading & { refused: string | null } {
  try {
    return { ...readDocx(bytes, planOf(form)), refused: null }
  } catch (error) {
    if (error instanceof NotATemplate) return { tags: [], problems: [], refused: error.message }
    throw error
  }
}

/** Fills a template; `refused`: why that can’t be. */
export function fillTemplate(asked: TemplateToFill): { bytes: Uint8Array; refused: string | null } {
  const { form, answers, begunOn, standing, template } = asked
  try {
    const filled = fill(planOf(form), answers, begunOn, standing)
    return { bytes: fillDocx(prepareDocx(template), filled), refused: null }
  } catch (error) {
    if (error instanceof TooLarge) return { bytes: new Uint8Array(), refused: error.message }
    throw error
  }
}
