import { randomUUID } from 'node:crypto'
import { createReadStream, type ReadStream } from 'node:fs'
import { mkdir, open, readdir, rename, rm, stat, type FileHandle } from 'node:fs/promises'
import { join } from 'node:path'

// Files stand beside the database, not in it: a large one that comes or goes stops nobody else.

let root: string | null = null

/** Sets the folder for the files of this process, below the data folder. */
export const useFileFolder = (dataFolder: string) => {
  root = join(dataFolder, 'files')
}

function folder(): string {
  if (root === null) throw new Error('A file is asked for before the folder is known.')
  return root
}

/** Where the file with an id stands. */
const pathOf = (id: string) => join(folder(), id.slice(0, 2), id)
const INCOMING = 'incoming'

/** A file that has come and is not yet kept. */
export interface IncomingFile {
  path: string
  bytes: number
}

/** Writes a file piece by piece as it comes. `pour` calls for each piece, and is done when all have come; where it fails, nothing is left. */
export async function receiveFile(
  pour: (write: (piece: Uint8Array) => Promise<void>) => Promise<void>,
): Promise<IncomingFile> {
  await mkdir(join(folder(), INCOMING), { recursive: true, mode: 0o700 })
  const path = join(folder(), INCOMING, randomUUID())
  const file = await open(path, 'wx', 0o600)
  try {
    const bytes = await pourInto(file, pour)
    await file.sync()
    return { path, bytes }
  } catch (error) {
    await rm(path, { force: true })
    throw error
  } finally {
    await file.close()
  }
}

async function pourInto(
  file: FileHandle,
  pour: (write: (piece: Uint8Array) => Promise<void>) => Promise<void>,
): Promise<number> {
  let bytes = 0
  await pour(async piece => {
    bytes += piece.length
    await file.write(piece)
  })
  return bytes
}

/** Keeps a file that has come under an id. */
export async function keepFile({ path }: IncomingFile, id: string): Promise<void> {
  await mkdir(join(folder(), id.slice(0, 2)), { recursive: true, mode: 0o700 })
  await rename(path, pathOf(id))
}

/** Lets go of a file that has come and is not wanted. */
export const dropFile = ({ path }: IncomingFile): Promise<void> => rm(path, { force: true })

/** Reads a file that is kept. */
export const readFile = (id: string): ReadStream => createReadStream(pathOf(id))

/** How long a file that is kept is, in bytes; null when it is not there. */
export async function sizeOfFile(id: string): Promise<number | null> {
  try {
    return (await stat(pathOf(id))).size
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return null
    throw error
  }
}

/** Deletes files that are kept. */
export async function deleteFiles(ids: readonly string[]): Promise<void> {
  for (const id of ids) await rm(pathOf(id), { force: true })
}

/** A file that nobody knows is left alone for so long: it may just have come. */
const YOUNG = 3_600_000

/** Deletes what stands in the folder and is known to nobody: what broke off, and what was deleted while the process ended. */
export async function sweepFiles(
  isKnown: (ids: readonly string[]) => Promise<ReadonlySet<string>>,
): Promise<number> {
  let swept = 0
  for (const part of await namesIn(folder())) {
    const old = await oldIn(join(folder(), part))
    const known = part === INCOMING ? new Set<string>() : await isKnown(old)
    for (const name of old.filter(n => !known.has(n))) {
      await rm(join(folder(), part, name), { force: true })
      swept += 1
    }
  }
  return swept
}

async function oldIn(path: string): Promise<string[]> {
  const names = await namesIn(path)
  const ages = await Promise.all(
    names.map(async name => ({ name, at: (await stat(join(path, name))).mtimeMs })),
  )
  return ages.filter(({ at }) => Date.now() - at > YOUNG).map(({ name }) => name)
}

async function namesIn(path: string): Promise<string[]> {
  try {
    return await readdir(path)
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return []
    throw error
  }
}
