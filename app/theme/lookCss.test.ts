import { expect, test } from 'vitest'
import { contrastOf, LEAST_CONTRAST, USUAL_GROUND } from '#core/form/colours'
import { lookCss } from './lookCss'
import { PALETTE } from './palette'

test('what is measured against is the ground that pages have, and a faint accent is brought to where it is read', () => {
  expect(USUAL_GROUND).toBe(PALETTE.light.linen.toLowerCase())
  const css = lookCss({ accent: '#8fd0c4' })
  const accents = [...css.matchAll(/--verdigris:(#[0-9a-f]{6})/g)].map(([, colour = '']) => colour)
  const [light = '', dark = ''] = [...new Set(accents)]
  expect(contrastOf(light, PALETTE.light.linen)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
  expect(contrastOf(dark, PALETTE.dark.linen)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
})
