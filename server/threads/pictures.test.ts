import { encode } from 'fast-png'
import fc from 'fast-check'
import { zlibSync } from 'fflate'
import { expect, it } from 'vitest'
import { isWholePng } from '../../core/documents/wholePng'
import { pictureOf } from '../../core/documents/pictures'
import { makePdf } from './makePdf'

const picture = fc
  .record({
    width: fc.integer({ min: 1, max: 9 }),
    height: fc.integer({ min: 1, max: 9 }),
    channels: fc.constantFrom(1, 2, 3, 4),
    isDeep: fc.boolean(),
    shade: fc.nat(255),
  })
  .map(({ width, height, channels, isDeep, shade }) => {
    const size = width * height * channels
    const data = isDeep ? new Uint16Array(size).fill(shade * 257) : new Uint8Array(size).fill(shade)
    return new Uint8Array(encode({ width, height, channels, data, depth: isDeep ? 16 : 8 }))
  })

/** The head of a JPEG, and something behind it: what its frame says is read, what is drawn is not. */
const photo = fc
  .record({
    ...{ width: fc.integer({ min: 1, max: 900 }), height: fc.integer({ min: 1, max: 900 }) },
    ...{ components: fc.constantFrom(1, 3, 4), frame: fc.constantFrom(0xc0, 0xc1, 0xc2) },
    note: fc.uint8Array({ maxLength: 20 }),
  })
  .map(({ width, height, components, frame, note }) => {
    const sized = [8, height >> 8, height & 255, width >> 8, width & 255, components]
    const each = Array.from({ length: components }, (_, i) => [i + 1, 0x11, 0]).flat()
    const segments = [
      ...[0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0],
      ...[0xff, 0xfe, 0, 2 + note.length, ...note],
      ...[0xff, frame, 0, 8 + 3 * components, ...sized, ...each],
      ...[0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9],
    ]
    return Uint8Array.from([0xff, 0xd8, ...segments])
  })

/** Where the length of the note stands; where the frame begins, but for that length; and where that says its number of components. */
const NOTE_LENGTH_AT = 2 + 18 + 3
const FRAME_AT = 2 + 18 + 2
const COMPONENTS_AT = 9

/** A response of one file as a PDF. */
const paperOf = (bytes: Uint8Array) => {
  const line = { code: 'photo', path: 'photo', label: 'Photo', state: 'answered' as const, text: 'p.png' }
  const more = { isRich: false, section: 0, heading: null, entry: null, type: 'file' as const, drawn: null }
  const files = [{ file: 'id', name: 'p.png', bytes: bytes.length }]
  const copies = [{ title: 'Photo', about: '', lines: [{ ...line, ...more, files }] }]
  return makePdf({ copies, pictures: [{ id: 'id', bytes }] })
}
const pdfSays = (pdf: Uint8Array, words: string) => Buffer.from(pdf).includes(words)

it('a picture stands in the PDF of a response; a damaged one does not, and stops nothing', async () => {
  await fc.assert(
    fc.asyncProperty(picture, fc.nat(400), fc.nat(255), async (whole, at, byte) => {
      expect(isWholePng(whole)).toBe(true)
      expect(pdfSays(await paperOf(whole), '/Subtype /Image')).toBe(true)
      const damaged = Uint8Array.from(whole)
      damaged[8 + (at % (whole.length - 8))] = byte
      const isShown = pictureOf(damaged) !== null
      expect(pdfSays(await paperOf(damaged), '/Subtype /Image')).toBe(isShown)
    }),
    { numRuns: 25 },
  )
})

it('a photograph stands in it, too; one whose head is damaged or cut off is told by its name', async () => {
  const isShown = async (bytes: Uint8Array) => pdfSays(await paperOf(bytes), '/Subtype /Image')
  const other = fc.constantFrom(0, 2, 5, 255)
  await fc.assert(
    fc.asyncProperty(photo, fc.nat(90), fc.nat(255), other, async (whole, at, byte, components) => {
      expect(await isShown(whole)).toBe(true)
      const damaged = Uint8Array.from(whole)
      damaged[at % whole.length] = byte
      expect(await isShown(damaged)).toBe(pictureOf(damaged) !== null)
      // Behind what is noted, which says how long it is, stands the frame.
      const frame = FRAME_AT + (whole[NOTE_LENGTH_AT] ?? 0)
      const odd = Uint8Array.from(whole)
      odd[frame + COMPONENTS_AT] = components
      expect(await isShown(odd)).toBe(false)
      expect(await isShown(whole.slice(0, frame + COMPONENTS_AT))).toBe(false)
    }),
    { numRuns: 25 },
  )
})

it('a picture that unpacks to more than it says is none', () => {
  const small = encode({ width: 2, height: 2, channels: 4, depth: 8, data: new Uint8Array(16) })
  const at = Buffer.from(small).indexOf('IDAT') - 4
  const packed = zlibSync(new Uint8Array(40_000_000))
  const length = Buffer.alloc(4)
  length.writeUInt32BE(packed.length)
  const bomb = Buffer.concat([
    small.subarray(0, at),
    length,
    Buffer.from('IDAT'),
    packed,
    Buffer.alloc(4),
    small.subarray(-12),
  ])
  expect(isWholePng(new Uint8Array(bomb))).toBe(false)
})
