import fc from 'fast-check'
import { expect, it } from 'vitest'
import { applyEdits } from '../form/edits'
import { Form } from '../form/definition'
import { TODAY } from '../../tests/support/states'
import { example, section, text } from './checks/exampleForms'
import { prove } from './prove'

const GOOD = Form.parse({
  ...example(
    section('request', [text('reason', { privateTo: 'surveyor' })], {
      routes: [{ when: 'reason = "none"', to: 'estimate' }],
    }),
    section('damage', [text('where')]),
    section('estimate', [text('total')]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'surveyor', name: 'Surveyor' },
  ],
  turns: [
    {
      code: 'asking',
      party: 'owner',
      by: 'link',
      access: { request: 'fills', damage: 'fills' },
      handOff: [{ to: 'estimating' }],
    },
    {
      code: 'estimating',
      party: 'surveyor',
      by: { person: 'surveyor@wherry.example' },
      access: { request: 'reads', damage: 'reads', reason: 'fills', estimate: 'fills' },
    },
  ],
})

/** Where names of parties, sections and turns stand, each said anew by what is given. */
const NAMES: readonly ((written: string, by: string) => string)[] = [
  (form, by) => form.replace('"privateTo":"surveyor"', `"privateTo":"${by}"`),
  (form, by) => form.replace('"to":"estimate"', `"to":"${by}"`),
  (form, by) => form.replace('"party":"surveyor"', `"party":"${by}"`),
  (form, by) => form.replace('"to":"estimating"', `"to":"${by}"`),
  (form, by) => form.replace('"estimate":"fills"', `"${by}":"fills"`),
]
const NAMED = ['surveyor', 'estimate', 'surveyor', 'estimating', 'estimate']
const codesOf = (form: Form) => prove(form, TODAY).findings.map(f => `${f.severity} ${f.code} ${f.address}`)

it('is mended where a party, a section or a turn is mistyped in one letter', () => {
  const before = codesOf(GOOD)
  expect(before.filter(f => f.startsWith('fault'))).toEqual([])
  fc.assert(
    fc.property(fc.nat(NAMES.length - 1), fc.nat(7), fc.constantFrom('q', 'xx', ''), (which, at, typed) => {
      const name = NAMED[which] ?? ''
      const place = Math.min(at, name.length - 1)
      const wrong = `${name.slice(0, place)}${typed}${name.slice(place + 1)}`
      const form = Form.parse(JSON.parse(NAMES[which]?.(JSON.stringify(GOOD), wrong) ?? ''))
      const found = prove(form, TODAY).findings.filter(f => f.sentence.includes(`“${wrong}”`) && f.mend)
      expect(found.length).toBeGreaterThan(0)
      expect(codesOf(applyEdits(form, found[0]?.mend?.edits ?? []).form)).toEqual(before)
    }),
    { numRuns: 60 },
  )
})
