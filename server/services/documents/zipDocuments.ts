import type { Readable } from 'node:stream'
import { and, asc, count, inArray, sql } from 'drizzle-orm'
import { refuse } from '../../http/refuse'
import type { Database } from '../../store/database'
import { documents, responses } from '../../store/schema'
import { documentPdf, pdfName } from './pdf'
import { MOST_ZIPPED, zipName, zipStream, type Part } from '../zipStream'

/** So many responses are asked for their documents at a time. */
const AT_ONCE = 50

/** A document is the last of its kind: no later one was made for the response. */
const isLast = sql`not exists (select 1 from ${documents} later where later.response_id = ${documents.responseId} and later.code = ${documents.code} and later.version > ${documents.version})`

/** So many are set as PDF files for one archive. */
const MOST_SET = 200

/** The documents of responses as an archive, each as it was made last, a folder for each response, by its number. Refused where there are none, or more than an archive holds. */
export async function zipDocuments(
  db: Database,
  ids: readonly string[],
  as: 'docx' | 'pdf' = 'docx',
): Promise<Readable> {
  await refuseTooMuch(db, ids, as)
  async function* parts(): AsyncGenerator<Part> {
    for (let from = 0; from < ids.length; from += AT_ONCE) {
      const rows = await db
        .select({
          ...{ id: documents.id, number: responses.number, name: documents.name },
          ...(as === 'docx' ? { content: documents.content } : {}),
        })
        .from(documents)
        .innerJoin(responses, sql`${documents.responseId} = ${responses.id}`)
        .where(and(inArray(documents.responseId, ids.slice(from, from + AT_ONCE)), isLast))
        .orderBy(asc(responses.number), asc(documents.code))
      for (const { id, number, name, content = null } of rows) {
        const file = content ?? (await documentPdf(db, id))
        const called = zipName(as === 'docx' ? name : pdfName(name))
        if (file) yield { name: `${number}/${called}`, content: [file], isPacked: true }
      }
    }
  }
  return zipStream(parts())
}

async function refuseTooMuch(db: Database, ids: readonly string[], as: 'docx' | 'pdf'): Promise<void> {
  let bytes = 0
  let number = 0
  for (let from = 0; from < ids.length; from += 2_000) {
    const [found] = await db
      .select({ bytes: sql<string>`coalesce(sum(${documents.bytes}), 0)`, number: count() })
      .from(documents)
      .where(and(inArray(documents.responseId, ids.slice(from, from + 2_000)), isLast))
    bytes += Number(found?.bytes ?? 0)
    number += Number(found?.number ?? 0)
  }
  if (bytes === 0) refuse(422, 'no-documents', 'No document was made of any of these responses.')
  if (as === 'pdf' && number > MOST_SET)
    refuse(
      422,
      'too-many-documents',
      `At most ${MOST_SET} documents are set as PDF files at once; these are ${number}. Take fewer responses at a time.`,
    )
  if (bytes > MOST_ZIPPED)
    refuse(
      422,
      'too-many-documents',
      'These documents are more than one archive holds. Take fewer responses at a time.',
    )
}
