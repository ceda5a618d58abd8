import type { DocumentContent } from '../../../core/documents/content'
import { fill, type Filled } from '../../../core/fill/fill'
import type { Sending } from '../../../shared/api/answering'
import type { DocumentToSign } from '../../../shared/api/documents'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { runTask } from '../../threads/run'
import { acceptAnswers, answersToStore } from '../acceptAnswers'
import { filesOf, filesWaiting } from '../filesOfResponses'
import { mayHandOn } from '../keepTurn'
import { broughtBy, resolveLink, type LinkTarget, type LinkUse } from '../links'
import { countTry } from '../people/tallies'
import { standingOf } from '../workspace'
import { fillDocument, picturesQuoted } from './documents'
import { loadSignatures, tellSignature } from './sealing'
import { documentsToSign, type ToSign } from './signing'

/** The documents that are to be signed before some answers are sent, as they would be: what is signed is read first. Refused where an answer is missing or wrong. */
export async function readToSign(
  db: Database,
  use: LinkUse,
  sending: Sending,
): Promise<{ documents: DocumentToSign[] }> {
  const target = await resolveLink(db, use, { for: 'sending' })
  await countTry(db, 'signingBySource', use.source ?? '')
  const { plan, turn, response } = target
  if (!mayHandOn(target))
    return refuse(409, 'not-open', 'This turn is not open any more; there is nothing to be signed.')
  const begunOn = response?.begunOn ?? sending.begunOn
  const before = response?.answers ?? {}
  const given = response ? sending.answers : { ...sending.answers, ...broughtBy(target) }
  const standing = await standingOf(db, target)
  const accepted = acceptAnswers(plan, turn, before, given, { begunOn, standing })
  const { answers } = answersToStore(accepted, turn, before, response?.people ?? null)
  // As it is worked out again when it is sent.
  const filled = fill(plan, answers, begunOn, standing)
  const due = await documentsToSign(db, { responseId: response?.id ?? null, turn }, filled)
  const documents: DocumentToSign[] = []
  for (const toSign of due) {
    const bytes =
      toSign.sealed?.content ??
      (await fillDocument(db, {
        ...{ answers, begunOn, filled, document: toSign.document },
        pictures: await picturesFor(db, target, sending, toSign),
      }))
    documents.push(await tell(db, filled, toSign, await runTask('readContent', { bytes })))
  }
  return { documents }
}

/** The pictures that a document quotes: those of the response, and those that were given with what is about to be sent. */
async function picturesFor(
  db: Database,
  { release, response }: LinkTarget,
  { key }: Sending,
  { document }: ToSign,
) {
  const stored = response ? await filesOf(db, [response.id]) : []
  return picturesQuoted([...stored, ...(await filesWaiting(db, release.id, key))], document)
}

async function tell(
  db: Database,
  { plan }: Filled,
  { document, sealed, basis }: ToSign,
  content: DocumentContent,
): Promise<DocumentToSign> {
  const signed = sealed ? await loadSignatures(db, [sealed.id]) : []
  return {
    code: document.code,
    title: document.title || document.code,
    basis,
    content: JSON.stringify(content, (_, value: unknown) =>
      value instanceof Uint8Array ? Buffer.from(value).toString('base64') : value,
    ),
    signed: signed.filter(s => s.voidedAt === null).map(s => tellSignature(plan.form, s)),
  }
}
