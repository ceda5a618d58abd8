import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { setResponses, type PaperCopy } from '../../core/paper/responsePaper'

/** Responses, and the files of theirs that are shown as pictures. */
export interface CopiesToSet {
  copies: readonly PaperCopy[]
  pictures: readonly { id: string; bytes: Uint8Array }[]
}

/** Responses as a PDF file: its bytes. */
export function makePdf({ copies, pictures }: CopiesToSet): Promise<Uint8Array> {
  const byId = new Map(pictures.map(({ id, bytes }) => [id, bytes]))
  return writePdf(setResponses(copies, id => byId.get(id) ?? null))
}

/** Pages as a PDF file: its bytes. What makes it is fetched when it is asked for; nothing is read from files or from elsewhere. */
export async function writePdf(pages: TDocumentDefinitions): Promise<Uint8Array> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ])
  pdfMake.addVirtualFileSystem(fonts)
  return new Uint8Array(await pdfMake.createPdf(pages).getBuffer())
}
