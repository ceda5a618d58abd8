import { z } from 'zod'
import { Label } from './fields'
import { LIMITS } from './limits'
import { findTags, rewriteTags } from './tags'

/** A stretch of a written template's text, with tags in it. */
export const WrittenRun = z.strictObject({
  text: z.string().min(1).max(LIMITS.text),
  bold: z.literal(true).optional(),
  italic: z.literal(true).optional(),
  underline: z.literal(true).optional(),
})
export type WrittenRun = z.infer<typeof WrittenRun>

/** A paragraph: a heading of a level, or an item of a list, where it says so. */
export const WrittenParagraph = z.strictObject({
  is: z.literal('paragraph'),
  level: z.int().min(1).max(3).optional(),
  list: z.enum(['bullets', 'numbers']).optional(),
  align: z.enum(['center', 'right']).optional(),
  runs: z.array(WrittenRun).max(LIMITS.writtenRuns),
})
export type WrittenParagraph = z.infer<typeof WrittenParagraph>

/** A picture: its bytes in base64 (RFC 4648), of a kind that every program shows, and how wide and high it is printed, in points. */
export const WrittenPicture = z.strictObject({
  is: z.literal('picture'),
  type: z.enum(['png', 'jpg']),
  data: z.base64().min(1).max(LIMITS.writtenPicture),
  width: z.number().min(5).max(450),
  height: z.number().min(5).max(700),
})
export type WrittenPicture = z.infer<typeof WrittenPicture>

const Cell = z.array(WrittenParagraph).max(50)
/** A table by rows and cells. */
export const WrittenTable = z.strictObject({
  is: z.literal('table'),
  rows: z.array(z.array(Cell).min(1).max(20)).min(1).max(200),
})
export type WrittenTable = z.infer<typeof WrittenTable>

export const WrittenBlock = z.discriminatedUnion('is', [WrittenParagraph, WrittenTable, WrittenPicture])
export type WrittenBlock = z.infer<typeof WrittenBlock>

/** A template that was written in Tobbin: its body, a line above and one below each page, and whether the pages are numbered. */
export const WrittenDocument = z.strictObject({
  header: Label.optional(),
  footer: Label.optional(),
  numbered: z.literal(true).optional(),
  body: z.array(WrittenBlock).max(LIMITS.writtenBlocks),
})
export type WrittenDocument = z.infer<typeof WrittenDocument>

/** The runs of a paragraph with each tag whole in one of them: one that formats cut has the format of its first sign. */
function withWholeTags(runs: readonly WrittenRun[]): WrittenRun[] {
  const text = runs.map(run => run.text).join('')
  const tags = findTags(text)
  let at = 0
  const ends = runs.map(run => {
    at += run.text.length
    return tags.find(tag => tag.from < at && at < tag.to)?.to ?? at
  })
  return runs.flatMap((run, i) => {
    const piece = text.slice(i === 0 ? 0 : ends[i - 1], ends[i])
    return piece === '' ? [] : [{ ...run, text: piece }]
  })
}

/** A written template with other expressions in its tags. */
export function withWrittenSources(
  written: WrittenDocument,
  source: (text: string) => string,
): WrittenDocument {
  const text = (said: string) => rewriteTags(said, source)
  const paragraph = (p: WrittenParagraph): WrittenParagraph => {
    const whole = p.runs.map(run => run.text).join('')
    if (text(whole) === whole) return p
    return { ...p, runs: withWholeTags(p.runs).map(run => ({ ...run, text: text(run.text) })) }
  }
  const block = (b: WrittenBlock): WrittenBlock => {
    if (b.is === 'picture') return b
    if (b.is === 'paragraph') return paragraph(b)
    return { ...b, rows: b.rows.map(row => row.map(cell => cell.map(paragraph))) }
  }
  const { header, footer } = written
  return {
    ...written,
    ...(header === undefined ? {} : { header: text(header) }),
    ...(footer === undefined ? {} : { footer: text(footer) }),
    body: written.body.map(block),
  }
}
