import { setResponses, type PaperCopy } from '#core/paper/responsePaper'

/** A copy of a response as a PDF file (A4); whoever gave files has them: they are told by their names. What makes it is fetched when somebody asks for one. */
export async function makeResponsePdf(copy: PaperCopy): Promise<Blob> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ])
  pdfMake.addVirtualFileSystem(fonts)
  return pdfMake.createPdf(setResponses([copy], () => null)).getBlob()
}
