import { createHash } from 'node:crypto'
import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { Form } from '../../../core/form/definition'
import type { FormDocument } from '../../../core/form/documents'
import { turnNameOf } from '../../../core/parties/turns'
import type { SignatureTold } from '../../../shared/api/documents'
import type { Database } from '../../store/database'
import { documents, releases, responses, sealedFiles, signatures } from '../../store/schema'
import { runTask } from '../../threads/run'

type SignatureRow = typeof signatures.$inferSelect

/** The signatures of some documents, in the order in which they were given; also those that no longer stand. */
export const loadSignatures = (db: Database, documentIds: readonly string[]): Promise<SignatureRow[]> =>
  db
    .select()
    .from(signatures)
    .where(inArray(signatures.documentId, [...documentIds]))
    .orderBy(asc(signatures.signedAt), asc(signatures.id))

/** A signature as it is told of; a turn by its name. */
export const tellSignature = (
  form: Form,
  { turn, signedAt, voidedAt, ...row }: SignatureRow,
): SignatureTold => ({
  turn: turn === '' ? '' : turnNameOf(form, turn),
  name: row.name,
  role: row.role,
  place: row.place,
  at: signedAt.toISOString(),
  voidedAt: voidedAt?.toISOString() ?? null,
})

/** The names of the turns that are still to sign a document. */
export function turnsToSign(
  form: Form,
  { signedBy = [] }: FormDocument,
  standing: readonly Pick<SignatureRow, 'turn'>[],
): string[] {
  return signedBy.filter(code => !standing.some(s => s.turn === code)).map(code => turnNameOf(form, code))
}

/** Sets the last page of a signed document anew, as its signatures stand now. What the document says stays as it was. */
export async function sealAnew(db: Database, documentId: string): Promise<void> {
  const [row] = await db
    .select({ document: documents, number: responses.number, definition: releases.definition })
    .from(documents)
    .innerJoin(responses, eq(documents.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(documents.id, documentId))
  if (!row?.document.unsigned) return
  const { document, number, definition: form } = row
  const meant = form.documents?.find(d => d.code === document.code)
  const standing = (await loadSignatures(db, [documentId])).filter(s => s.voidedAt === null)
  const content = await runTask('sealDocument', {
    bytes: row.document.unsigned,
    seal: {
      heading: 'Signatures',
      signed: standing.map(s => ({ ...tellSignature(form, s), at: momentOf(s.signedAt), drawn: s.drawn })),
      waiting: meant ? turnsToSign(form, meant, standing) : [],
      lines: [
        // With its own id no other document makes the same file.
        `“${meant?.title || document.code}”, response ${number} of “${form.title}” (${documentId})`,
        `What was signed (SHA-256): ${hexOf(document.digest)}`,
        `The answers of which it tells (SHA-256): ${hexOf(document.told ?? '')}`,
        'Whether this file is unchanged can be seen at the address /check of the site on which it was signed.',
      ],
    },
  })
  const signed = standing.map(s => s.id)
  await db
    .update(documents)
    .set({ content, bytes: content.length, pdf: null, signed })
    .where(eq(documents.id, documentId))
  await keepHash(db, content, { documentId, signed })
}

/** Keeps by what a file is known again that is given out of a signed document. `signed`: the signatures of which it tells. */
export async function keepHash(
  db: Database,
  file: Uint8Array,
  of: { documentId: string; signed: string[] },
): Promise<void> {
  const hash = createHash('sha256').update(file).digest('hex')
  await db
    .insert(sealedFiles)
    .values({ hash, ...of, madeAt: new Date() })
    .onConflictDoNothing()
}

const hexOf = (digest: string) => Buffer.from(digest, 'base64url').toString('hex')
/** A moment as it stands on paper, where nobody’s own time zone is known. */
const momentOf = (at: Date) => `${at.toISOString().slice(0, 16).replace('T', ' ')} UTC`

/** Signatures that were given in some turns of a response no longer stand: the turns are opened again. */
export async function voidSignatures(
  db: Database,
  responseId: string,
  turns: readonly string[],
): Promise<void> {
  const made = db.select({ id: documents.id }).from(documents).where(eq(documents.responseId, responseId))
  const voided = await db
    .update(signatures)
    .set({ voidedAt: new Date() })
    .where(
      and(
        inArray(signatures.documentId, made),
        inArray(signatures.turn, [...turns]),
        isNull(signatures.voidedAt),
      ),
    )
    .returning({ documentId: signatures.documentId })
  for (const id of new Set(voided.map(v => v.documentId))) await sealAnew(db, id)
}
