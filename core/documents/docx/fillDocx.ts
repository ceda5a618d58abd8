import type { Document, Element, Node } from '@xmldom/xmldom'
import { zipSync } from 'fflate'
import type { Filled } from '../../fill/frame'
import { NO_PICTURES, picturesOf, type AnswerPicture, type PictureSource } from '../pictures'
import type { TemplateReading } from '../readTemplate'
import type { Tag } from '../../form/tags'
import { isPrinted, listLoop, sayQuote, scopeOf, type TemplateScope } from '../templateScope'
import { childOf, childrenOf, isElement, isNamed, W, writeXml } from './docxTree'
import { documentOf, isMark, textElement } from './isolateTags'
import type { PreparedDocx } from './prepareDocx'
import { PictureKeeper } from './putPictures'

/** A loop in a loop in a loop could go on and on: so many turns are made, in all loops of a document together. */
const MOST_TURNS = 20_000

/** A document would be larger than any is meant to be. */
export class TooLarge extends Error {}

/**
 * How a template is filled: where pictures come from; what is printed, marked, for an answer that is not there yet, and before a clause whose
 * condition rests on one (null: it does not). Nothing where they are not given.
 */
export interface Filling {
  pictures: PictureSource
  blank?: (scope: TemplateScope, source: string) => string
  open?: (scope: TemplateScope, condition: string) => string | null
}

/**
 * The document of a response: the template with its tags filled, clauses printed where their condition is true, loops gone through. What has no
 * tags in it is the same, byte for byte.
 * @throws TooLarge where its loops go through more than 20,000 turns, or its pictures have more than 30 MB
 */
export function fillDocx(
  { files, parts, reading }: PreparedDocx,
  filled: Filled,
  filling: Filling = { pictures: NO_PICTURES },
): Uint8Array {
  const filler = new Filler(reading, filled, filling)
  const filledParts = parts.map(({ name, document }) => {
    const xml = filler.fillPart(name, document, scopeOf(filled))
    return [name, new TextEncoder().encode(xml)] as const
  })
  const whole = { ...files, ...Object.fromEntries(filledParts), ...filler.kept.packageFiles(files) }
  return zipSync(whole, { level: 6, mtime: EPOCH })
}
export const DECLARATION = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
/** The time that a zip can tell first: the same answers make the same bytes. */
export const EPOCH = new Date(1980, 0, 1)

class Filler {
  private turns = 0
  private drawings = 0
  private part = ''
  readonly kept = new PictureKeeper()

  constructor(
    private readonly reading: TemplateReading,
    private readonly filled: Filled,
    private readonly filling: Filling,
  ) {}

  /** A part as XML, filled. */
  fillPart(name: string, { documentElement: root }: Document, scope: TemplateScope): string {
    if (!root) return ''
    this.part = name
    const copy = root.cloneNode(false)
    for (const child of childrenOf(root)) this.put(child, copy, scope)
    return DECLARATION + writeXml(copy)
  }

  /** Puts a node of the template into the document, filled. */
  private put(node: Node, into: Node, scope: TemplateScope) {
    if (isMark(node)) {
      this.putMark(node, into, scope)
      return
    }
    const copy = node.cloneNode(false)
    into.appendChild(copy)
    for (const child of childrenOf(node)) this.put(child, copy, scope)
    this.mend(copy)
  }

  private putMark(mark: Element, into: Node, scope: TemplateScope) {
    const tag = this.reading.tags[Number(mark.getAttribute('index'))]?.tag
    if (!tag) return
    if (isMark(mark, 'when') && tag.is === 'when') {
      const part = isPrinted(scope, tag.source) ? 'then' : 'otherwise'
      const open = this.filling.open?.(scope, tag.source) ?? null
      if (open !== null) putNote(mark, into, open)
      this.putPart(mark, part, into, scope)
    } else if (isMark(mark, 'each') && tag.is === 'each')
      for (const inner of listLoop(scope, tag.source)) {
        this.turns += 1
        if (this.turns > MOST_TURNS)
          throw new TooLarge('The document would be too large: its loops go on too long.')
        this.putPart(mark, 'then', into, inner)
      }
    else if (tag.is === 'quote') this.putQuote(mark, into, scope, tag)
  }

