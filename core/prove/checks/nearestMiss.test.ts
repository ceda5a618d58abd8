import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { askedOf, condition, smallForm } from '../../../tests/support/forms'
import { RUNS, states, TODAY } from '../../../tests/support/states'
import { compile } from '../../expressions/compile'
import type { Compiled } from '../../expressions/compiled'
import type { Expr } from '../../expressions/tree'
import { fill } from '../../fill/fill'
import { isTaken } from '../../fill/wayOut'
import type { Form } from '../../form/definition'
import { Inquiry } from '../goals/inquiry'
import { findingsOf } from './check'
import { neverShown } from './neverShown'

/** A form with a note at its end that shows when all of some conditions are true. */
const withNote = (form: Form, rules: readonly string[]): Form => ({
  ...form,
  sections: form.sections.map((s, i) => {
    if (i < form.sections.length - 1) return s
    const shownWhen = rules.map(rule => `(${rule})`).join(' and ')
    return { ...s, items: [...s.items, { kind: 'note' as const, code: 'noted', text: 'Noted.', shownWhen }] }
  }),
})
const noted: fc.Arbitrary<Form> = smallForm.chain(form =>
  fc.array(condition(askedOf(form), 1), { minLength: 2, maxLength: 4 }).map(rules => withNote(form, rules)),
)
const partsOf = (expr: Expr): Expr[] => (expr.kind === 'and' ? expr.parts.flatMap(partsOf) : [expr])

/** The most of some conditions that are true together where the note would show; -1 where nothing leads there. */
function mostTrue(form: Form, inquiry: Inquiry, runs: readonly Compiled[]): number {
  const over = inquiry.model.plan.sections.at(-1)?.all.find(s => s.place.code === 'noted')?.skips ?? []
  let most = -1
  for (const { section, state } of states(form, inquiry)) {
    if (section !== form.sections.length - 1 || over.some(skip => isTaken(skip, state))) continue
    most = Math.max(most, runs.filter(run => run(state.values) === true).length)
  }
  return most
}

describe('the nearest miss', () => {
  it('makes the most parts of the rule true that answers can, and marks one that is not', () => {
    let looked = 0
    fc.assert(
      fc.property(noted, form => {
        const inquiry = new Inquiry(form, TODAY)
        const found = findingsOf(neverShown, inquiry).find(f => f.at === 'noted')
        const { plan } = inquiry.model
        const rule = inquiry.model.rules.find(r => r.place.code === 'noted' && r.kind === 'shownWhen')
        const parts = rule?.expr ? partsOf(rule.expr) : []
        if (!found?.witness || !rule || parts.length > 6) return
        looked += 1
        const runs = parts.map(part => compile(part, plan.environment))
        const most = mostTrue(form, inquiry, runs)
        // Where a skip always passes over it, nothing leads to where it would show.
        if (most < 0) return
        const shown = fill(plan, found.witness, TODAY)
        expect(shown.path).toContain(form.sections.length - 1)
        expect(runs.filter(run => run(shown.values) === true)).toHaveLength(most)
        // What is marked is the first part that is not true.
        const first = runs.findIndex(run => run(shown.values) !== true)
        expect(found.marked?.from).toBe(parts[first]?.from)
        expect(found.marked?.text).toBe(rule.text)
      }),
      { numRuns: Math.ceil(RUNS / 5) },
    )
    expect(looked).toBeGreaterThan(RUNS * 0.01)
  })
})
