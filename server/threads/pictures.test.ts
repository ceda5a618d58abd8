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
    { numRuns: 40 },
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
