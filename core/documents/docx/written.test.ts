import fc from 'fast-check'
import mammoth from 'mammoth'
import { expect, it } from 'vitest'
import type { WrittenBlock, WrittenDocument, WrittenParagraph, WrittenRun } from '../../form/written'
import { withWrittenSources } from '../../form/written'
import { findTags, rewriteTags } from '../../form/tags'
import { tagsOf } from '../templateTags'
import { prepareDocx } from './prepareDocx'
import { readContent } from './readContent'
import { textOfContent } from '../content'
import { writeDocx } from './writeDocx'

const WORDS = [
  'Order for ',
  '{{ boat }}',
  '{{ tons | money }}',
  'a\nb',
  '<&>',
  '{{#when tons > 5}}',
  '{{/when}}',
  '{{ bo',
]
const runs = fc.array(
  fc.record(
    { text: fc.constantFrom(...WORDS), bold: fc.constant(true as const), italic: fc.constant(true as const) },
    { requiredKeys: ['text'] },
  ),
  { maxLength: 4 },
)
const paragraph: fc.Arbitrary<WrittenParagraph> = fc.record(
  {
    is: fc.constant('paragraph' as const),
    level: fc.constantFrom(1, 2, 3),
    list: fc.constantFrom('bullets' as const, 'numbers' as const),
    align: fc.constantFrom('center' as const, 'right' as const),
    runs,
  },
  { requiredKeys: ['is', 'runs'] },
)
const cell = fc.array(paragraph, { minLength: 1, maxLength: 2 })
const block: fc.Arbitrary<WrittenBlock> = fc.oneof(
  { weight: 3, arbitrary: paragraph },
  {
    weight: 1,
    arbitrary: fc.record({
      is: fc.constant('table' as const),
      rows: fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 3 }),
    }),
  },
)
const written: fc.Arbitrary<WrittenDocument> = fc.record(
  {
    header: fc.constantFrom('{{ boat }}', 'Wherry Reach'),
    footer: fc.constantFrom('{{ tons }}', 'x'),
    numbered: fc.constant(true as const),
    body: fc.array(block, { minLength: 1, maxLength: 5 }),
  },
  { requiredKeys: ['body'] },
)

it('what is written here is a DOCX with the same words, and the same tags in the same order', async () => {
  await fc.assert(
    fc.asyncProperty(written, async document => {
      const bytes = await writeDocx(document)
      expect(await writeDocx(document)).toEqual(bytes)
      const { reading } = prepareDocx(bytes)
      expect(reading.tags.map(t => t.tag)).toEqual(
        tagsOf({ written: document }).map(({ words: _words, ...tag }) => tag),
      )
      const { value } = await mammoth.extractRawText({ buffer: Buffer.from(bytes) })
      const said = textOfContent(readContent(bytes).body)
      // The other reader leaves line breaks out.
      expect(said.replaceAll(/\s/g, '')).toBe(value.replaceAll(/\s/g, ''))
    }),
    { numRuns: 60 },
  )
})

/** What is written without how it is cut into runs. */
const wordsOf = (document: WrittenDocument): unknown =>
  JSON.parse(JSON.stringify(document), (key, value: unknown) => {
    if (key !== 'runs' || !Array.isArray(value)) return value
    return value.map((run: WrittenRun) => run.text).join('')
  })

it('a code that is called otherwise is so in what is written, and back again', () => {
  fc.assert(
    fc.property(written, document => {
      const there = (text: string) => text.replaceAll(/\bboat\b/g, 'vessel')
      const back = (text: string) => text.replaceAll(/\bvessel\b/g, 'boat')
      const renamed = withWrittenSources(document, there)
      const sources = tagsOf({ written: renamed }).flatMap(t => ('source' in t ? [t.source] : []))
      expect(sources).not.toContain('boat')
      const again = withWrittenSources(renamed, back)
      expect(wordsOf(again)).toEqual(wordsOf(document))
      expect(tagsOf({ written: again })).toEqual(tagsOf({ written: document }))
    }),
  )
})

/** Each sign outside of tags with its format. */
function formatsOf(runs: readonly WrittenRun[]): string[] {
  const tags = findTags(runs.map(run => run.text).join(''))
  let at = 0
  return runs.flatMap(({ text, bold }) =>
    [...text].flatMap(sign => {
      const here = at
      at += sign.length
      return tags.some(tag => tag.from <= here && here < tag.to) ? [] : [`${sign} ${bold === true}`]
    }),
  )
}

it('tags follow what is called otherwise, also where formats cut them in pieces; all other words keep their format', () => {
  const renamed = (source: string) => source.replaceAll(/\b(?:boat|tons)\b/g, '$&_2')
  const cuts = fc.array(fc.nat(60), { maxLength: 6 })
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...WORDS), { maxLength: 5 }), cuts, (words, at) => {
      const text = words.join('')
      const bounds = [...new Set([0, ...at.filter(n => n < text.length), text.length])].sort((a, b) => a - b)
      const pieces = bounds.slice(1).map((to, i) => text.slice(bounds[i], to))
      const before = pieces.map((piece, i) => ({ text: piece, ...(i % 2 ? { bold: true as const } : {}) }))
      const { body } = withWrittenSources({ body: [{ is: 'paragraph', runs: before }] }, renamed)
      const [after] = body
      if (after?.is !== 'paragraph') throw new Error('The paragraph is gone.')
      expect(after.runs.map(run => run.text).join('')).toBe(rewriteTags(text, renamed))
      expect(formatsOf(after.runs)).toEqual(formatsOf(before))
    }),
  )
})
