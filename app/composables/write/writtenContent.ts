import type { JSONContent } from '@tiptap/core'
import type { WrittenBlock, WrittenParagraph, WrittenPicture, WrittenRun } from '#core/form/written'

/** What was written as the editor holds it. */
export function toEditor(blocks: readonly WrittenBlock[]): JSONContent {
  const content: JSONContent[] = []
  for (const block of blocks) {
    const type = listType(block)
    if (block.is !== 'paragraph' || type === null) {
      content.push(nodeOf(block))
      continue
    }
    const last = content.at(-1)
    const list = last?.type === type ? last : { type, content: [] }
    if (list !== last) content.push(list)
    list.content?.push({ type: 'listItem', content: [paragraphNode(block)] })
  }
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] }
}

/** What a list is called in the editor; null for what stands in none. */
function listType(block: WrittenBlock): 'bulletList' | 'orderedList' | null {
  if (block.is !== 'paragraph' || block.list === undefined) return null
  return block.list === 'bullets' ? 'bulletList' : 'orderedList'
}

function nodeOf(block: WrittenBlock): JSONContent {
  if (block.is === 'paragraph') return paragraphNode(block)
  if (block.is === 'picture') {
    const { type, data, width, height } = block
    return { type: 'image', attrs: { src: `${ADDRESS[type]}${data}`, width, height } }
  }
  const content = block.rows.map(row => ({
    type: 'tableRow',
    content: row.map(cell => ({
      type: 'tableCell',
      content: cell.length > 0 ? cell.map(paragraphNode) : [{ type: 'paragraph' }],
    })),
  }))
  return { type: 'table', content }
}
const ADDRESS = { png: 'data:image/png;base64,', jpg: 'data:image/jpeg;base64,' } as const

function paragraphNode({ level, align, runs }: WrittenParagraph): JSONContent {
  const attrs = { ...(level ? { level } : {}), ...(align ? { textAlign: align } : {}) }
  return { type: level ? 'heading' : 'paragraph', attrs, content: runs.flatMap(runNodes) }
}

/** A run in the pieces between its line breaks. */
function runNodes({ text, bold, italic, underline }: WrittenRun): JSONContent[] {
  const names = [
    ...(bold ? ['bold'] : []),
    ...(italic ? ['italic'] : []),
    ...(underline ? ['underline'] : []),
  ]
  const marks = names.map(type => ({ type }))
  return text.split('\n').flatMap((piece, i): JSONContent[] => {
    const line: JSONContent[] = piece === '' ? [] : [{ type: 'text', text: piece, marks }]
    return i > 0 ? [{ type: 'hardBreak' }, ...line] : line
  })
}

/** What the editor holds as it is kept: what a template can't have is left out. */
export const fromEditor = (doc: JSONContent): WrittenBlock[] => (doc.content ?? []).flatMap(n => blocksOf(n))

function blocksOf(node: JSONContent, list?: WrittenParagraph['list']): WrittenBlock[] {
  switch (node.type) {
    case 'bulletList':
    case 'orderedList': {
      const kind = node.type === 'bulletList' ? 'bullets' : 'numbers'
      return (node.content ?? []).flatMap(item => (item.content ?? []).flatMap(n => blocksOf(n, kind)))
    }
    case 'table': {
      const rows = (node.content ?? []).map(row => (row.content ?? []).map(cellOf))
      return rows.some(row => row.length > 0) ? [{ is: 'table', rows }] : []
    }
    case 'image':
      return pictureOf(node)
    case 'paragraph':
    case 'heading':
      return [paragraphOf(node, list)]
    default:
      return []
  }
}

const cellOf = (cell: JSONContent): WrittenParagraph[] =>
  (cell.content ?? []).flatMap(n => blocksOf(n)).filter(b => b.is === 'paragraph')

function paragraphOf(
  { type, attrs, content = [] }: JSONContent,
  list?: WrittenParagraph['list'],
): WrittenParagraph {
  const level = type === 'heading' ? Math.min(3, Math.max(1, Number(attrs?.level) || 1)) : 0
  const align = attrs?.textAlign === 'center' || attrs?.textAlign === 'right' ? attrs.textAlign : undefined
  return {
    is: 'paragraph',
    ...(level > 0 ? { level } : {}),
    ...(list ? { list } : {}),
    ...(align ? { align } : {}),
    runs: joined(content.flatMap(runOf)),
  }
}

function runOf(node: JSONContent): WrittenRun[] {
  const text = node.type === 'hardBreak' ? '\n' : (node.text ?? '')
  if (text === '') return []
  const has = (name: string) => node.marks?.some(mark => mark.type === name)
  return [
    {
      text,
      ...(has('bold') ? { bold: true as const } : {}),
      ...(has('italic') ? { italic: true as const } : {}),
      ...(has('underline') ? { underline: true as const } : {}),
    },
  ]
}

/** Runs of one kind beside each other, as one. */
function joined(runs: readonly WrittenRun[]): WrittenRun[] {
  const done: WrittenRun[] = []
  for (const run of runs) {
    const last = done.at(-1)
    const isAlike =
      last && last.bold === run.bold && last.italic === run.italic && last.underline === run.underline
    if (isAlike || (last && run.text === '\n'))
      done[done.length - 1] = { ...last, text: last.text + run.text }
    else done.push(run)
  }
  return done
}

function pictureOf({ attrs }: JSONContent): WrittenPicture[] {
  const found = /^data:image\/(png|jpeg);base64,(.+)$/.exec(String(attrs?.src ?? ''))
  const [width, height] = [Number(attrs?.width), Number(attrs?.height)]
  const [, kind, data] = found ?? []
  if (data === undefined || !(width > 0) || !(height > 0)) return []
  return [{ is: 'picture', type: kind === 'png' ? 'png' : 'jpg', data, width, height }]
}
