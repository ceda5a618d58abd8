import { setResponseHeader, type H3Event } from 'h3'
import { refuse, Refused } from './refuse'

/**
 * Reads the body of a request, which is counted as it comes: beyond so many bytes it is refused and no longer read, whatever length was
 * announced.
 * @param most bytes
 * @param take gets each piece; where it gives a promise, nothing more is read until that is kept
 */
export function readPieces(
  event: H3Event,
  most: number,
  take: (piece: Buffer) => void | Promise<void>,
): Promise<void> {
  const { req } = event.node
  return new Promise((done, failed) => {
    let length = 0
    const stop = (error: unknown) => {
      req.pause()
      // What is still on its way is not waited for.
      if (error instanceof Refused) setResponseHeader(event, 'connection', 'close')
      failed(error)
    }
    req.on('data', (piece: Buffer) => {
      length += piece.length
      if (length > most) return stop(tooLarge(most))
      const taken = take(piece)
      if (!taken) return
      req.pause()
      taken.then(() => req.resume(), stop)
    })
    req.once('end', () => done())
    req.once('error', failed)
    req.once('close', () =>
      failed(new Refused(400, { code: 'broken-off', sentence: 'The request broke off.' })),
    )
  })
}

/** A body as a whole, of at most so many bytes. */
export async function readBytes(event: H3Event, most: number): Promise<Buffer> {
  const pieces: Buffer[] = []
  await readPieces(event, most, piece => void pieces.push(piece))
  return Buffer.concat(pieces)
}

const tooLarge = (most: number) =>
  new Refused(413, {
    code: 'too-large',
    sentence: `This is larger than ${Math.round(most / 100_000) / 10} MB, the most that is read at once.`,
  })

/** Refuses what is larger than so many bytes. */
export function refuseTooLarge(most: number): never {
  const { status, refusal } = tooLarge(most)
  return refuse(status, refusal.code, refusal.sentence)
}
