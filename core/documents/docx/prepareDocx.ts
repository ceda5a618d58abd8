import type { Document, Element, Node } from '@xmldom/xmldom'
import {
  problemIn,
  readTemplate,
  withTagsOf,
  type TagPair,
  type TemplateParagraph,
  type TemplateProblem,
  type TemplateReading,
} from '../readTemplate'
import type { Tag } from '../../form/tags'
import {
  childOf,
  childrenOf,
  isNamed,
  listParagraphs,
  piecesOf,
  readXml,
  W,
  type DocxParagraph,
} from './docxTree'
import { documentOf, isMark, isolateTags, markOf } from './isolateTags'
import { NotATemplate, openDocx, textOf, textParts, type DocxFiles } from './openDocx'

/** A part of a template made ready to be filled: in place of its tags stand elements, those of clauses and loops around what they are about. */
export interface PreparedPart {
  name: string
  document: Document
}
/** A DOCX made ready to be filled. `reading.tags` are numbered over all parts, as the elements are. */
export interface PreparedDocx {
  files: DocxFiles
  parts: PreparedPart[]
  /** Its paragraphs as they were read: their text is that of the template still. */
  paragraphs: readonly TemplateParagraph[]
  reading: TemplateReading
}

/**
 * Reads a DOCX as a template. With problems in `reading` it can’t be filled.
 * @param tags as the form has them now; those of the file, where they are not given
 * @throws NotATemplate where the file is none, or has other tags than are given
 */
export function prepareDocx(bytes: Uint8Array, tags?: readonly Tag[]): PreparedDocx {
  const files = openDocx(bytes)
  const parts = textParts(files).map(name => ({ name, document: readXml(textOf(files, name), name) }))
  const paragraphs = parts.flatMap(({ document, name }) => listParagraphs(document, name))
  const own = readTemplate(paragraphs)
  const reading = tags ? withTagsOf(own, tags) : own
  if (!reading) throw new NotATemplate('This file has other tags than the form knows of it.')
  if (reading.problems.length > 0) return { files, parts, paragraphs, reading }
  const marks = isolateAll(paragraphs, reading)
  const torn = reading.pairs.flatMap(pair => wrapPair(pair, marks, reading, paragraphs))
  const touched = new Set(reading.tags.map(t => paragraphs[t.paragraph]?.element.ownerDocument))
  return {
    files,
    paragraphs,
    parts: parts.filter(part => touched.has(part.document)),
    reading: { ...reading, problems: torn },
  }
}

/** The elements of all tags, by their numbers. */
function isolateAll(paragraphs: readonly DocxParagraph[], { tags }: TemplateReading): Element[] {
  const own = new Map<number, { from: number; to: number; index: number }[]>()
  tags.forEach(({ paragraph, from, to }, index) => {
    own.set(paragraph, [...(own.get(paragraph) ?? []), { from, to, index }])
  })
  return paragraphs.flatMap((paragraph, at) => isolateTags(paragraph, own.get(at) ?? []))
}

/** Puts an element around what a clause or loop is about. @returns why that can’t be */
function wrapPair(
  pair: TagPair,
  marks: readonly Element[],
  reading: TemplateReading,
  paragraphs: readonly DocxParagraph[],
): TemplateProblem[] {
  const [from, to] = [marks[pair.from], marks[pair.to]]
  const middle = pair.otherwise === null ? null : (marks[pair.otherwise] ?? null)
  const tag = reading.tags[pair.from]
  const paragraph = tag && paragraphs[tag.paragraph]
  if (!from || !to || !tag || !paragraph) return []
  const ends = endsOf(pair, [from, middle, to])
  const [first] = ends
  if (first && ends.every(end => end?.parentNode === first.parentNode)) {
    wrap(pair, ends, tag.tag.is)
    return []
  }
  const sentence =
    'What begins here ends inside of something else: a link, a marked change, or a field to be filled in. Both have to stand in the same.'
  return [problemIn(paragraph, tag, sentence)]
}

