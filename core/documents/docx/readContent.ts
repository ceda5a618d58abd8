import type { Element, Node } from '@xmldom/xmldom'
import type {
  ContentBlock,
  ContentCell,
  ContentParagraph,
  ContentRun,
  ContentTable,
  DocumentContent,
} from '../content'
import { childOf, childrenOf, isElement, isNamed, readXml, rowsOf, textIn, W } from './docxTree'
import { LARGEST_DOCUMENT, openDocx, textOf, type DocxFiles } from './openDocx'
import { readLists, readRelations, type ListKinds } from './relatedParts'
import { pictureIn } from './readPicture'

/** Elements of a part at most: a document in a document in a document ends somewhere. */
const DEEPEST = 40

/**
 * What a DOCX says: its body, and the header and footer of its last section. How exactly it is set is left out.
 * @throws NotATemplate where the file is none
 */
export function readContent(bytes: Uint8Array): DocumentContent {
  const files = openDocx(bytes, LARGEST_DOCUMENT)
  const lists = readLists(files)
  const name = 'word/document.xml'
  const body = readXml(textOf(files, name), name).documentElement
  const reader = new PartReader(files, name, lists)
  const inside = body ? childOf(body, 'body') : null
  const section = inside ? childOf(inside, 'sectPr') : null
  const relations = readRelations(files, name)
  const edge = (kind: 'header' | 'footer'): ContentBlock[] => {
    const references = section ? childrenOf(section).filter(c => isNamed(c, `${kind}Reference`)) : []
    const reference = references.find(r => isElement(r) && r.getAttributeNS(W, 'type') === 'default')
    const part = isElement(reference) ? relations.get(idOf(reference)) : undefined
    if (part === undefined) return []
    const root = readXml(textOf(files, part), part).documentElement
    return root ? new PartReader(files, part, lists).readBlocks(root, 0) : []
  }
  return {
    header: edge('header'),
    body: inside ? reader.readBlocks(inside, 0) : [],
    footer: edge('footer'),
  }
}

const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
const idOf = (reference: Element) => reference.getAttributeNS(RELATIONS, 'id') ?? ''

/** What is said before a run of a paragraph is read: a field is told in several runs. */
interface FieldState {
  instruction: string
  isShown: boolean
}

/** Reads the blocks of one part. */
class PartReader {
  private readonly relations: ReadonlyMap<string, string>

  constructor(
    private readonly files: DocxFiles,
    name: string,
    private readonly lists: ListKinds,
  ) {
    this.relations = readRelations(files, name)
  }

  readBlocks(parent: Node, depth: number): ContentBlock[] {
    if (depth > DEEPEST) return []
    return childrenOf(parent).flatMap((child): ContentBlock[] => {
      if (isNamed(child, 'p')) return [this.readParagraph(child)]
      if (isNamed(child, 'tbl')) return [this.readTable(child, depth)]
      const isAround = isNamed(child, 'sdt') || isNamed(child, 'sdtContent') || isNamed(child, 'ins')
      return isAround ? this.readBlocks(child, depth + 1) : []
    })
  }

  private readTable(table: Element, depth: number): ContentTable {
    const rows = rowsOf(table).map(row =>
      childrenOf(row).flatMap((cell): ContentCell[] => {
        if (!isNamed(cell, 'tc')) return []
        const format = childOf(cell, 'tcPr')
        const span = format ? childOf(format, 'gridSpan') : null
        const width = Number(span?.getAttributeNS(W, 'val') ?? 1)
        return [
          { span: width > 1 && width < 64 ? Math.floor(width) : 1, blocks: this.readBlocks(cell, depth + 1) },
        ]
      }),
    )
    return { is: 'table', rows }
  }

  private readParagraph(paragraph: Element): ContentParagraph {
    const format = childOf(paragraph, 'pPr')
    const style = valueOf(format, 'pStyle')
    const runs = this.readRuns(paragraph, { instruction: '', isShown: true }, 0)
    return {
      is: 'paragraph',
      level: levelOf(style),
      ...this.listOf(format),
      align: alignOf(valueOf(format, 'jc')),
      newPage: (format !== null && childOf(format, 'pageBreakBefore') !== null) || beginsPage(paragraph),
      runs: joined(runs),
    }
  }

  private listOf(format: Element | null): Pick<ContentParagraph, 'list' | 'depth'> {
    const numbering = format ? childOf(format, 'numPr') : null
    if (!numbering) return { list: null, depth: 0 }
    const depth = Math.min(8, Number(valueOf(numbering, 'ilvl') ?? 0) || 0)
    const list = this.lists.get(`${valueOf(numbering, 'numId') ?? ''}/${depth}`) ?? null
    return { list, depth }
  }

