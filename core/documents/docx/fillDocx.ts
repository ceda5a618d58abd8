import type { Document, Element, Node } from '@xmldom/xmldom'
import { zipSync } from 'fflate'
import type { Filled } from '../../fill/frame'
import type { TemplateReading } from '../readTemplate'
import { isPrinted, listLoop, sayQuote, scopeOf, type TemplateScope } from '../templateScope'
import { childOf, childrenOf, isElement, isNamed, W, writeXml } from './docxTree'
import { documentOf, isMark, textElement } from './isolateTags'
import type { PreparedDocx } from './prepareDocx'

/** A loop in a loop in a loop could go on and on: so many turns are made, in all loops of a document together. */
const MOST_TURNS = 20_000

/** A document would be larger than any is meant to be. */
export class TooLarge extends Error {}

/**
 * The document of a response: the template with its tags filled, clauses printed where their condition is true, loops gone through. What has no
 * tags in it is the same, byte for byte.
 * @throws TooLarge where its loops go through more than 20,000 turns
 */
export function fillDocx({ files, parts, reading }: PreparedDocx, filled: Filled): Uint8Array {
  const filler = new Filler(reading)
  const filledParts = parts.map(({ name, document }) => {
    const xml = filler.fillPart(document, scopeOf(filled))
    return [name, new TextEncoder().encode(xml)] as const
  })
  return zipSync({ ...files, ...Object.fromEntries(filledParts) }, { level: 6, mtime: EPOCH })
}
const DECLARATION = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
/** The time that a zip can tell first: the same answers make the same bytes. */
const EPOCH = new Date(1980, 0, 1)

class Filler {
  private turns = 0
  private drawings = 0

  constructor(private readonly reading: TemplateReading) {}

  /** A part as XML, filled. */
  fillPart({ documentElement: root }: Document, scope: TemplateScope): string {
    if (!root) return ''
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
      this.putPart(mark, part, into, scope)
    } else if (isMark(mark, 'each') && tag.is === 'each')
      for (const inner of listLoop(scope, tag.source)) {
        this.turns += 1
        if (this.turns > MOST_TURNS)
          throw new TooLarge('The document would be too large: its loops go on too long.')
        this.putPart(mark, 'then', into, inner)
      }
    else if (tag.is === 'quote') putText(mark, into, sayQuote(scope, tag.source, tag.format))
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

/** Signs that XML 1.0 can’t hold: control characters, halves of a surrogate pair. */
const UNSPEAKABLE = /(?![\t\n\r])\p{Cc}|\p{Cs}|[\ufffe\uffff]/gu

/** A text as runs of the format that its tag has; each of its lines on one of its own. */
function putText(mark: Element, into: Node, text: string) {
  if (text === '') return
  const document = documentOf(into)
  const run = document.createElementNS(W, 'w:r')
  const format = childOf(mark, 'rPr')
  if (format) run.appendChild(format.cloneNode(true))
  text
    .replaceAll(UNSPEAKABLE, '')
    .split('\n')
    .forEach((line, i) => {
      if (i > 0) run.appendChild(document.createElementNS(W, 'w:br'))
      run.appendChild(textElement(document, line))
    })
  into.appendChild(run)
}
