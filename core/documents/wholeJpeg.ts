/** Start of image, the first two bytes. */
const SOI = 0xffd8
/** Frames that a PDF can show: baseline, extended and progressive, packed by Huffman's way (ISO 32000-1, 7.4.8). */
const FRAMES: ReadonlySet<number> = new Set([0xffc0, 0xffc1, 0xffc2])
/** Segments that may stand before the frame: tables, restart intervals, what programs note (APPn) and comments. */
const isBefore = (marker: number) =>
  marker === 0xffc4 ||
  marker === 0xffdb ||
  marker === 0xffdd ||
  marker === 0xfffe ||
  (marker & 0xfff0) === 0xffe0
/** Where a frame says its samples’ bits, its height, width and number of components, behind its marker; and how long it is with each of them. */
const FRAME = { bits: 4, height: 5, width: 7, components: 9, least: 8, perComponent: 3 }
const COMPONENTS: ReadonlySet<number> = new Set([1, 3, 4])

/**
 * Whether a JPEG (ITU-T T.81) is built as one as far as whatever sets it reads: segment by segment up to a frame that says of what size and
 * kind it is. What is drawn behind that is not looked at: every program shows as much of it as there is.
 */
export function isWholeJpeg(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 2 || view.getUint16(0) !== SOI) return false
  for (let at = 2; at + 4 <= bytes.length;) {
    const [marker, length] = [view.getUint16(at), view.getUint16(at + 2)]
    if (at + 2 + length > bytes.length) return false
    if (FRAMES.has(marker)) return isShownFrame(view, at, length)
    if (!isBefore(marker) || length < 2) return false
    at += 2 + length
  }
  return false
}

function isShownFrame(view: DataView, at: number, length: number): boolean {
  if (length < FRAME.least) return false
  const components = view.getUint8(at + FRAME.components)
  const isSized = view.getUint16(at + FRAME.height) > 0 && view.getUint16(at + FRAME.width) > 0
  const isLong = length >= FRAME.least + FRAME.perComponent * components
  return view.getUint8(at + FRAME.bits) === 8 && isSized && isLong && COMPONENTS.has(components)
}
