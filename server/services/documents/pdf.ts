import { eq } from 'drizzle-orm'
import type { Database } from '../../store/database'
import { documents } from '../../store/schema'
import { runTask } from '../../threads/run'
import { hasOffice, setByOffice } from './office'

/** How PDF files of documents are made here: as the template sets its pages, or plainly, of its text, tables and pictures. */
export const pdfKind = async (): Promise<'exact' | 'plain'> => ((await hasOffice()) ? 'exact' : 'plain')

/** A document that was made, as a PDF file; null where it is gone. One that is exact is kept: the document does not change. */
export async function documentPdf(db: Database, id: string): Promise<Uint8Array | null> {
  const [row] = await db
    .select({ code: documents.code, content: documents.content, pdf: documents.pdf })
    .from(documents)
    .where(eq(documents.id, id))
  if (!row) return null
  if (row.pdf) return row.pdf
  if (!(await hasOffice())) return runTask('setPdf', { bytes: row.content, title: row.code })
  const pdf = await setByOffice(row.content)
  await db.update(documents).set({ pdf }).where(eq(documents.id, id))
  return pdf
}

/** What a document is called as a PDF file. */
export const pdfName = (name: string): string => name.replace(/\.docx$/i, '.pdf')
