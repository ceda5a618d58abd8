import type { Readable } from 'node:stream'
import { inArray, sql } from 'drizzle-orm'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { files, responses } from '../store/schema'
import { filePart, filesOf } from './filesOfResponses'
import { MOST_ZIPPED, zipStream, type Part } from './zipStream'

/** So many responses are asked for their files at a time. */
const AT_ONCE = 200

/** The files of responses as an archive, a folder for each that has some, by its number. Refused where they are more than an archive holds. */
export async function zipFiles(db: Database, ids: readonly string[]): Promise<Readable> {
  await refuseTooMuch(db, ids)
  async function* parts(): AsyncGenerator<Part> {
    for (let from = 0; from < ids.length; from += AT_ONCE) {
      const some = ids.slice(from, from + AT_ONCE)
      const numbers = await db
        .select({ id: responses.id, number: responses.number })
        .from(responses)
        .where(inArray(responses.id, some))
      const numberOf = new Map(numbers.map(r => [r.id, r.number]))
      for (const file of await filesOf(db, some))
        yield filePart(`${numberOf.get(file.responseId ?? '') ?? ''}`, file)
    }
  }
  return zipStream(parts())
}

async function refuseTooMuch(db: Database, ids: readonly string[]): Promise<void> {
  let bytes = 0
  for (let from = 0; from < ids.length; from += AT_ONCE * 10) {
    const [found] = await db
      .select({ bytes: sql<string>`coalesce(sum(${files.size}), 0)` })
      .from(files)
      .where(inArray(files.responseId, ids.slice(from, from + AT_ONCE * 10)))
    bytes += Number(found?.bytes ?? 0)
  }
  if (bytes === 0) refuse(422, 'no-files', 'None of these responses holds a file.')
  if (bytes > MOST_ZIPPED)
    refuse(
      422,
      'too-many-files',
      'These files are more than one archive holds. Take fewer responses at a time.',
    )
}
