import fc from 'fast-check'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { computed, ref, shallowRef } from 'vue'
import type { Answers } from '#core/form/answers'
import type { Form } from '#core/form/definition'
import { allProblems, fill, type Filled } from '#core/fill/fill'
import type { Page } from '#core/fill/pages'
import { planOf } from '#core/fill/plan'
import { ANSWERS, askedOf, smallForm } from '../../tests/support/forms'
import { usePagination } from './usePagination'

// What the application brings into every file by itself.
beforeAll(() => {
  vi.stubGlobal('computed', computed)
  vi.stubGlobal('ref', ref)
})

const TODAY = '2026-11-24'
const answersTo = (form: Form): fc.Arbitrary<Answers> =>
  fc.record(
    Object.fromEntries(
      askedOf(form)
        .filter(q => ANSWERS[q.kind].length > 0)
        .map(q => [q.code, fc.option(fc.constantFrom(...ANSWERS[q.kind]), { nil: null })]),
    ),
  )
const forms = fc
  .tuple(smallForm, fc.constantFrom('section', 'question'))
  .map(([form, pace]): Form => (pace === 'question' ? { ...form, pace: 'question' } : form))

function opened(filled: Filled) {
  const place = ref<Page>({ section: 0, only: null })
  const held = shallowRef<Filled | null>(filled)
  return { place, held, pagination: usePagination(held, place) }
}

describe('the way through a form page by page', () => {
  it('stays with errors exactly where the page has some, and comes to the end through every page once', () => {
    fc.assert(
      fc.property(
        forms.chain(form => answersTo(form).map(answers => fill(planOf(form), answers, TODAY))),
        filled => {
          const { pagination } = opened(filled)
          const visited = [pagination.at.value]
          let went = pagination.goOn()
          while (went === 'next') {
            visited.push(pagination.at.value)
            went = pagination.goOn()
          }
          expect(visited).toEqual(visited.map((_, i) => i))
          expect(went === 'stay').toBe(pagination.problems.value.length > 0)
          expect(pagination.tried.value).toBe(went === 'stay')
          if (went === 'end') expect(allProblems(filled)).toEqual([])
          if (allProblems(filled).length === 0) expect(visited).toHaveLength(pagination.pages.value.length)
        },
      ),
      { numRuns: 400 },
    )
  })

  it('an answer that takes the page off the way leads to one that is still on it; going back says no error', () => {
    fc.assert(
      fc.property(
        forms.chain(form => fc.tuple(fc.constant(form), answersTo(form), answersTo(form), fc.nat(20))),
        ([form, first, second, steps]) => {
          const plan = planOf(form)
          const { pagination, held, place } = opened(fill(plan, first, TODAY))
          for (let i = 0; i < steps; i++) pagination.goOn()
          held.value = fill(plan, second, TODAY)
          expect(pagination.page.value).toBe(pagination.pages.value[pagination.at.value])
          const [there, now] = [pagination.page.value, pagination.at.value]
          // Where nothing up to it is left on the way, the first page that is.
          const isFirst = there === pagination.pages.value[0]
          if (there && !isFirst) expect(there.section).toBeLessThanOrEqual(place.value.section)
          pagination.goBack()
          expect(pagination.tried.value).toBe(false)
          expect(pagination.at.value).toBeLessThanOrEqual(now)
        },
      ),
      { numRuns: 400 },
    )
  })

  it('has no page before a form is there', () => {
    const { pagination } = { pagination: usePagination(shallowRef(null), ref({ section: 0, only: null })) }
    expect(pagination.pages.value).toEqual([])
    expect(pagination.goOn()).toBe('end')
  })
})
