import { asc, eq } from 'drizzle-orm'
import type { Filled } from '../../../core/fill/frame'
import type { FormDocument } from '../../../core/form/documents'
import { holds } from '../../../core/parties/deliveries'
import type { ResponseDocument } from '../../../shared/api/documents'
import type { Database } from '../../store/database'
import { documents } from '../../store/schema'
import { pdfKind } from './pdf'
import { loadSignatures, tellSignature, turnsToSign } from './sealing'
import { digestOfTold } from './signing'

/** The documents that a response has, or can have made. */
export async function listDocuments(
  db: Database,
  filled: Filled,
  responseId: string,
): Promise<ResponseDocument[]> {
  const meant = filled.plan.form.documents ?? []
  if (meant.length === 0) return []
  const rows = await db
    .select({
      id: documents.id,
      code: documents.code,
      name: documents.name,
      version: documents.version,
      madeAt: documents.madeAt,
      bytes: documents.bytes,
      told: documents.told,
    })
    .from(documents)
    .where(eq(documents.responseId, responseId))
    .orderBy(asc(documents.version))
  const pdf = await pdfKind()
  const signed = await loadSignatures(
    db,
    rows.map(row => row.id),
  )
  const { form } = filled.plan
  const signingOf = (document: FormDocument): ResponseDocument['signing'] => {
    if (document.on !== 'signed') return null
    const last = rows.findLast(row => row.code === document.code)
    const standing = signed.filter(s => s.documentId === last?.id && s.voidedAt === null)
    return {
      signed: standing.map(s => tellSignature(form, s)),
      waiting: turnsToSign(form, document, standing),
      isOutdated: standing.length > 0 && last?.told !== digestOfTold(filled, document),
    }
  }
  return meant.map(document => ({
    pdf,
    code: document.code,
    title: document.title || document.code,
    isMeant: holds(filled, document),
    signing: signingOf(document),
    made: rows
      .filter(row => row.code === document.code)
      .map(({ id, name, version, bytes, madeAt }) => ({
        id,
        name,
        version,
        bytes,
        at: madeAt.toISOString(),
      })),
  }))
}
