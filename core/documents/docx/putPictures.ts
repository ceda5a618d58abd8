import type { Document, Element, Node } from '@xmldom/xmldom'
import type { AnswerPicture } from '../pictures'
import { childrenOf, isElement, readXml, writeXml } from './docxTree'
import { documentOf } from './isolateTags'
import { textOf, type DocxFiles } from './openDocx'
import { EMU } from './readPicture'
import { relationsOf } from './relatedParts'

const IMAGE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships/image'
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006'
const DRAWING = 'http://schemas.openxmlformats.org/drawingml/2006'
const TYPES = '[Content_Types].xml'
const MEDIA = { png: 'image/png', jpg: 'image/jpeg' } as const

/** Bytes of pictures in a document at most. */
const MOST_BYTES = 30_000_000

/** Collects the pictures that are put into a document, part by part: each file once, with what has to be said of it in the package. */
export class PictureKeeper {
  private bytes = 0
  private readonly names = new Map<Uint8Array, string>()
  private readonly named = new Map<string, Map<string, string>>()
  readonly files: DocxFiles = {}

  /** @param prefix what the names begin with that it gives: one for each that puts pictures into the same document */
  constructor(private readonly prefix = 'tobbin') {}

  /** Whether a picture still fits into the document. */
  fits = ({ bytes }: AnswerPicture): boolean =>
    this.names.has(bytes) || this.bytes + bytes.length <= MOST_BYTES

  /** A run that shows a picture, in a part of the document. */
  runOf(picture: AnswerPicture, part: string, into: Node): Node {
    const { bytes, type, width, height } = picture
    let name = this.names.get(bytes)
    if (name === undefined) {
      name = `${this.prefix}${this.names.size + 1}.${type}`
      this.names.set(bytes, name)
      this.files[`word/media/${name}`] = bytes
      this.bytes += bytes.length
    }
    const ids = this.named.get(part) ?? new Map<string, string>()
    this.named.set(part, ids)
    const id = ids.get(name) ?? `${this.prefix}${ids.size + 1}`
    ids.set(name, id)
    const [cx, cy] = [width, height].map(points => Math.round(points * EMU))
    const root = readXml(drawingXml(id, cx ?? 0, cy ?? 0), 'picture').documentElement
    if (!root) throw new Error('A picture could not be written.')
    return documentOf(into).importNode(root, true)
  }

  /** The files of the package that change by the pictures: relations of the parts, and the kinds of files. */
  packageFiles(files: DocxFiles): DocxFiles {
    if (this.names.size === 0) return {}
    const changed: DocxFiles = { ...this.files }
    for (const [part, ids] of this.named) {
      const name = relationsOf(part)
      const text = textOf(files, name) || `<Relationships xmlns="${PACKAGE}/relationships"/>`
      changed[name] = withElements(text, name, document =>
        [...ids].map(([file, id]) =>
          elementOf(document, 'Relationship', { Id: id, Type: IMAGE, Target: `media/${file}` }),
        ),
      )
    }
    changed[TYPES] = withElements(textOf(files, TYPES), TYPES, (document, root) => {
      const known = childrenOf(root).filter(isElement)
      const wanted = new Set([...this.names.values()].map(file => (file.endsWith('.png') ? 'png' : 'jpg')))
      return [...wanted]
        .filter(type => !known.some(k => k.getAttribute('Extension')?.toLowerCase() === type))
        .map(type => elementOf(document, 'Default', { Extension: type, ContentType: MEDIA[type] }))
    })
    return changed
  }
}

/** A file of the package with elements more, before all others, as the order of kinds wants. */
function withElements(
  text: string,
  name: string,
  make: (document: Document, root: Element) => Element[],
): Uint8Array {
  const document = readXml(text, name)
  const root = document.documentElement
  if (root) for (const element of make(document, root)) root.insertBefore(element, root.firstChild)
  return new TextEncoder().encode(writeXml(document))
}

function elementOf(document: Document, name: string, attributes: Readonly<Record<string, string>>): Element {
  const space = document.documentElement?.namespaceURI ?? null
  const element = document.createElementNS(space, name)
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value)
  return element
}

/** A picture in a line of text (ECMA-376, part 1, section 20.4.2.8). */
const drawingXml = (id: string, cx: number, cy: number): string =>
  `<w:r xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><w:drawing><wp:inline xmlns:wp="${DRAWING}/wordprocessingDrawing" distT="0" distB="0" distL="0" distR="0"><wp:extent cx="${cx}" cy="${cy}"/><wp:docPr id="1" name="${id}"/><a:graphic xmlns:a="${DRAWING}/main"><a:graphicData uri="${DRAWING}/picture"><pic:pic xmlns:pic="${DRAWING}/picture"><pic:nvPicPr><pic:cNvPr id="0" name="${id}"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed="${id}"/><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="${cx}" cy="${cy}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`
