import { LIMITS } from '#core/form/limits'

/** A picture of a template: its address with the bytes in it (RFC 2397), and its size in points. */
export interface TemplatePicture {
  src: string
  width: number
  height: number
}

/** Pixels that are kept at most, and points that a picture is printed wide at most. */
const PIXELS = 1_200
const WIDEST = 450
const POINTS = 0.75
const WAYS = [
  ['image/png', 1],
  ['image/jpeg', 0.9],
  ['image/jpeg', 0.6],
] as const

/**
 * A picture from a file, made as small as a template takes it.
 * @throws Error with a sentence where the file is no picture, or stays too large
 */
export async function readTemplatePicture(file: File): Promise<TemplatePicture> {
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) throw new Error(`“${file.name}” is no picture that this browser can read.`)
  const share = Math.min(1, PIXELS / bitmap.width, PIXELS / bitmap.height)
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * share))
  canvas.height = Math.max(1, Math.round(bitmap.height * share))
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('This browser can’t draw pictures.')
  pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  const scale = Math.min(POINTS, WIDEST / bitmap.width, HIGHEST / bitmap.height)
  const size = { width: Math.max(5, bitmap.width * scale), height: Math.max(5, bitmap.height * scale) }
  bitmap.close()
  const src = WAYS.map(([type, quality]) => canvas.toDataURL(type, quality)).find(
    address => address.length <= LIMITS.writtenPicture,
  )
  if (src === undefined) throw new Error(`“${file.name}” stays too large, however it is pressed.`)
  return { src, ...size }
}
const HIGHEST = 600
