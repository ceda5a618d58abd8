import { createHash } from 'node:crypto'
import { and, desc, eq, exists, isNull } from 'drizzle-orm'
import { findUnseen } from '../../../core/documents/seenBy'
import { answersTold } from '../../../core/documents/signing'
import type { Filled } from '../../../core/fill/frame'
import { isSignedIn, type FormDocument } from '../../../core/form/documents'
import type { Turn } from '../../../core/form/turns'
import { holds } from '../../../core/parties/deliveries'
import type { SignatureGiven } from '../../../shared/api/documents'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { documents, signatures } from '../../store/schema'
import { fillFor, type Happened } from '../deliveries/queue'
import { keepEvent } from '../responseEvents'
import { inKeyOrder } from '../sendings'
import { makeDocument } from './documents'
import { sealAnew } from './sealing'

/** A document that is to be signed in a turn: as it was sealed by whoever signed it first; null where it is made now. `basis`: by which its state is known again. */
export interface ToSign {
  document: FormDocument
  sealed: typeof documents.$inferSelect | null
  basis: string
}

/** The documents that a turn signs, whatever the answers: none that tells what its party never sees. */
export const signedIn = ({ plan }: Pick<Filled, 'plan'>, turn: Turn | null): FormDocument[] =>
  (plan.form.documents ?? []).filter(d => isSignedIn(d, turn) && findUnseen(plan, d, turn) === null)

/** The documents that are to be signed before a turn is handed on, with the answers as they are then; null: the one turn of a form without turns. */
export async function documentsToSign(
  db: Database,
  { responseId, turn }: { responseId: string | null; turn: Turn | null },
  filled: Filled,
): Promise<ToSign[]> {
  const found: ToSign[] = []
  for (const document of signedIn(filled, turn)) {
    const isFirst = turn === null || document.signedBy?.[0] === turn.code
    if (isFirst) {
      if (!holds(filled, document)) continue
      found.push({ document, sealed: null, basis: digestOfTold(filled, document) })
      continue
    }
    const sealed = responseId === null ? null : await findSealed(db, responseId, document.code)
    if (sealed) found.push({ document, sealed, basis: sealed.digest })
  }
  return found
}

/** The document of a code that was sealed by a signature which stands. */
export async function findSealed(db: Database, responseId: string, code: string) {
  const standing = db
    .select({ id: signatures.id })
    .from(signatures)
    .where(and(eq(signatures.documentId, documents.id), isNull(signatures.voidedAt)))
  const [row] = await db
    .select()
    .from(documents)
    .where(and(eq(documents.responseId, responseId), eq(documents.code, code), exists(standing)))
    .orderBy(desc(documents.version))
    .limit(1)
  return row ?? null
}

/** A digest of the answers of which a document tells. */
export const digestOfTold = (filled: Filled, document: FormDocument): string =>
  createHash('sha256')
    .update(JSON.stringify(inKeyOrder(answersTold(filled, document))))
    .digest('base64url')

/** Who signs what, in which turn, and when. */
interface Signing {
  turn: Turn | null
  who: string
  given: readonly SignatureGiven[]
  at: Date
}

/**
 * Signs the documents of a turn that is handed on, in the transaction in which it is. Refused where one is not signed, or is not as it was
 * read: then nothing is stored.
 */
export async function signDocuments(db: Database, happened: Happened, signing: Signing): Promise<void> {
  const { turn, given } = signing
  const { response, release } = happened
  if (given.length === 0 && !(release.definition.documents ?? []).some(d => isSignedIn(d, turn))) return
  const filled = await fillFor(db, happened)
  const due = await documentsToSign(db, { responseId: response.id, turn }, filled)
  if (given.some(g => !due.some(d => d.document.code === g.code)))
    refuse(422, 'nothing-to-sign', 'There is nothing to be signed here any more; look at the answers again.')
  for (const toSign of due) {
    const own = signatureFor(toSign, given)
    await keepSignature(db, happened, { toSign, filled, own }, signing)
  }
}

/** The signature that was given for a document as it is now; refused where there is none. */
function signatureFor({ document, basis }: ToSign, given: readonly SignatureGiven[]): SignatureGiven {
  const name = `“${document.title || document.code}”`
  const own = given.find(g => g.code === document.code)
  if (!own) return refuse(422, 'not-signed', `Sign ${name} before it is handed on; nothing was stored.`)
  if (own.basis !== basis)
    refuse(409, 'signed-other', `${name} has changed since you read it. Read it again, and sign it then.`)
  return own
}

async function keepSignature(
  db: Database,
  happened: Happened,
  { toSign, filled, own }: { toSign: ToSign; filled: Filled; own: SignatureGiven },
  { turn, who, at }: Signing,
): Promise<void> {
  const { document, sealed } = toSign
  const told = digestOfTold(filled, document)
  const { id } = sealed ?? (await makeDocument(db, happened, { filled, document, who, told }))
  const { name, role, place, drawn = null } = own
  const code = turn?.code ?? ''
  await db
    .insert(signatures)
    .values({ documentId: id, turn: code, name, role, place, drawn, who, signedAt: at })
  await sealAnew(db, id)
  await keepEvent(db, {
    ...{ responseId: happened.response.id, kind: 'signed', turn: code, who },
    details: { remark: document.title || document.code },
  })
}
