import fc from 'fast-check'
import { unzipSync } from 'fflate'
import { expect, it } from 'vitest'
import { docxOf, paragraphOf } from '../../../tests/support/docx'
import { rewriteTags } from '../../form/tags'
import { prepareDocx } from './prepareDocx'
import { listParagraphs, readXml } from './docxTree'
import { openDocx, textOf } from './openDocx'
import { writeTags } from './writeTags'

const WORDS = [
  'Order for ',
  '{{ boat }}',
  '{{ tons | money }}',
  '{{#when tons > 5}}heavy{{/when}}',
  '<&> ',
  '“{{ boat}}”',
]
const text = fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 5 }).map(words => words.join(''))
const MAIN = 'word/document.xml'
const textsIn = (bytes: Uint8Array) =>
  listParagraphs(readXml(textOf(openDocx(bytes), MAIN), MAIN), MAIN).map(p => p.text)
/** Of a tag that stays, as of all words, not a sign is another. */
const renamed = (source: string) => source.replaceAll('boat', 'vessel')

it('a file takes the names that the form has now: every tag, in its place, and nothing else', () => {
  fc.assert(
    fc.property(fc.array(text, { minLength: 1, maxLength: 4 }), fc.boolean(), (lines, isSplit) => {
      // A word processor keeps each sign in a run of its own, where it likes.
      const runs = (line: string) => (isSplit ? [...line] : [line])
      const bytes = docxOf(lines.map(line => paragraphOf(...runs(line))).join(''))
      const own = prepareDocx(bytes).reading.tags.map(t => t.tag)
      const tags = own.map(tag => ('source' in tag ? { ...tag, source: renamed(tag.source) } : tag))
      const written = writeTags(bytes, tags)
      expect(prepareDocx(written).reading.tags.map(t => t.tag)).toEqual(tags)
      expect(textsIn(written)).toEqual(lines.map(line => rewriteTags(line, renamed)))
      const [before, after] = [unzipSync(bytes), unzipSync(written)]
      for (const name of Object.keys(before)) if (name !== MAIN) expect(after[name]).toEqual(before[name])
      expect(writeTags(bytes, own)).toBe(bytes)
    }),
    { numRuns: 60 },
  )
})
