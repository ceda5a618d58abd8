import { imageSize } from 'image-size'
import { DRAWN_ON } from '../fill/drawnSignature'
import { isFile, type FileAnswer } from '../fill/readers'
import type { Frame } from '../fill/frame'
import { isRecord } from '../form/answers'
import { isWholeJpeg } from './wholeJpeg'
import { isWholePng } from './wholePng'

/** A picture of an answer: its bytes, of a kind that every program shows, and its size in points. */
export interface AnswerPicture {
  type: 'png' | 'jpg'
  bytes: Uint8Array
  width: number
  height: number
}

/** How the pictures of answers are come by: a drawn signature, by its path; a file, by the id under which it is kept. Null where there is none. */
export interface PictureSource {
  drawn: (path: string) => Uint8Array | null
  file: (id: string) => Uint8Array | null
}
export const NO_PICTURES: PictureSource = { drawn: () => null, file: () => null }

/** How wide a drawn signature is printed, in points. */
const DRAWN_WIDTH = 150
/** Points of a pixel, of which an inch has 96; and how large a picture is printed at most. */
const POINTS = 0.75
const WIDEST = 450
const HIGHEST = 320

/** The pictures that an answer is, where its question is answered by files or by a signature; null where it is to be said in words. */
export function picturesOf(frame: Frame, code: string, source: PictureSource): AnswerPicture[] | null {
  const question = frame.plan.byCode.get(code)
  const given = question ? frame.given.get(question.slot) : undefined
  if (!question || given === undefined || given === null) return null
  const { type } = question.place.node
  if (type === 'signature') {
    const drawing = isRecord(given) && typeof given.drawn === 'string' ? source.drawn(given.drawn) : null
    return drawing ? [drawnPicture(drawing)] : null
  }
  if (type !== 'file') return null
  const pictures = [given]
    .flat()
    .filter((answer): answer is FileAnswer => isFile(answer))
    .map(({ file }) => pictureOf(source.file(file)))
  const whole = pictures.filter(p => p !== null)
  // Where one of them is no picture, all are told by their names: none is left out unseen.
  return whole.length === pictures.length && whole.length > 0 ? whole : null
}

/** A drawn signature as a picture, as large as it is printed. */
export const drawnPicture = (png: Uint8Array): AnswerPicture => ({
  ...{ type: 'png', bytes: png },
  width: DRAWN_WIDTH,
  height: (DRAWN_WIDTH * DRAWN_ON.height) / DRAWN_ON.width,
})

/** A file as a picture, as large as it fits; null for anything that is no PNG or JPEG, or no whole one. */
export function pictureOf(bytes: Uint8Array | null): AnswerPicture | null {
  if (!bytes) return null
  const size = sizeOf(bytes)
  if (!size || (size.type !== 'png' && size.type !== 'jpg')) return null
  if (size.type === 'png' && !isWholePng(bytes)) return null
  if (size.type === 'jpg' && !isWholeJpeg(bytes)) return null
  const [width, height] = [size.width * POINTS, size.height * POINTS]
  const scale = Math.min(1, WIDEST / width, HIGHEST / height)
  return { type: size.type, bytes, width: width * scale, height: height * scale }
}

/** The size that a picture tells of itself; null for what is no picture, or a damaged one. */
function sizeOf(bytes: Uint8Array) {
  try {
    const size = imageSize(bytes)
    return size.width > 0 && size.height > 0 ? size : null
  } catch {
    return null
  }
}
