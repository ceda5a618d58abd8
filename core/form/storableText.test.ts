import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { withStorableTexts } from './storableText'

/** Texts of any code units, halves of pairs and NUL among them. */
const unit = fc.oneof(fc.constantFrom(0, 0xd800, 0xdc00, 0xdbff, 0xdfff, 0x41), fc.nat(0xffff))
const anyText = fc.array(unit, { maxLength: 8 }).map(units => String.fromCharCode(...units))

describe('texts that can be stored', () => {
  it('are what UTF-8 gives back, without NUL, wherever they stand', () => {
    // An independent reading: encoders put U+FFFD for what is no text.
    const expected = (text: string) =>
      new TextDecoder().decode(new TextEncoder().encode(text)).replaceAll('\0', '')
    fc.assert(
      fc.property(anyText, anyText, (a, b) => {
        // A byte order mark at the beginning is dropped by the decoder alone.
        fc.pre(!a.startsWith('\uFEFF') && !b.startsWith('\uFEFF'))
        fc.pre(!a.replaceAll('\0', '').startsWith('\uFEFF') && !b.replaceAll('\0', '').startsWith('\uFEFF'))
        expect(withStorableTexts({ x: [a, { [`k${b}`]: b }], n: 1, t: null })).toEqual({
          x: [expected(a), { [`k${expected(b)}`]: expected(b) }],
          n: 1,
          t: null,
        })
      }),
    )
  })

  it('stay the same object where nothing is to be done', () => {
    fc.assert(
      fc.property(fc.jsonValue({ stringUnit: 'grapheme' }), value => {
        fc.pre(!JSON.stringify(value).includes('\\u0000'))
        expect(withStorableTexts(value)).toBe(value)
      }),
    )
  })
})
