import fc from 'fast-check'
import { expect, it } from 'vitest'
import { smallForm } from '../../tests/support/forms'
import { RUNS, states, TODAY } from '../../tests/support/states'
import { Inquiry } from './goals/inquiry'
import { prove } from './prove'

it('what never comes into play has a finding of its own, or stands behind one and only one', () => {
  fc.assert(
    fc.property(smallForm, form => {
      const inquiry = new Inquiry(form, TODAY)
      const seen = new Set<string>()
      for (const { section, state } of states(form, inquiry))
        for (const place of inquiry.model.plan.places)
          if (place.section === section && state.inPlay[place.order]) seen.add(place.address)
      const { findings } = prove(form, TODAY)
      const folded = findings.flatMap(f => f.folded.map(p => p.address))
      expect(folded.filter(address => seen.has(address))).toEqual([])
      expect(new Set(folded).size).toBe(folded.length)
      const told = new Set([...folded, ...findings.map(f => f.address)])
      const untold = inquiry.model.plan.places.filter(p => !seen.has(p.address) && !told.has(p.address))
      expect(untold.map(p => p.code)).toEqual([])
    }),
    { numRuns: Math.ceil(RUNS / 5) },
  )
})
