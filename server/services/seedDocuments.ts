import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import type { FormDocument } from '../../core/form/documents'
import { holds } from '../../core/parties/deliveries'
import { turnOf } from '../../core/parties/turns'
import type { Database } from '../store/database'
import { releases, responses, turns } from '../store/schema'
import { fillFor, type Happened } from './deliveries/queue'
import { makeDocument } from './documents/documents'
import { documentsToSign, signDocuments } from './documents/signing'

const OF = 'haul_out'
/** Of so many of the newest responses that are done the documents are there already. */
const NEWEST = 3

/** The documents of some of the demo’s responses. */
export async function seedDocuments(db: Database): Promise<void> {
  const done = await db
    .select({ response: responses, release: releases })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(
      and(
        sql`${releases.definition} ->> 'code' = ${OF}`,
        isNull(responses.turn),
        isNull(responses.withdrawnAt),
      ),
    )
    .orderBy(desc(responses.number))
    .limit(NEWEST)
  for (const happened of done) {
    const filled = await fillFor(db, happened)
    for (const document of happened.release.definition.documents ?? []) {
      if (!holds(filled, document)) continue
      if (document.on === 'signed') await signForYard(db, happened, document)
      else await makeDocument(db, happened, { filled, document, who: '' })
    }
  }
}

/** The yard has signed a document as it handed its turn on. */
async function signForYard(db: Database, happened: Happened, document: FormDocument): Promise<void> {
  const { id } = happened.response
  const { definition } = happened.release
  const turn = turnOf(definition, document.signedBy?.[0] ?? '')
  const [row] = await db
    .select()
    .from(turns)
    .where(and(eq(turns.responseId, id), eq(turns.turn, turn?.code ?? '')))
  if (!turn || !row?.handedOffAt) return
  const filled = await fillFor(db, happened)
  const [due] = await documentsToSign(db, { responseId: id, turn }, filled)
  if (!due) return
  const signature = { code: document.code, basis: due.basis, ...YARD }
  await signDocuments(db, happened, { turn, who: row.to[0] ?? '', given: [signature], at: row.handedOffAt })
}
const YARD = {
  name: 'Lorens Hale',
  role: 'Foreman',
  place: 'Wherry Quay',
  drawn:
    'M60 120 L80 60 L96 40 L92 80 L84 130 L110 134 L140 118 L150 96 L140 100 L134 120 L150 130 L176 108 L190 96 L186 124 L206 100 L216 98 L214 122 L240 118 L300 60 L296 130 L300 96 L340 92 L344 58 L338 130 L360 112 L372 104 L366 126 L390 108 L420 128 L520 92',
}
