import type { Document, Element, Node } from '@xmldom/xmldom'
import { childrenOf, isNamed, piecesOf, W, type DocxParagraph } from './docxTree'

/** The namespace of what stands in place of tags while a template is prepared and filled; nothing of it is written. */
export const T = 'urn:tobbin:template'

/** An element for the tag of a number, or for a clause, a loop, or a part of one. */
export function markOf(document: Document, name: string, index: number): Element {
  const mark = document.createElementNS(T, `tb:${name}`)
  mark.setAttribute('index', String(index))
  return mark
}
export const isMark = (node: Node | null | undefined, name?: string): node is Element =>
  node?.nodeType === 1 &&
  node.nodeName.startsWith('tb:') &&
  (name === undefined || node.nodeName === `tb:${name}`)

/**
 * Puts an element in place of each tag of a paragraph, whatever a word processor has made of it: split over runs, or in the midst of one. The
 * element keeps the format of the run in which the tag begins.
 * @param tags of the paragraph, by their offsets in its text, with the numbers by which they are known
 * @returns the elements, in order
 */
export function isolateTags(
  { element }: Pick<DocxParagraph, 'element'>,
  tags: readonly { from: number; to: number; index: number }[],
): Element[] {
  if (tags.length === 0) return []
  splitRuns(element)
  for (const { from, to } of tags) {
    splitAt(element, from)
    splitAt(element, to)
  }
  // From the last to the first: what is taken out moves what comes behind it.
  const marks = [...tags].reverse().map(tag => replaceByMark(element, tag))
  return marks.reverse()
}

function replaceByMark(
  paragraph: Element,
  { from, to, index }: { from: number; to: number; index: number },
): Element {
  const [first, ...others] = piecesOf(paragraph)
    .filter(p => p.from >= from && p.from + p.text.length <= to && p.text !== '')
    .map(p => p.run)
  if (!first) throw new Error('A tag was read that stands nowhere.')
  const mark = markOf(documentOf(first), 'tag', index)
  const format = childrenOf(first).find(child => isNamed(child, 'rPr'))
  if (format) mark.appendChild(format.cloneNode(true))
  first.parentNode?.replaceChild(mark, first)
  for (const run of others) run.parentNode?.removeChild(run)
  return mark
}

/** The document that a node belongs to. */
export function documentOf(node: Node): Document {
  if (!node.ownerDocument) throw new Error('A node belongs to no document.')
  return node.ownerDocument
}

/** Gives each piece of text a run of its own. */
function splitRuns(paragraph: Element) {
  for (const run of new Set(piecesOf(paragraph).map(p => p.run))) {
    const contents = childrenOf(run).filter(child => child.nodeType === 1 && !isNamed(child, 'rPr'))
    if (contents.length < 2) continue
    for (const content of contents.slice(0, -1)) {
      const before = emptyRunLike(run)
      before.appendChild(content)
      run.parentNode?.insertBefore(before, run)
    }
  }
}

function emptyRunLike(run: Element): Element {
  const other = documentOf(run).createElementNS(W, 'w:r')
  const format = childrenOf(run).find(child => isNamed(child, 'rPr'))
  if (format) other.appendChild(format.cloneNode(true))
  return other
}

/** Splits the run around an offset in the text of a paragraph, so that one ends there. */
function splitAt(paragraph: Element, offset: number) {
  const piece = piecesOf(paragraph).find(p => p.from < offset && offset < p.from + p.text.length)
  if (!piece) return
  const { run, text, from } = piece
  const before = emptyRunLike(run)
  before.appendChild(textElement(documentOf(run), text.slice(0, offset - from)))
  run.parentNode?.insertBefore(before, run)
  run.replaceChild(textElement(documentOf(run), text.slice(offset - from)), piece.element)
}

/** A piece of text that keeps its blanks. */
export function textElement(document: Document, text: string): Element {
  const element = document.createElementNS(W, 'w:t')
  element.setAttribute('xml:space', 'preserve')
  element.appendChild(document.createTextNode(text))
  return element
}
