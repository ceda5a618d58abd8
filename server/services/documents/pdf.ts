import { runTask } from '../../threads/run'
import { hasOffice, setByOffice } from './office'

/** How PDF files of documents are made here: as the template sets its pages, or plainly, of its text, tables and pictures. */
export const pdfKind = async (): Promise<'exact' | 'plain'> => ((await hasOffice()) ? 'exact' : 'plain')

/** A document as a PDF file. */
export async function documentPdf(docx: Uint8Array, title: string): Promise<Uint8Array> {
  return (await hasOffice()) ? setByOffice(docx) : runTask('setPdf', { bytes: docx, title })
}

/** What a document is called as a PDF file. */
export const pdfName = (name: string): string => name.replace(/\.docx$/i, '.pdf')
