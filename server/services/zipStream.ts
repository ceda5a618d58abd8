import { Readable } from 'node:stream'
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate'

/** A file of an archive: its path in it, and its content piece by piece. `isPacked`: it is small as it is, like a picture. */
export interface Part {
  name: string
  content: AsyncIterable<Uint8Array> | Iterable<Uint8Array>
  isPacked?: boolean
}

/** An archive holds no more bytes: its addresses end there (ZIP without its 64-bit extension). */
export const MOST_ZIPPED = 4_000_000_000

/** Writes files into an archive (ZIP) as they are read: no more of it stands in memory than a piece. */
export function zipStream(parts: AsyncIterable<Part>): Readable {
  async function* pieces(): AsyncGenerator<Uint8Array> {
    const written: Uint8Array[] = []
    const zip = new Zip((error, piece) => {
      if (error) throw error
      written.push(piece)
    })
    const names = new Map<string, number>()
    for await (const { name, content, isPacked } of parts) {
      const own = nameOnce(name, names)
      const entry = isPacked ? new ZipPassThrough(own) : new ZipDeflate(own)
      zip.add(entry)
      for await (const piece of content) {
        entry.push(piece)
        yield* written.splice(0)
      }
      entry.push(new Uint8Array(0), true)
      yield* written.splice(0)
    }
    zip.end()
    yield* written.splice(0)
  }
  return Readable.from(pieces(), { objectMode: false })
}

/** What no file system takes in a name. */
const UNSAFE = /[\p{Cc}<>:"|?*\\/]/gu

/** A name as it may stand in an archive: no way out of the folder that it is unpacked in. */
export const zipName = (text: string): string =>
  text.replaceAll(UNSAFE, '_').replace(/^\.+/, '_').slice(0, 120) || '_'

/** The same name again gets a number before its ending. */
function nameOnce(name: string, names: Map<string, number>): string {
  const key = name.toLowerCase()
  const before = names.get(key) ?? 0
  names.set(key, before + 1)
  return before === 0 ? name : name.replace(/(\.[^./]*)?$/, ` (${before + 1})$1`)
}

/** A text as the content of a file. */
export const textContent = (text: string): Uint8Array[] => [Buffer.from(text, 'utf8')]
