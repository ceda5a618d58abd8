import fc from 'fast-check'
import { expect, it } from 'vitest'
import { smallForm } from '../../tests/support/forms'
import { TODAY } from '../../tests/support/states'
import { applyEdits } from '../form/edits'
import type { Form } from '../form/definition'
import { listPlaces, placeName } from '../form/walk'
import { findAcceptance, riskKey } from './acceptance'
import { acceptanceBasis, sayWhyFallen } from './acceptanceChanges'
import { example, section, text, whole } from './checks/exampleForms'
import type { Finding } from './finding'
import { prove } from './prove'

const acceptedOf = (form: Form, finding: Finding) => ({
  key: riskKey(finding),
  basis: acceptanceBasis(form, finding),
  reason: 'For now.',
  by: 'Ines',
  at: TODAY,
})

const boat = (label: string, more: string, others: Form['sections'] = []): Form =>
  example(...others, section('a', [whole('h', { label }), text('high', { shownWhen: `h > 0 or ${more}` })]))

function riskOf(form: Form): Finding {
  const risk = prove(form, TODAY).findings.find(f => f.severity === 'risk')
  if (!risk) throw new Error('There is no risk to accept.')
  return risk
}

it('falls away when a rule changes, not when words do, and its reason is kept', () => {
  const form = boat('Height', 'h <= 0')
  const risk = riskOf(form)
  const accepted = acceptedOf(form, risk)
  expect(findAcceptance(boat('Height above deck', 'h <= 0'), risk, [accepted])?.stands).toBe(true)
  expect(findAcceptance(boat('Height', 'h <= 1'), risk, [accepted])).toEqual({ accepted, stands: false })
})

it('that fell away says what changed, what came in and what went, by name', () => {
  const form = boat('Height', 'h <= 0')
  const risk = riskOf(form)
  const why = (other: Form, basis = acceptanceBasis(form, risk)) => sayWhyFallen(other, risk, { basis })
  expect(why(boat('Height', 'h <= 1'))).toBe('Since then “High” changed: it has to be looked at again.')
  const crew = section('crew', [whole('heads', { label: 'Heads on board' })])
  const longer = boat('Height', 'heads > 3', [crew])
  expect(why(longer)).toBe(
    'Since then “High” and where things stand changed; it came to rest on “Crew” and “Heads on board” too: it has to be looked at again.',
  )
  expect(sayWhyFallen(form, risk, { basis: acceptanceBasis(longer, risk) })).toContain(
    'it ceased to rest on “crew” and “heads”',
  )
  // What was kept before parts were told apart is a digest alone.
  expect(why(longer, 'f'.repeat(16))).toContain('something that it rests on changed')
})

it('that fell away names the place that was edited', () => {
  let fallen = 0
  fc.assert(
    fc.property(smallForm, fc.nat(), fc.nat(), (form, from, to) => {
      const places = listPlaces(form)
      const [finding, edited] = [places[from % places.length], places[to % places.length]]
      if (!finding || !edited || 'shownWhen' in edited.node) return
      const accepted = { basis: acceptanceBasis(form, finding) }
      const set = { shownWhen: 'true' }
      const { form: changed } = applyEdits(form, [{ do: 'change', what: edited.address, set }])
      if (acceptanceBasis(changed, finding) === accepted.basis) return
      fallen += 1
      expect(sayWhyFallen(changed, finding, accepted)).toContain(`“${placeName(edited)}” changed`)
    }),
  )
  expect(fallen).toBeGreaterThan(0)
})
