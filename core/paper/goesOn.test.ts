import fc from 'fast-check'
import { expect, it } from 'vitest'
import { smallForm } from '../../tests/support/forms'
import { states, TODAY } from '../../tests/support/states'
import { listPlaces } from '../form/walk'
import { Inquiry } from '../prove/goals/inquiry'
import { isAskedOnPaper, placeAfter } from './goesOn'

it('what paper passes over is asked of nobody who gives that answer', () => {
  let passed = 0
  fc.assert(
    fc.property(smallForm, form => {
      const places = listPlaces(form)
      const asked = places.filter(p => p.kind === 'question')
      const inquiry = new Inquiry(form, TODAY)
      for (const { state, section } of states(form, inquiry))
        for (const place of asked) {
          const given = state.values[inquiry.model.plan.byCode.get(place.code)?.slot ?? -1]
          const isBox =
            typeof given === 'boolean' || (place.node.type === 'choice' && typeof given === 'string')
          if (!isBox || state.inPlay[place.order] !== true || place.section !== section) continue
          const after = places.slice(place.order + 1)
          const next = placeAfter(place, given, after, places)
          if (next === null) continue
          const end = next === 'end' ? after.length : after.indexOf(next)
          const between = after.slice(0, end).filter(isAskedOnPaper)
          passed += between.length
          expect(between.filter(p => state.inPlay[p.order]).map(p => p.code)).toEqual([])
        }
    }),
    { numRuns: 150 },
  )
  expect(passed).toBeGreaterThan(20)
})
