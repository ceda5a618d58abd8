import { buffer } from 'node:stream/consumers'
import { and, asc, eq, inArray, isNull, type SQL } from 'drizzle-orm'
import { readFile } from '../store/fileFolder'
import type { Database } from '../store/database'
import { files } from '../store/schema'
import { zipName, type Part } from './zipStream'

/** A file that a response holds. */
export interface HeldFile {
  id: string
  responseId: string | null
  question: string
  name: string
  size: number
  content: Uint8Array | null
}

/** The files of some responses, by question. */
export const filesOf = (db: Database, responseIds: readonly string[]): Promise<HeldFile[]> =>
  filesWhere(db, inArray(files.responseId, [...responseIds]))

/** The files that were given for a sending to a release and wait for it. */
export const filesWaiting = (db: Database, releaseId: string, key: string): Promise<HeldFile[]> =>
  filesWhere(db, and(eq(files.releaseId, releaseId), eq(files.sendingKey, key), isNull(files.responseId)))

const filesWhere = (db: Database, condition: SQL | undefined): Promise<HeldFile[]> =>
  db
    .select({
      id: files.id,
      responseId: files.responseId,
      question: files.question,
      name: files.name,
      size: files.size,
      content: files.content,
    })
    .from(files)
    .where(condition)
    .orderBy(asc(files.question), asc(files.at), asc(files.id))

/** A file as it stands in an archive: in a folder, under its question. */
export const filePart = (folder: string, { id, question, name, content }: HeldFile): Part => ({
  name: `${folder}/${zipName(`${question} ${name}`)}`,
  content: content ? [content] : readPieces(id),
  isPacked: true,
})

/** The bytes of a kept file, opened when they are asked for. */
async function* readPieces(id: string): AsyncGenerator<Uint8Array> {
  for await (const piece of readFile(id)) yield Buffer.from(piece)
}

/** All bytes of a file. */
export const bytesOf = async ({ id, content }: Pick<HeldFile, 'id' | 'content'>): Promise<Uint8Array> =>
  content ?? buffer(readFile(id))

/** A file that is a picture, by its id. */
export interface Picture {
  id: string
  bytes: Uint8Array
}

/** The pictures among some files, in their order, as many as one document holds: those of at most 30 MB together. */
export async function picturesAmong(held: readonly HeldFile[]): Promise<Picture[]> {
  const found: Picture[] = []
  let left = MOST_BYTES
  for (const file of held) {
    if (!PICTURE.test(file.name) || file.size > left) continue
    found.push({ id: file.id, bytes: await bytesOf(file) })
    left -= file.size
  }
  return found
}
const PICTURE = /\.(?:png|jpe?g)$/i
const MOST_BYTES = 30_000_000
