import fc from 'fast-check'
import { expect, it } from 'vitest'
import { defuseFormula, restoreFormula } from './formulas'

it('what is taken out is no formula, and comes back as it was', () => {
  const text = fc.tuple(fc.constantFrom('', "'", "''", '=', '+', '-', '@', '\t', '＝', "'="), fc.string())
  fc.assert(
    fc.property(text, ([first, rest]) => {
      const given = first + rest
      const written = defuseFormula(given)
      expect(written).not.toMatch(/^[=+\-@\t\r＝＋－＠]/)
      expect(restoreFormula(written)).toBe(given)
    }),
  )
})
