import { eq } from 'drizzle-orm'
import type { SealedFile } from '../../../shared/api/documents'
import type { Database } from '../../store/database'
import { documents, releases, responses, sealedFiles } from '../../store/schema'
import { countTry } from '../people/tallies'
import { loadSignatures, tellSignature } from './sealing'

/** What is known of a file by its hash: of which signed document it was given out, and the signatures that stand in it. Nothing that is not in the file itself, but whether they still stand. */
export async function checkFile(
  db: Database,
  { hash, source }: { hash: string; source: string },
): Promise<SealedFile> {
  await countTry(db, 'checkBySource', source)
  const [row] = await db
    .select({
      id: documents.id,
      code: documents.code,
      number: responses.number,
      definition: releases.definition,
      signed: sealedFiles.signed,
      madeAt: sealedFiles.madeAt,
    })
    .from(sealedFiles)
    .innerJoin(documents, eq(sealedFiles.documentId, documents.id))
    .innerJoin(responses, eq(documents.responseId, responses.id))
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .where(eq(sealedFiles.hash, hash))
  if (!row) return { known: null }
  const { definition: form, madeAt, signed } = row
  const inFile = (await loadSignatures(db, [row.id])).filter(s => signed.includes(s.id))
  return {
    known: {
      title: form.documents?.find(d => d.code === row.code)?.title || row.code,
      form: form.title,
      number: row.number,
      madeAt: madeAt.toISOString(),
      signed: inFile.map(s => tellSignature(form, s)),
    },
  }
}
