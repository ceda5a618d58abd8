import { decode } from 'fast-png'
import { Unzlib } from 'fflate'

/** A larger picture is not taken apart. */
const MOST_PIXELS = 25_000_000
/** What a pixel has at most: four channels of two bytes; and room for what stands before each line, in all passes of an interlaced one. */
const BYTES_OF_PIXEL = 8
const ROOM = 2
/** So many bytes are unpacked at a time: each can become a thousand. */
const PIECE = 16_384
const HEAD = 8
const IHDR = { width: 16, height: 20 }

const KNOWN = new WeakMap<Uint8Array, boolean>()

/**
 * Whether a PNG (ISO/IEC 15948) can be taken apart to its end, and is no larger than it says: a damaged one would stop whatever sets it.
 * The same bytes are looked at once.
 */
export function isWholePng(bytes: Uint8Array): boolean {
  const known = KNOWN.get(bytes)
  if (known !== undefined) return known
  const isWhole = isBounded(bytes) && isDecoded(bytes)
  KNOWN.set(bytes, isWhole)
  return isWhole
}

/** Whether what is packed in it comes to no more than its size allows. */
function isBounded(bytes: Uint8Array): boolean {
  if (bytes.length < IHDR.height + 4) return false
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const pixels = view.getUint32(IHDR.width) * view.getUint32(IHDR.height)
  if (pixels > MOST_PIXELS) return false
  let left = pixels * BYTES_OF_PIXEL * ROOM + PIECE
  const unpacking = new Unzlib(piece => {
    left -= piece.length
  })
  try {
    for (const part of partsOf(bytes, view))
      for (let from = 0; from < part.length && left > 0; from += PIECE)
        unpacking.push(part.subarray(from, from + PIECE))
  } catch {
    return false // it is not packed as it says
  }
  return left > 0
}

/** The packed parts, in their order. */
function* partsOf(bytes: Uint8Array, view: DataView): Generator<Uint8Array> {
  for (let at = HEAD; at + HEAD <= bytes.length;) {
    const [length, type] = [view.getUint32(at), view.getUint32(at + 4)]
    if (type === IDAT) yield bytes.subarray(at + HEAD, at + HEAD + length)
    at += length + 12 // its length, type and checksum
  }
}
/** “IDAT” in four bytes. */
const IDAT = 0x49444154

function isDecoded(bytes: Uint8Array): boolean {
  try {
    decode(bytes, { checkCrc: true })
    return true
  } catch {
    return false
  }
}
