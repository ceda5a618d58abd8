import { zipSync } from 'fflate'
import { W } from '../../core/documents/docx/docxTree'

const TYPES = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>`
const RELS = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>`

/** The smallest DOCX with a body of this WordprocessingML: what tests fill. `more`: further files of it by name. */
export function docxOf(body: string, more: Record<string, string> = {}): Uint8Array {
  const files = {
    '[Content_Types].xml': TYPES,
    '_rels/.rels': RELS,
    'word/document.xml': `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<w:document xmlns:w="${W}"><w:body>${body}</w:body></w:document>`,
    ...more,
  }
  const encoder = new TextEncoder()
  return zipSync(
    Object.fromEntries(Object.entries(files).map(([name, text]) => [name, encoder.encode(text)])),
  )
}

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')
/** A paragraph of runs: where a word processor has split a text, so that a tag stands in several. */
export const paragraphOf = (...runs: string[]): string =>
  `<w:p>${runs.map(text => `<w:r><w:t xml:space="preserve">${escaped(text)}</w:t></w:r>`).join('')}</w:p>`
/** A table: rows of cells of one paragraph each. */
export const tableOf = (...rows: string[][]): string =>
  `<w:tbl>${rows.map(cells => `<w:tr>${cells.map(text => `<w:tc>${paragraphOf(text)}</w:tc>`).join('')}</w:tr>`).join('')}</w:tbl>`
