import { LIMITS } from '#core/form/limits'

/** How large pictures are kept, in pixels. */
interface Room {
  width: number
  height: number
}

/** Of how good a quality it is tried, until the picture is small enough. */
const QUALITIES = [0.9, 0.75, 0.5, 0.3]

/**
 * A picture from a file as text (RFC 2397), made as small as it has to be.
 * @throws Error with a sentence where the file is no picture, or stays too large
 */
export async function shrinkPicture(file: File, room: Room): Promise<string> {
  const bitmap = await readBitmap(file)
  const share = Math.min(1, room.width / bitmap.width, room.height / bitmap.height)
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * share))
  canvas.height = Math.max(1, Math.round(bitmap.height * share))
  const drawing = canvas.getContext('2d')
  if (!drawing) throw new Error('This browser can’t draw pictures.')
  drawing.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  const found = QUALITIES.map(quality => canvas.toDataURL('image/webp', quality)).find(
    text => text.length <= LIMITS.pictureText,
  )
  if (found === undefined) throw new Error(`“${file.name}” stays too large, however it is pressed.`)
  return found
}

async function readBitmap(file: File): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(file)
  } catch (cause) {
    throw new Error(`“${file.name}” is no picture that this browser can read.`, { cause })
  }
}
