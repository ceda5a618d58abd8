import mammoth from 'mammoth'
import { expect, it } from 'vitest'
import { docxOf, paragraphOf, tableOf } from '../../../tests/support/docx'
import { fill } from '../../fill/fill'
import { planOf } from '../../fill/plan'
import { readForm } from '../../form/read'
import type { ContentBlock, PictureRun } from '../content'
import { fillDocx } from './fillDocx'
import { prepareDocx } from './prepareDocx'
import { readContent } from './readContent'
import { withoutOutside } from './withoutOutside'

/** The smallest PNG: one pixel. */
const PIXEL =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
const png = new Uint8Array(Buffer.from(PIXEL, 'base64'))
const file = (id: string, name: string) => ({ file: id.padEnd(8, '0'), name, bytes: png.length })
const PATH = 'M10 10 L200 120'

const pictures = {
  drawn: (path: string) => (path === PATH ? png : null),
  file: (id: string) => (id.startsWith('photo') ? new Uint8Array(png) : null),
}
const read = readForm({
  tobbin: 2,
  code: 'spots',
  title: 'Spots',
  sections: [
    {
      code: 's',
      title: 'Spots',
      items: [
        { kind: 'question', type: 'signature', code: 'signed', label: 'Signed' },
        {
          kind: 'group',
          code: 'spots',
          title: 'Spots',
          repeat: { max: 4 },
          items: [
            { kind: 'question', type: 'text', code: 'what', label: 'What' },
            { kind: 'question', type: 'file', code: 'photo', label: 'Photo', most: 3 },
          ],
        },
        { kind: 'question', type: 'file', code: 'papers', label: 'Papers', most: 3 },
      ],
    },
  ],
})
const BODY =
  paragraphOf('Signed: {{ signed }}') +
  tableOf(['{{#each spots}}{{ what }}', '{{ photo }}{{/each}}']) +
  paragraphOf('Papers: {{ papers }}')

it('pictures and drawn signatures stand where they are quoted; what is none is told by its name', async () => {
  const answers = {
    signed: { drawn: PATH },
    spots: [
      { what: 'Bow', photo: [file('photo-1', 'bow.png')] },
      { what: 'Stern', photo: [file('photo-2', 'stern.png'), file('photo-3', 'again.png')] },
    ],
    papers: [file('photo-4', 'hull.png'), file('letter', 'letter.pdf')],
  }
  if (!read.form) throw new Error(JSON.stringify(read.problems))
  const filled = fill(planOf(read.form), answers, '2026-11-24')
  expect(filled.wrong.size).toBe(0)
  const made = fillDocx(prepareDocx(docxOf(BODY)), filled, { pictures })
  const { value } = await mammoth.convertToHtml({ buffer: Buffer.from(made) })
  expect(value.split(`src="data:image/png;base64,${PIXEL}"`)).toHaveLength(5)
  expect(value).toContain('hull.png')
  const { body } = readContent(made)
  const shown = picturesIn(body)
  expect(shown.map(p => [p.width, p.height])).toEqual([
    [150, 50],
    [0.75, 0.75],
    [0.75, 0.75],
    [0.75, 0.75],
  ])
  expect(shown.every(p => Buffer.from(p.bytes).equals(Buffer.from(png)))).toBe(true)
})

it('what a document names outside of itself is taken out before a program opens it, but for links', () => {
  const relations = `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="a" Type="x/image" Target="file:///secret.png" TargetMode="External"/><Relationship Id="b" Type="x/hyperlink" Target="https://wherry.example" TargetMode="External"/></Relationships>`
  const made = withoutOutside(docxOf(paragraphOf('x'), { 'word/_rels/document.xml.rels': relations }))
  const text = Buffer.from(made).toString('latin1')
  expect(text).not.toContain('secret.png')
  expect(readContent(made).body).toHaveLength(1)
})

function picturesIn(blocks: readonly ContentBlock[]): PictureRun[] {
  return blocks.flatMap(block => {
    if (block.is === 'paragraph') return block.runs.filter(run => run.is === 'picture')
    return block.rows.flatMap(row => row.flatMap(cell => picturesIn(cell.blocks)))
  })
}
