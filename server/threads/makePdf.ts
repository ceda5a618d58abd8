import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { setResponses, type PaperCopy } from '../../core/paper/responsePaper'

/** Responses as a PDF file: its bytes. */
export const makePdf = ({ copies }: { copies: readonly PaperCopy[] }): Promise<Uint8Array> =>
  writePdf(setResponses(copies))

/** Pages as a PDF file: its bytes. What makes it is fetched when it is asked for; nothing is read from files or from elsewhere. */
export async function writePdf(pages: TDocumentDefinitions): Promise<Uint8Array> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ])
  pdfMake.addVirtualFileSystem(fonts)
  return new Uint8Array(await pdfMake.createPdf(pages).getBuffer())
}
