import fc from 'fast-check'
import { expect, it } from 'vitest'
import { ANSWERS, askedOf, smallForm } from '../../tests/support/forms'
import type { Answers } from '../form/answers'
import type { Form } from '../form/definition'
import { fill } from './fill'
import { rangeOfPages } from './pageRange'
import { pagesOf } from './pages'
import { planOf } from './plan'

const TODAY = '2026-11-24'
const answersTo = (form: Form): fc.Arbitrary<Answers> => {
  const given = askedOf(form).filter(q => ANSWERS[q.kind].length > 0)
  const each = given.map(q => [q.code, fc.option(fc.constantFrom(...ANSWERS[q.kind]))])
  return fc.record(Object.fromEntries(each))
}

it('a response comes to have at least and at most so many pages, whatever is answered of what is still open', () => {
  let narrow = 0
  fc.assert(
    fc.property(
      fc.tuple(smallForm, fc.boolean()).chain(([small, isPaced]) => {
        const form: Form = isPaced ? { ...small, pace: 'question' } : small
        return fc.tuple(fc.constant(form), answersTo(form), answersTo(form), fc.nat())
      }),
      ([form, before, after, where]) => {
        const plan = planOf(form)
        const filled = fill(plan, before, TODAY)
        const pages = pagesOf(filled)
        if (pages.length === 0) return
        const at = where % pages.length
        const page = pages[at]!
        const here = page.only ?? plan.sections[page.section]?.place.order ?? 0
        const range = rangeOfPages(filled, pages, at)
        const isSaid = (code: string) => {
          const { slot = -1, place } = plan.byCode.get(code) ?? {}
          return (place?.order ?? 0) < here || (filled.values[slot] ?? null) !== null
        }
        const given = [...Object.keys(before), ...Object.keys(after)].map(
          code => [code, (isSaid(code) ? before : after)[code] ?? null] as const,
        )
        const count = pagesOf(fill(plan, Object.fromEntries(given), TODAY)).length
        expect(range.least).toBeLessThanOrEqual(count)
        expect(range.most).toBeGreaterThanOrEqual(count)
        if (range.least === range.most) narrow += 1
      },
    ),
    { numRuns: 1_500 },
  )
  // Bounds that never meet would say nothing.
  expect(narrow).toBeGreaterThan(200)
})
