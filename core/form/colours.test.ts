import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { contrastOf, inkOn, LEAST_CONTRAST, readableOn } from './colours'

const colour = fc.integer({ min: 0, max: 0xffffff }).map(n => `#${n.toString(16).padStart(6, '0')}`)

describe('colours', () => {
  test('contrast is that of the standard’s examples', () => {
    expect(contrastOf('#000000', '#ffffff')).toBe(21)
    expect(contrastOf('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
    expect(contrastOf('#767676', '#ffffff')).toBeCloseTo(4.54, 2)
  })
  test('ink is read on any ground, and any colour can be made so; what is read stays', () => {
    fc.assert(
      fc.property(colour, colour, (a, ground) => {
        expect(contrastOf(inkOn(ground), ground)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
        const found = readableOn(a, ground)
        expect(contrastOf(found, ground)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
        if (contrastOf(a, ground) >= LEAST_CONTRAST) expect(found).toBe(a)
        expect(contrastOf(a, ground)).toBe(contrastOf(ground, a))
      }),
    )
  })
})