/** The nodes at which a pair begins, turns and ends: the tags themselves, paragraphs that hold nothing else, or rows. */
function endsOf({ around }: TagPair, marks: readonly (Element | null)[]): (Node | null)[] {
  const found = marks.filter(mark => mark !== null)
  if (around === 'words') return found
  if (around === 'paragraphs') return found.map(paragraphAlone)
  return found.map(rowAround)
}

/** The paragraph of a tag, which holds nothing else then: what stood before it and behind it goes into paragraphs of its own. */
function paragraphAlone(mark: Element): Element | null {
  const paragraph = mark.parentNode
  if (!isNamed(paragraph, 'p')) return null
  const all = childrenOf(paragraph)
  const at = all.indexOf(mark)
  const before = paragraphLike(paragraph, all.slice(0, at))
  const behind = paragraphLike(paragraph, all.slice(at + 1))
  if (hasContent(before)) paragraph.parentNode?.insertBefore(before, paragraph)
  if (hasContent(behind)) paragraph.parentNode?.insertBefore(behind, paragraph.nextSibling)
  return paragraph
}

function paragraphLike(paragraph: Element, contents: readonly Node[]): Element {
  const other = documentOf(paragraph).createElementNS(W, 'w:p')
  const format = childOf(paragraph, 'pPr')
  if (format) other.appendChild(format.cloneNode(true))
  for (const node of contents) if (!isNamed(node, 'pPr')) other.appendChild(node)
  return other
}

/** Something that is seen: text, a picture, a tag. */
const hasContent = (paragraph: Element): boolean =>
  piecesOf(paragraph).some(p => p.text.trim() !== '') ||
  childrenOf(paragraph).some(child => isMark(child) || (isNamed(child, 'r') && hasDrawing(child)))
const hasDrawing = (run: Node) =>
  childrenOf(run).some(
    child => isNamed(child, 'drawing') || isNamed(child, 'pict') || isNamed(child, 'object'),
  )

/** The row in which a tag stands, or what was put around that row already. */
function rowAround(mark: Element): Node | null {
  let node: Node | null = mark
  while (node && !isNamed(node, 'tr')) node = node.parentNode
  while (node && isMark(node.parentNode)) node = node.parentNode
  leaveCell(mark)
  return node
}

/** Takes a tag out of its cell, with its paragraph where that holds nothing else and is not the only one. */
function leaveCell(mark: Element) {
  const paragraph = mark.parentNode
  paragraph?.removeChild(mark)
  if (!isNamed(paragraph, 'p') || hasContent(paragraph) || piecesOf(paragraph).length > 0) return
  const cell = paragraph.parentNode
  const others = cell ? childrenOf(cell).filter(child => isNamed(child, 'p') && child !== paragraph) : []
  if (others.length > 0) cell?.removeChild(paragraph)
}

/** Puts what stands between the ends into an element of their own; rows belong to it themselves. */
function wrap({ from, around }: TagPair, ends: readonly (Node | null)[], name: string) {
  const [first, second, third] = ends
  const last = third ?? second
  const parent = first?.parentNode
  const document = first?.ownerDocument
  if (!first || !last || !parent || !document) return
  const whole = markOf(document, name, from)
  parent.insertBefore(whole, first)
  const then = whole.appendChild(markOf(document, 'then', from))
  const otherwise = markOf(document, 'otherwise', from)
  const isRows = around === 'rows'
  let into = then
  for (let node: Node | null = first; node;) {
    const next: Node | null = node === last ? null : node.nextSibling
    if (node === second && third) into = otherwise
    if (isRows) into.appendChild(node)
    else if (ends.includes(node)) keepSection(node, whole)
    else into.appendChild(node)
    node = next
  }
  if (third) whole.appendChild(otherwise)
}

/** Takes the paragraph of a tag out; the end of a section of the document that it carries stays. */
function keepSection(node: Node, whole: Element) {
  const parent = node.parentNode
  const format = isNamed(node, 'p') ? childOf(node, 'pPr') : null
  if (format && childrenOf(format).some(child => isNamed(child, 'sectPr'))) {
    for (const child of childrenOf(node)) if (isMark(child)) node.removeChild(child)
    parent?.insertBefore(node, whole.nextSibling)
  } else parent?.removeChild(node)
}
