import fc from 'fast-check'
import { expect, it } from 'vitest'
import { questionsOf, smallForm } from '../../tests/support/forms'
import { RUNS, states, TODAY } from '../../tests/support/states'
import { namesIn } from '../expressions/tree'
import { offeredNow, type Filled } from '../fill/fill'
import type { PlannedQuestion } from '../fill/planned'
import type { Form } from '../form/definition'
import { limitedIn, mapOptions, withoutOffer } from '../form/places'
import { findingsOf } from './checks/check'
import { mayRunOut } from './checks/mayRunOut'
import { Inquiry } from './goals/inquiry'

/** A form in which some options can run out. */
function limited(form: Form, draws: readonly boolean[]): Form {
  let next = 0
  return mapOptions(form, (_, option) => (draws[next++ % draws.length] ? { ...option, places: 2 } : option))
}

/** Whether a state leaves nothing that can’t run out, where all that decides on it is answered. */
function isStuck(state: Filled, question: PlannedQuestion): boolean {
  const { place, slot, offer } = question
  if (state.inPlay[place.order] !== true || state.required[slot] !== true) return false
  const parents = (offer?.rules ?? []).flatMap(rule => (rule?.expr ? namesIn(rule.expr) : []))
  const isOpen = (name: string) => {
    const parent = state.plan.byCode.get(name)
    return parent && state.inPlay[parent.place.order] === true && (state.values[parent.slot] ?? null) === null
  }
  if (parents.some(isOpen)) return false
  const { node } = place
  const lasting = (offer?.rows.size ?? 0) - limitedIn(node).length
  if (lasting < (node.type === 'choices' ? (node.least ?? 1) : 1)) return true
  return offeredNow(state, question)?.size === 0
}

it('finds a required choice that may run out just where some answers lead to one', () => {
  let found = 0
  fc.assert(
    fc.property(smallForm, fc.array(fc.boolean(), { minLength: 3, maxLength: 7 }), (small, draws) => {
      const form = limited(small, draws)
      const inquiry = new Inquiry(form, TODAY)
      const findings = findingsOf(mayRunOut, inquiry)
      for (const { code } of questionsOf(form)) {
        const own = findings.find(f => f.at === code)
        if (own?.code === 'undecided') continue
        const without = mapOptions(form, (of, option) =>
          of === code && option.places !== undefined ? withoutOffer(option) : option,
        )
        const other = new Inquiry(without, TODAY)
        const question = other.model.stepOf(code)
        if (!question || limitedIn(question.place.node).length === 0) continue
        const shown = [...states(without, other)].some(
          ({ state, section }) => question.place.section <= section && isStuck(state, question),
        )
        if (shown) found += 1
        expect({ code, isFound: own !== undefined }).toEqual({ code, isFound: shown })
      }
    }),
    { numRuns: Math.ceil(RUNS / 5) },
  )
  expect(found).toBeGreaterThan(0)
})
