import type { Plan } from '../../fill/planned'
import type { DocumentTag } from '../../form/documents'
import { LIMITS } from '../../form/limits'
import { checkTags } from '../checkTags'
import { withWords } from '../templateTags'
import { NotATemplate } from './openDocx'
import { prepareDocx } from './prepareDocx'
import { problemIn, type TemplateProblem } from '../readTemplate'
import type { Tag } from '../../form/tags'

/** What was found in a file that is brought in as a template: its tags as they are kept with the form, and all that is wrong at once. */
export interface DocxReading {
  tags: DocumentTag[]
  problems: TemplateProblem[]
}

/**
 * Reads a DOCX as a template of a form: how its tags are written and nested, and whether what they name is there.
 * @param as the tags as the form has them now, which stand in place of those of the file then
 * @throws NotATemplate where the file is none, has more than 2,000 tags, or others than are given
 */
export function readDocx(bytes: Uint8Array, plan: Plan, as?: readonly Tag[]): DocxReading {
  const { reading, paragraphs } = prepareDocx(bytes, as)
  if (reading.tags.length > LIMITS.documentTags)
    throw new NotATemplate(
      `A template has at most ${LIMITS.documentTags} tags; this one has ${reading.tags.length}.`,
    )
  const wrong = checkTags(
    plan,
    reading.tags.map(t => t.tag),
  )
  const named = wrong.flatMap(({ index, sentence, near }) => {
    const tag = reading.tags[index]
    const paragraph = tag && paragraphs[tag.paragraph]
    return tag && paragraph ? [problemIn(paragraph, tag, sentence, near)] : []
  })
  const tags = reading.tags.map(tag => withWords(tag, paragraphs))
  return { tags, problems: [...reading.problems, ...named] }
}
