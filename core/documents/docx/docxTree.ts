import { DOMParser, XMLSerializer, type Document, type Element, type Node } from '@xmldom/xmldom'
import type { Cell, TemplateParagraph, TemplatePart } from '../readTemplate'
import { NotATemplate } from './openDocx'

/** The namespace of word processing in Office Open XML (ECMA-376, part 1, section 17). */
export const W = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main'

export const isElement = (node: Node | null | undefined): node is Element => node?.nodeType === 1
export const isNamed = (node: Node | null | undefined, name: string): node is Element =>
  isElement(node) && node.namespaceURI === W && node.localName === name
export const childrenOf = (node: Node): Node[] => Array.from(node.childNodes)
/** The first child of a name. */
export const childOf = (node: Node, name: string): Element | null =>
  childrenOf(node).find((child): child is Element => isNamed(child, name)) ?? null

/** Reads a part. @throws NotATemplate where it is no XML */
export function readXml(text: string, name: string): Document {
  const onError = (level: string) => {
    if (level !== 'warning') throw new NotATemplate('')
  }
  try {
    return new DOMParser({ onError }).parseFromString(text.replace(/^\ufeff/, ''), 'text/xml')
  } catch {
    throw new NotATemplate(`“${name}” in it can’t be read: the file is damaged.`)
  }
}
export const writeXml = (node: Node): string => new XMLSerializer().serializeToString(node)

/** A paragraph of a part, as it is read and as it stands in the tree. */
export interface DocxParagraph extends TemplateParagraph {
  element: Element
}

const PARTS: readonly (readonly [RegExp, TemplatePart])[] = [
  [/header/, 'header'],
  [/footer/, 'footer'],
  [/notes/, 'notes'],
]

/** Every paragraph of a part, in order. */
export function listParagraphs(document: Document, name: string): DocxParagraph[] {
  const part = PARTS.find(([pattern]) => pattern.test(name))?.[1] ?? 'body'
  const found: DocxParagraph[] = []
  let tables = 0
  const visit = (node: Node, cells: readonly Cell[]) => {
    if (isNamed(node, 'p'))
      found.push({
        element: node,
        part,
        cells,
        text: piecesOf(node)
          .map(p => p.text)
          .join(''),
      })
    if (!isNamed(node, 'tbl')) {
      for (const child of childrenOf(node)) visit(child, cells)
      return
    }
    const table = (tables += 1)
    rowsOf(node).forEach((row, r) => {
      cellsOf(row).forEach((cell, c) => visit(cell, [...cells, { table, row: r, cell: c }]))
    })
  }
  visit(document, [])
  return found
}

/** The rows of a table, or the cells of a row, also where a content control stands around them. */
export const rowsOf = (table: Node): Element[] => inside(table, 'tr')
const cellsOf = (row: Node): Element[] => inside(row, 'tc')
const inside = (node: Node, name: string): Element[] =>
  childrenOf(node).flatMap(child => {
    if (isNamed(child, name)) return [child]
    return isNamed(child, 'sdt') || isNamed(child, 'sdtContent') ? inside(child, name) : []
  })

/** A piece of a paragraph's text: the element that holds it, the run in which that stands, and where it begins. */
export interface TextPiece {
  element: Element
  run: Element
  text: string
  from: number
}

/** The text of a paragraph piece by piece; that of paragraphs in text boxes inside of it is theirs. */
export function piecesOf(paragraph: Element): TextPiece[] {
  const pieces: TextPiece[] = []
  let from = 0
  const visit = (node: Node, run: Element | null) => {
    for (const child of childrenOf(node)) {
      if (isNamed(child, 'p')) continue
      const text = run && isElement(child) ? textIn(child) : null
      if (text !== null && run && isElement(child)) {
        pieces.push({ element: child, run, text, from })
        from += text.length
      } else visit(child, isNamed(child, 'r') ? child : run)
    }
  }
  visit(paragraph, null)
  return pieces
}

/** The text that an element of a run stands for; null where it stands for none. */
export function textIn(element: Element): string | null {
  if (isNamed(element, 't')) return element.textContent ?? ''
  if (isNamed(element, 'tab')) return '\t'
  if (isNamed(element, 'br') || isNamed(element, 'cr')) return '\n'
  return isNamed(element, 'noBreakHyphen') ? '-' : null
}
