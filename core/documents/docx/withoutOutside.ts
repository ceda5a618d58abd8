import { zipSync } from 'fflate'
import { childrenOf, isElement, readXml, writeXml } from './docxTree'
import { LARGEST_DOCUMENT, openDocx, textOf } from './openDocx'

/**
 * A DOCX that names nothing outside of itself but what a reader may follow by hand: no linked pictures, templates or files, which a program that
 * opens it would read from elsewhere.
 * @throws NotATemplate where the file is none
 */
export function withoutOutside(bytes: Uint8Array): Uint8Array {
  const files = openDocx(bytes, LARGEST_DOCUMENT)
  for (const name of Object.keys(files)) {
    if (!name.endsWith('.rels')) continue
    const document = readXml(textOf(files, name), name)
    const root = document.documentElement
    for (const node of root ? childrenOf(root) : []) {
      if (!isElement(node) || node.getAttribute('TargetMode') !== 'External') continue
      if (!/\/hyperlink$/.test(node.getAttribute('Type') ?? '')) root?.removeChild(node)
    }
    files[name] = new TextEncoder().encode(writeXml(document))
  }
  return zipSync(files)
}
