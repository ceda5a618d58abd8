import { getSchema } from '@tiptap/core'
import { Image } from '@tiptap/extension-image'
import { TableKit } from '@tiptap/extension-table'
import { StarterKit } from '@tiptap/starter-kit'
import { expect, it } from 'vitest'
import type { WrittenBlock } from '../../../core/form/written'
import { fromEditor, toEditor } from './writtenContent'

const BLOCKS: WrittenBlock[] = [
  { is: 'paragraph', level: 2, runs: [{ text: 'Order for {{ boat }}', bold: true }] },
  { is: 'paragraph', align: 'right', runs: [{ text: 'one\ntwo', italic: true, underline: true }] },
  { is: 'paragraph', list: 'bullets', runs: [{ text: 'a' }] },
  { is: 'paragraph', list: 'bullets', runs: [{ text: 'b' }] },
  { is: 'paragraph', list: 'numbers', runs: [{ text: 'c' }] },
  { is: 'paragraph', runs: [] },
  {
    is: 'table',
    rows: [[[{ is: 'paragraph', runs: [{ text: '{{#each engines}}' }] }], [{ is: 'paragraph', runs: [] }]]],
  },
  { is: 'picture', type: 'png', data: 'iVBORw0KGgo=', width: 40, height: 20 },
]

it('what was written goes into the editor and comes out of it as it was', () => {
  const schema = getSchema([StarterKit, TableKit, Image.configure({ allowBase64: true })])
  const doc = schema.nodeFromJSON(toEditor(BLOCKS))
  doc.check()
  expect(fromEditor(toEditor(BLOCKS))).toEqual(BLOCKS)
  expect(fromEditor(toEditor([]))).toEqual([{ is: 'paragraph', runs: [] }])
})
