import { and, eq, sql } from 'drizzle-orm'
import type { Database } from '../../store/database'
import { documents } from '../../store/schema'
import { runTask } from '../../threads/run'
import { keepHash } from './sealing'
import { hasOffice, setByOffice } from './office'

/** How PDF files of documents are made here: as the template sets its pages, or plainly, of its text, tables and pictures. */
export const pdfKind = async (): Promise<'exact' | 'plain'> => ((await hasOffice()) ? 'exact' : 'plain')

/** A document that was made, as a PDF file; null where it is gone. One that is exact, or of a signed document, is kept: the document does not change. */
export async function documentPdf(db: Database, id: string): Promise<Uint8Array | null> {
  const [row] = await db
    .select({
      code: documents.code,
      content: documents.content,
      pdf: documents.pdf,
      signed: documents.signed,
      isSigned: sql<boolean>`${documents.unsigned} is not null`,
    })
    .from(documents)
    .where(eq(documents.id, id))
  if (!row) return null
  if (row.pdf) return row.pdf
  const isExact = await hasOffice()
  const pdf = isExact
    ? await setByOffice(row.content)
    : await runTask('setPdf', { bytes: row.content, title: row.code })
  if (isExact || row.isSigned)
    await db
      .update(documents)
      .set({ pdf })
      // Not where it was signed by somebody meanwhile.
      .where(and(eq(documents.id, id), sql`${documents.signed} = ${JSON.stringify(row.signed)}::jsonb`))
  if (row.isSigned) await keepHash(db, pdf, { documentId: id, signed: row.signed })
  return pdf
}

/** What a document is called as a PDF file. */
export const pdfName = (name: string): string => name.replace(/\.docx$/i, '.pdf')
