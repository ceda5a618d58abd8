import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { signatureSvg } from '../fill/drawnSignature'
import { pictureOf } from '../documents/pictures'
import type { ResponseLine } from '../fill/describeResponse'
import { setPicture } from './setPicture'

/** A response to be kept on paper. */
export interface PaperCopy {
  title: string
  /** Number and time. */
  about: string
  lines: readonly ResponseLine[]
}

type FileSource = (id: string) => Uint8Array | null

/** The words of a line: that it was left blank is said, too. */
const wordsOf = ({ state, text }: ResponseLine): Content =>
  state === 'blank' ? { text: 'left blank', italics: true, color: '#555555' } : { text, bold: true }

function contentOf({ title, about, lines }: PaperCopy, index: number, fileOf: FileSource): Content[] {
  const told = lines.flatMap((line): Content[] => [
    ...(line.heading ? [{ text: line.heading, style: 'section' }] : []),
    ...(line.entry ? [{ text: line.entry, style: 'entry' }] : []),
    { columns: [{ text: line.label, width: '45%' }, wordsOf(line)], columnGap: 12, margin: [0, 2, 0, 2] },
    ...(line.drawn ? [{ svg: signatureSvg(line.drawn), width: 160 }] : []),
    ...line.files.flatMap(({ file }) => pictureFrom(fileOf(file))),
  ])
  const head: Content = { text: title, style: 'title', ...(index > 0 ? { pageBreak: 'before' } : {}) }
  return [head, { text: about, color: '#555555', margin: [0, 0, 0, 10] }, ...told]
}

/** A file that is a picture, as it is set below its name; nothing for any other. */
function pictureFrom(bytes: Uint8Array | null): Content[] {
  const picture = pictureOf(bytes)
  if (!picture) return []
  const type = picture.type === 'png' ? 'image/png' : 'image/jpeg'
  return [{ columns: [setPicture({ ...picture, type })], margin: [0, 2, 0, 6] }]
}

/**
 * Responses as pages (A4), each beginning on a new one: what is set into a PDF file by whoever has the fonts.
 * @param fileOf the bytes of a file by its id; null for one that is told by its name alone
 */
export const setResponses = (copies: readonly PaperCopy[], fileOf: FileSource): TDocumentDefinitions => ({
  pageSize: 'A4',
  info: { title: copies[0]?.title ?? '' },
  defaultStyle: { fontSize: 10.5 },
  styles: {
    title: { fontSize: 18, bold: true, margin: [0, 0, 0, 4] },
    section: { fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
    entry: { fontSize: 11, color: '#555555', margin: [0, 6, 0, 2] },
  },
  footer: (page, pages) => ({ text: `${page} / ${pages}`, alignment: 'center', fontSize: 9 }),
  content: copies.flatMap((copy, i) => contentOf(copy, i, fileOf)),
})