  private readRuns(parent: Node, field: FieldState, depth: number): ContentRun[] {
    if (depth > DEEPEST) return []
    return childrenOf(parent).flatMap((child): ContentRun[] => {
      if (isNamed(child, 'r')) return this.readRun(child, field)
      if (isNamed(child, 'fldSimple')) return fieldOf(child.getAttributeNS(W, 'instr') ?? '')
      if (isNamed(child, 'del') || isNamed(child, 'pPr') || isNamed(child, 'p')) return []
      return isElement(child) ? this.readRuns(child, field, depth + 1) : []
    })
  }

  private readRun(run: Element, field: FieldState): ContentRun[] {
    const format = childOf(run, 'rPr')
    const own = {
      bold: isOn(format, 'b'),
      italic: isOn(format, 'i'),
      underline: valueOf(format, 'u') !== null && valueOf(format, 'u') !== 'none',
      mark: valueOf(format, 'highlight') === 'yellow',
    }
    return childrenOf(run).flatMap((child): ContentRun[] => {
      if (isNamed(child, 'fldChar')) return turnField(child, field)
      if (isNamed(child, 'instrText')) field.instruction += child.textContent ?? ''
      const text = isElement(child) ? textIn(child) : null
      if (text !== null) return field.isShown ? [{ is: 'text', text, ...own }] : []
      const picture =
        isNamed(child, 'drawing') || isNamed(child, 'AlternateContent')
          ? pictureIn(child, this.files, this.relations)
          : null
      return picture ? [picture] : []
    })
  }
}

/** Follows a field that is told in several runs: what it says is its number where it is one of pages, else what was set last. */
function turnField(mark: Element, field: FieldState): ContentRun[] {
  const type = mark.getAttributeNS(W, 'fldCharType')
  if (type === 'begin') {
    field.instruction = ''
    field.isShown = false
  }
  const found = type === 'separate' || type === 'end' ? fieldOf(field.instruction) : []
  if (type === 'separate') field.isShown = found.length === 0
  if (type === 'end') field.isShown = true
  if (type === 'separate' && found.length > 0) field.instruction = ''
  return found
}

function fieldOf(instruction: string): ContentRun[] {
  const name = instruction.trim().split(/\s+/)[0]?.toUpperCase()
  if (name === 'PAGE') return [{ is: 'field', of: 'page' }]
  return name === 'NUMPAGES' ? [{ is: 'field', of: 'pages' }] : []
}

/** The value of a child of a name; null for no such child. */
const valueOf = (parent: Element | null, name: string): string | null => {
  const child = parent ? childOf(parent, name) : null
  return child ? (child.getAttributeNS(W, 'val') ?? '') : null
}
const isOn = (format: Element | null, name: string): boolean => {
  const value = valueOf(format, name)
  return value !== null && !['0', 'false', 'off', 'none'].includes(value)
}

/** The level of a heading by the name of its style, as word processors call them in files of any language. */
function levelOf(style: string | null): number {
  if (style !== null && /^title$/i.test(style)) return 1
  const level = /^heading\s*(\d)$/i.exec(style ?? '')?.[1]
  return level === undefined ? 0 : Math.min(6, Math.max(1, Number(level)))
}

const ALIGNED: Readonly<Record<string, ContentParagraph['align']>> = {
  center: 'center',
  right: 'right',
  end: 'right',
  both: 'justify',
}
const alignOf = (value: string | null): ContentParagraph['align'] => ALIGNED[value ?? ''] ?? 'left'

/** Whether a paragraph begins with the break of a page. */
function beginsPage(paragraph: Element): boolean {
  const first = childrenOf(paragraph).find(c => isNamed(c, 'r'))
  const [second] = first ? childrenOf(first).filter(c => !isNamed(c, 'rPr')) : []
  return isNamed(second, 'br') && second.getAttributeNS(W, 'type') === 'page'
}

/** Texts of one kind that stand beside each other, as one. */
function joined(runs: readonly ContentRun[]): ContentRun[] {
  const done: ContentRun[] = []
  for (const run of runs) {
    const last = done.at(-1)
    if (run.is === 'text' && last?.is === 'text' && isAlike(run, last))
      done[done.length - 1] = { ...last, text: last.text + run.text }
    else done.push(run)
  }
  return done
}
const isAlike = (one: ContentRun & { is: 'text' }, other: ContentRun & { is: 'text' }) =>
  one.bold === other.bold &&
  one.italic === other.italic &&
  one.underline === other.underline &&
  one.mark === other.mark
