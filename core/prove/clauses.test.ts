import fc from 'fast-check'
import { expect, it } from 'vitest'
import { askedOf, condition, smallForm } from '../../tests/support/forms'
import { RUNS, states, TODAY } from '../../tests/support/states'
import { compile } from '../expressions/compile'
import { namesIn } from '../expressions/tree'
import { BOOLEAN } from '../expressions/types'
import { allProblems } from '../fill/fill'
import type { Form } from '../form/definition'
import { standpointAtEnd } from '../form/scope'
import { CHECKS } from './checks'
import { findingsOf } from './checks/check'
import { Inquiry } from './goals/inquiry'

/** A form with a document in which clauses of some conditions follow each other. */
const withClauses = (form: Form, conditions: readonly string[]): Form => ({
  ...form,
  documents: [
    {
      ...{ code: 'letter', title: 'Letter', on: 'done', fileName: 'Letter' },
      template: {
        ...{ file: '00000000-0000-4000-8000-000000000000', name: 'letter.docx', bytes: 1 },
        tags: conditions.flatMap(source => [
          { is: 'when' as const, source, words: '' },
          { is: 'end' as const, of: 'when' as const, words: '' },
        ]),
      },
    },
  ],
})

const COMPARED = new Set(['clause-never', 'clause-both', 'clause-neither'])

it('clauses that are never printed, both or neither: as all answers show that are tried', () => {
  const forms = smallForm.chain(form =>
    fc.tuple(fc.constant(form), condition(askedOf(form)), condition(askedOf(form))),
  )
  fc.assert(
    fc.property(forms, ([bare, one, other]) => {
      const inquiry = new Inquiry(withClauses(bare, [one, other]), TODAY)
      const { plan } = inquiry.model
      const [a, b] = [one, other].map(text => plan.names.read(text, standpointAtEnd(plan.form), BOOLEAN).expr)
      fc.pre(a !== null && b !== null && a !== undefined && b !== undefined)
      const printed = new Set<string>()
      for (const { state, section } of states(plan.form, inquiry)) {
        if (section !== state.path.at(-1) || allProblems(state).length > 0) continue
        const [isA, isB] = [a, b].map(expr => compile(expr, plan.environment)(state.values) === true)
        printed.add(`${isA} ${isB}`)
      }
      const has = (isA: string, isB: string) => [...printed].some(p => new RegExp(`^${isA} ${isB}$`).test(p))
      const isAlike = namesIn(a).length > 0 && named(a) === named(b)
      const expected = [
        ...(has('true', '.*') ? [] : ['clause-never']),
        ...(has('.*', 'true') ? [] : ['clause-never']),
        ...(isAlike && has('true', 'true') ? ['clause-both'] : []),
        ...(isAlike && has('false', 'false') ? ['clause-neither'] : []),
      ]
      const found = CHECKS.flatMap(check => findingsOf(check, inquiry)).map(f => f.code)
      expect(found.filter(code => COMPARED.has(code)).sort()).toEqual(expected.sort())
    }),
    { numRuns: Math.ceil(RUNS / 10) },
  )
})

const named = (expr: Parameters<typeof namesIn>[0]) => [...new Set(namesIn(expr))].sort().join(' ')
