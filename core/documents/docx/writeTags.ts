import { zipSync } from 'fflate'
import { writeTag, type Tag } from '../../form/tags'
import { readTemplate, withTagsOf } from '../readTemplate'
import { listParagraphs, piecesOf, readXml, writeXml, type DocxParagraph } from './docxTree'
import { DECLARATION, EPOCH } from './fillDocx'
import { NotATemplate, openDocx, textOf, textParts } from './openDocx'

/**
 * A template with other tags in place of its own: as the form has them, after something in it was called otherwise. Tags that are the same stay
 * as they are written; parts without one that changes are the same, byte for byte.
 * @throws NotATemplate where the file is none, or has tags of other kinds, or in another order
 */
export function writeTags(bytes: Uint8Array, tags: readonly Tag[]): Uint8Array {
  const files = openDocx(bytes)
  const parts = textParts(files).map(name => {
    const document = readXml(textOf(files, name), name)
    return { name, document, paragraphs: listParagraphs(document, name) }
  })
  const paragraphs = parts.flatMap(part => part.paragraphs)
  const own = readTemplate(paragraphs)
  const wanted = withTagsOf(own, tags)
  if (!wanted) throw new NotATemplate('This file has other tags than the form knows of it.')
  const touched = new Set<DocxParagraph>()
  // From the last on: what stands before is where it was.
  for (let i = own.tags.length - 1; i >= 0; i -= 1) {
    const [before, after] = [own.tags[i], wanted.tags[i]]
    const paragraph = before && paragraphs[before.paragraph]
    if (!before || !after || !paragraph || isSame(before.tag, after.tag)) continue
    putText(paragraph, before, writeTag(after.tag))
    touched.add(paragraph)
  }
  if (touched.size === 0) return bytes
  const changed = parts
    .filter(part => part.paragraphs.some(p => touched.has(p)))
    .map(({ name, document }): [string, Uint8Array] => {
      const root = document.documentElement
      return [name, new TextEncoder().encode(root ? DECLARATION + writeXml(root) : '')]
    })
  return zipSync({ ...files, ...Object.fromEntries(changed) }, { level: 6, mtime: EPOCH })
}

const isSame = (a: Tag, b: Tag) => writeTag(a) === writeTag(b)

/** Puts a text in place of what stands between two places of a paragraph: into the piece where that begins, with its format. */
function putText({ element }: DocxParagraph, { from, to }: { from: number; to: number }, text: string) {
  let isPut = false
  for (const piece of piecesOf(element)) {
    const [start, end] = [Math.max(from, piece.from), Math.min(to, piece.from + piece.text.length)]
    if (start >= end || piece.element.localName !== 't') continue
    const kept = [piece.text.slice(0, start - piece.from), piece.text.slice(end - piece.from)]
    piece.element.textContent = kept.join(isPut ? '' : text)
    piece.element.setAttributeNS(XML, 'xml:space', 'preserve')
    isPut = true
  }
}
const XML = 'http://www.w3.org/XML/1998/namespace'