  /** An answer: as pictures where it is some, else in words. */
  private putQuote(
    mark: Element,
    into: Node,
    scope: TemplateScope,
    { source, format }: Extract<Tag, { is: 'quote' }>,
  ) {
    const { pictures: from } = this.filling
    const pictures = picturesOf(scope.frame, source, from) ?? picturesOf(this.filled, source, from)
    if (pictures) {
      for (const picture of pictures) this.putPicture(picture, into)
      return
    }
    const text = sayQuote(scope, source, format)
    const { blank } = this.filling
    if (text !== '' || !blank) putText(mark, into, text, false)
    else putText(mark, into, blank(scope, source), true)
  }

  private putPicture(picture: AnswerPicture, into: Node) {
    if (!this.kept.fits(picture))
      throw new TooLarge('The document would be too large: its pictures have too many megabytes.')
    const run = into.appendChild(this.kept.runOf(picture, this.part, into))
    this.number(run)
  }

  /** Gives each picture of a document a number of its own. */
  private number(node: Node) {
    if (isElement(node) && node.localName === 'docPr' && node.hasAttribute('id'))
      node.setAttribute('id', String((this.drawings += 1)))
    for (const child of childrenOf(node)) this.number(child)
  }

  private putPart(mark: Element, part: 'then' | 'otherwise', into: Node, scope: TemplateScope) {
    const found = childrenOf(mark).find(child => isMark(child, part))
    for (const child of found ? childrenOf(found) : []) this.put(child, into, scope)
  }

  /** What a word processor takes for damaged, once something was left out or repeated: a cell without a paragraph, a table without a row, pictures of the same number. */
  private mend(copy: Node) {
    if (isNamed(copy, 'tc') && !isNamed(childrenOf(copy).findLast(isElement), 'p'))
      copy.appendChild(documentOf(copy).createElementNS(W, 'w:p'))
    if (isNamed(copy, 'tbl') && !childOf(copy, 'tr')) copy.parentNode?.removeChild(copy)
    if (isElement(copy) && copy.localName === 'docPr' && copy.hasAttribute('id'))
      copy.setAttribute('id', String((this.drawings += 1)))
  }
}

/** Puts a marked text where a clause stands: in a line, as one of its own, or between the rows of a table as a row. */
function putNote(mark: Element, into: Node, text: string) {
  if (isNamed(into, 'p')) {
    putText(mark, into, text, true)
    return
  }
  const around = isNamed(into, 'tbl') ? putWideCell(into) : into
  if (!isNamed(around, 'body') && !isNamed(around, 'tc')) return
  const line = around.appendChild(documentOf(into).createElementNS(W, 'w:p'))
  putText(mark, line, text, true)
}

/** Puts a row into a table whose only cell goes over all its columns. */
function putWideCell(table: Element): Element {
  const document = documentOf(table)
  const row = document.createElementNS(W, 'w:tr')
  const cell = document.createElementNS(W, 'w:tc')
  table.appendChild(row).appendChild(cell)
  const span = document.createElementNS(W, 'w:gridSpan')
  span.setAttributeNS(W, 'w:val', String(columnsOf(table)))
  cell.appendChild(document.createElementNS(W, 'w:tcPr')).appendChild(span)
  return cell
}

function columnsOf(table: Element): number {
  const grid = childOf(table, 'tblGrid')
  const columns = grid ? childrenOf(grid).filter(child => isNamed(child, 'gridCol')) : []
  return Math.max(1, columns.length)
}

/** Signs that XML 1.0 can’t hold: control characters, halves of a surrogate pair. */
export const UNSPEAKABLE = /(?![\t\n\r])\p{Cc}|\p{Cs}|[\ufffe\uffff]/gu

/** A text as runs of the format that its tag has; each of its lines on one of its own. `isMarked`: it stands out. */
function putText(mark: Element, into: Node, text: string, isMarked: boolean) {
  if (text === '') return
  const document = documentOf(into)
  const run = document.createElementNS(W, 'w:r')
  const format = childOf(mark, 'rPr')
  if (format) run.appendChild(format.cloneNode(true))
  if (isMarked) highlight(run)
  text
    .replaceAll(UNSPEAKABLE, '')
    .split('\n')
    .forEach((line, i) => {
      if (i > 0) run.appendChild(document.createElementNS(W, 'w:br'))
      run.appendChild(textElement(document, line))
    })
  into.appendChild(run)
}

/** Marks a run as with a highlighter. */
function highlight(run: Element) {
  const document = documentOf(run)
  const format = childOf(run, 'rPr') ?? run.appendChild(document.createElementNS(W, 'w:rPr'))
  const mark = document.createElementNS(W, 'w:highlight')
  mark.setAttributeNS(W, 'w:val', 'yellow')
  format.appendChild(mark)
}
