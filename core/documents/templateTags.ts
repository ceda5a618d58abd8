import type { DocumentTag, DocumentTemplate } from '../form/documents'
import type { WrittenDocument, WrittenParagraph } from '../form/written'
import { readTemplate, type TemplateParagraph, type TemplateReading } from './readTemplate'

const AROUND = 40
const WORDS = 200

/** The tags of a template, in the order in which they stand in its DOCX. */
export const tagsOf = (template: DocumentTemplate): readonly DocumentTag[] =>
  'written' in template ? readWritten(template.written).tags : template.tags

/** What was written as a template, as it is read: its tags as they are kept of files, and how they are written and nested. */
export interface WrittenReading {
  tags: readonly DocumentTag[]
  problems: TemplateReading['problems']
}

/** Reads what was written as a template. The same is read once. */
export function readWritten(written: WrittenDocument): WrittenReading {
  const known = READ.get(written)
  if (known) return known
  const paragraphs = paragraphsOf(written)
  const { tags, problems } = readTemplate(paragraphs)
  const reading = { tags: tags.map(tag => withWords(tag, paragraphs)), problems }
  READ.set(written, reading)
  return reading
}
const READ = new WeakMap<WrittenDocument, WrittenReading>()

/** A tag with the words around it, as it is kept with a form. */
export function withWords(
  { tag, paragraph, from, to }: TemplateReading['tags'][number],
  paragraphs: readonly TemplateParagraph[],
): DocumentTag {
  const text = paragraphs[paragraph]?.text ?? ''
  return { ...tag, words: text.slice(Math.max(0, from - AROUND), to + AROUND).slice(0, WORDS) }
}

/** The paragraphs of a written template in the order of its DOCX: the body, the footer, the header. */
function paragraphsOf({ header, footer, body }: WrittenDocument): TemplateParagraph[] {
  const found: TemplateParagraph[] = []
  let tables = 0
  for (const block of body) {
    if (block.is === 'paragraph') found.push({ part: 'body', cells: [], text: textOf(block) })
    if (block.is !== 'table') continue
    const table = (tables += 1)
    for (const [row, cells] of block.rows.entries())
      for (const [cell, paragraphs] of cells.entries())
        for (const paragraph of paragraphs)
          found.push({ part: 'body', cells: [{ table, row, cell }], text: textOf(paragraph) })
  }
  if (footer !== undefined) found.push({ part: 'footer', cells: [], text: footer })
  if (header !== undefined) found.push({ part: 'header', cells: [], text: header })
  return found
}
const textOf = ({ runs }: WrittenParagraph) => runs.map(run => run.text).join('')
