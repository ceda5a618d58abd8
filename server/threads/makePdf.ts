import { setResponses, type PaperCopy } from '../../core/paper/responsePaper'

/** Responses as a PDF file: its bytes. What makes it is fetched when it is asked for. */
export async function makePdf({ copies }: { copies: readonly PaperCopy[] }): Promise<Uint8Array> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ])
  pdfMake.addVirtualFileSystem(fonts)
  return new Uint8Array(await pdfMake.createPdf(setResponses(copies)).getBuffer())
}
