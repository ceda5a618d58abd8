import { describe, expect, it } from 'vitest'
import { createVuetify } from 'vuetify'
import { en } from 'vuetify/locale'
import { ownLocale } from './locale'

/** Every path to a text. */
const pathsIn = (branch: object, before = ''): string[] =>
  Object.entries(branch).flatMap(([key, value]) =>
    typeof value === 'string' ? [`${before}${key}`] : pathsIn(value, `${before}${key}.`),
  )

describe('the library’s texts', () => {
  it('are what its own adapter says', () => {
    const theirs = createVuetify({ locale: { locale: 'en', messages: { en } } }).locale
    const ours = ownLocale()
    const paths = pathsIn(en)
    expect(paths.length).toBeGreaterThan(50)
    for (const path of paths) {
      const key = `$vuetify.${path}`
      expect(ours.t(key, 3, 'b', 7)).toBe(theirs.t(key, 3, 'b', 7))
    }
    expect(ours.t('just {0}', 1)).toBe(theirs.t('just {0}', 1))
    expect(ours.n(12_345.5)).toBe(theirs.n(12_345.5))
  })
})
