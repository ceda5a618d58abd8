import type { Element, Node } from '@xmldom/xmldom'
import { zipSync } from 'fflate'
import type { AnswerPicture } from '../pictures'
import { childOf, childrenOf, isElement, isNamed, readXml, W, writeXml } from './docxTree'
import { DECLARATION, EPOCH, UNSPEAKABLE } from './fillDocx'
import { documentOf } from './isolateTags'
import { LARGEST_DOCUMENT, NotATemplate, openDocx, textOf, type DocxFiles } from './openDocx'
import { PictureKeeper } from './putPictures'

/** Who signed: in which turn, under which name, role and place, when; `drawn` where the signature was drawn, else the name stands for it. */
export interface SealLine {
  turn: string
  name: string
  role: string
  place: string
  at: string
  drawn: AnswerPicture | null
}

/** What the last page of a signed document says: who signed, who has not yet, and lines below. */
export interface Seal {
  heading: string
  signed: readonly SealLine[]
  waiting: readonly string[]
  lines: readonly string[]
}

const MAIN = 'word/document.xml'

/**
 * A document with a last page that says who signed it. All that was in it is the same.
 * @throws NotATemplate where the file is no DOCX
 */
export function addSeal(bytes: Uint8Array, seal: Seal): Uint8Array {
  const files: DocxFiles = openDocx(bytes, LARGEST_DOCUMENT)
  const document = readXml(textOf(files, MAIN), MAIN)
  const body = document.documentElement && childOf(document.documentElement, 'body')
  if (!body) throw new NotATemplate('This document has no text.')
  const kept = new PictureKeeper('seal')
  const last = childrenOf(body).findLast(node => isNamed(node, 'sectPr')) ?? null
  for (const node of pageOf(seal, kept, body)) body.insertBefore(node, last)
  const changed = {
    ...files,
    [MAIN]: new TextEncoder().encode(DECLARATION + writeXml(body.parentNode ?? body)),
  }
  return zipSync({ ...changed, ...kept.packageFiles(files) }, { level: 6, mtime: EPOCH })
}

/** The paragraphs and the table of the last page. */
function pageOf({ heading, signed, waiting, lines }: Seal, kept: PictureKeeper, into: Node): Node[] {
  const rows = signed.map(line =>
    rowXml(cellXml(line.drawn ? [] : [italic(line.name)]) + cellXml(wordsOf(line))),
  )
  const open = waiting.map(name => rowXml(cellXml([]) + cellXml([textXml(`${name}: not signed yet`)])))
  const xml = [
    paragraphXml(runXml(heading, BOLD), '<w:pageBreakBefore/><w:spacing w:after="200"/>'),
    // A table without rows is taken for damaged.
    rows.length + open.length > 0 ? `<w:tbl>${TABLE}${[...rows, ...open].join('')}</w:tbl>` : '',
    paragraphXml(''),
    ...lines.map(line => paragraphXml(runXml(line, SMALL))),
  ].join('')
  const root = readXml(`<w:body xmlns:w="${W}">${xml}</w:body>`, 'seal').documentElement
  const nodes = root ? childrenOf(root).map(node => documentOf(into).importNode(node, true)) : []
  const table = nodes.find(node => isNamed(node, 'tbl'))
  const firstCells = table ? childrenOf(table).filter(node => isNamed(node, 'tr')) : []
  signed.forEach(({ drawn }, i) => {
    const paragraph = firstCells[i] && firstParagraph(firstCells[i])
    if (drawn && paragraph) numberPicture(paragraph.appendChild(kept.runOf(drawn, MAIN, into)), i)
  })
  return nodes
}

function firstParagraph(row: Node): Element | null {
  const cell = childrenOf(row).find((node): node is Element => isNamed(node, 'tc'))
  return cell ? childOf(cell, 'p') : null
}

/** Pictures of a document have numbers of their own: far from those that its text may have. */
function numberPicture(node: Node, i: number) {
  if (isElement(node) && node.localName === 'docPr') node.setAttribute('id', String(900_000 + i))
  for (const child of childrenOf(node)) numberPicture(child, i)
}

const wordsOf = ({ turn, name, role, place, at }: SealLine): string[] => [
  runXml(name, BOLD) + (role ? runXml(`, ${role}`) : ''),
  textXml(turn),
  textXml([place, at].filter(Boolean).join(', ')),
]

const BOLD = '<w:rPr><w:b/></w:rPr>'
const SMALL = '<w:rPr><w:sz w:val="16"/></w:rPr>'
const TABLE = `<w:tblPr><w:tblW w:w="5000" w:type="pct"/><w:tblBorders>${['top', 'bottom', 'insideH']
  .map(side => `<w:${side} w:val="single" w:sz="4" w:space="0" w:color="999999"/>`)
  .join('')}</w:tblBorders></w:tblPr><w:tblGrid><w:gridCol w:w="4200"/><w:gridCol w:w="4800"/></w:tblGrid>`

const italic = (text: string) => runXml(text, '<w:rPr><w:i/><w:sz w:val="32"/></w:rPr>')
const textXml = (text: string) => runXml(text)
const rowXml = (cells: string) => `<w:tr><w:trPr><w:cantSplit/></w:trPr>${cells}</w:tr>`
const cellXml = (paragraphs: readonly string[]) =>
  `<w:tc>${(paragraphs.length > 0 ? paragraphs : ['']).map(runs => paragraphXml(runs)).join('')}</w:tc>`
const paragraphXml = (runs: string, format = '') =>
  `<w:p>${format ? `<w:pPr>${format}</w:pPr>` : ''}${runs}</w:p>`
const runXml = (text: string, format = '') =>
  `<w:r>${format}<w:t xml:space="preserve">${escaped(text)}</w:t></w:r>`

const escaped = (text: string) =>
  text.replaceAll(UNSPEAKABLE, '').replaceAll(/[&<>"]/g, sign => ENTITIES.get(sign) ?? sign)
const ENTITIES = new Map([
  ['&', '&amp;'],
  ['<', '&lt;'],
  ['>', '&gt;'],
  ['"', '&quot;'],
])
