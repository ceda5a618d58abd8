import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { smallForm } from '../../../tests/support/forms'
import type { Form } from '../../form/definition'
import { Inquiry } from '../goals/inquiry'
import { CHECKS } from '.'
import { findingsOf, type Check } from './check'
import { sortByNeeds } from './sortByNeeds'

const TODAY = '2026-11-24'
const shuffled = fc.shuffledSubarray([...CHECKS], { minLength: CHECKS.length })
const withNeeds = CHECKS.filter(c => (c.needs ?? []).length > 0)
const run = (checks: readonly Check[], form: Form) => {
  const inquiry = new Inquiry(form, TODAY)
  return checks.flatMap(c => findingsOf(c, inquiry).map(f => `${f.code} ${f.at} ${f.rule}`)).sort()
}

describe('what checks need of each other', () => {
  it('orders them: however they are listed, each comes after those that it needs', () => {
    fc.assert(
      fc.property(shuffled, checks => {
        const sorted = sortByNeeds(checks)
        expect(new Set(sorted)).toEqual(new Set(CHECKS))
        const at = new Map(sorted.map((c, i) => [c.code, i] as const))
        for (const check of withNeeds)
          for (const need of check.needs ?? []) expect(at.get(need)).toBeLessThan(at.get(check.code) ?? -1)
      }),
    )
    expect(withNeeds.length).toBeGreaterThan(3)
  })

  it('is all that their order decides: any listing finds the same', () => {
    fc.assert(
      fc.property(smallForm, shuffled, (form, checks) => {
        expect(run(sortByNeeds(checks), form)).toEqual(run(CHECKS, form))
      }),
      { numRuns: 150 },
    )
  })

  it('is said, and no more than that: a check without what it needs stops the proof', () => {
    const stopped = withNeeds.filter(({ needs: _, ...silent }) =>
      CHECKS.some(({ raises }) => {
        try {
          // A fresh inquiry: what another check has worked out would stand in for the read.
          findingsOf(silent, new Inquiry(raises, TODAY))
          return false
        } catch {
          return true
        }
      }),
    )
    expect(stopped.map(c => c.code)).toEqual(withNeeds.map(c => c.code))
  })

  it('can’t go round, nor name what there is not', () => {
    const [one, other] = withNeeds
    if (!one || !other) throw new Error('No check needs another.')
    const round = [
      { ...one, needs: [other.code] },
      { ...other, needs: [one.code] },
    ]
    expect(() => sortByNeeds(round)).toThrow('need each other')
    expect(() => sortByNeeds([{ ...one, needs: ['nothing'] }])).toThrow('which there is not')
  })
})
