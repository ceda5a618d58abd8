import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { signatureSvg } from '../fill/drawnSignature'
import type { ResponseLine } from '../fill/describeResponse'

/** A response to be kept on paper. */
export interface PaperCopy {
  title: string
  /** Number and time. */
  about: string
  lines: readonly ResponseLine[]
}

/** The words of a line: that it was left blank is said, too. */
const wordsOf = ({ state, text }: ResponseLine): Content =>
  state === 'blank' ? { text: 'left blank', italics: true, color: '#555555' } : { text, bold: true }

function contentOf({ title, about, lines }: PaperCopy, index: number): Content[] {
  const told = lines.flatMap((line): Content[] => [
    ...(line.heading ? [{ text: line.heading, style: 'section' }] : []),
    ...(line.entry ? [{ text: line.entry, style: 'entry' }] : []),
    { columns: [{ text: line.label, width: '45%' }, wordsOf(line)], columnGap: 12, margin: [0, 2, 0, 2] },
    ...(line.drawn ? [{ svg: signatureSvg(line.drawn), width: 160 }] : []),
  ])
  const head: Content = { text: title, style: 'title', ...(index > 0 ? { pageBreak: 'before' } : {}) }
  return [head, { text: about, color: '#555555', margin: [0, 0, 0, 10] }, ...told]
}

/** Responses as pages (A4), each beginning on a new one: what is set into a PDF file by whoever has the fonts. */
export const setResponses = (copies: readonly PaperCopy[]): TDocumentDefinitions => ({
  pageSize: 'A4',
  info: { title: copies[0]?.title ?? '' },
  defaultStyle: { fontSize: 10.5 },
  styles: {
    title: { fontSize: 18, bold: true, margin: [0, 0, 0, 4] },
    section: { fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
    entry: { fontSize: 11, color: '#555555', margin: [0, 6, 0, 2] },
  },
  footer: (page, pages) => ({ text: `${page} / ${pages}`, alignment: 'center', fontSize: 9 }),
  content: copies.flatMap(contentOf),
})
