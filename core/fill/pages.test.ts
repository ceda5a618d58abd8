import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANSWERS, askedOf, smallForm } from '../../tests/support/forms'
import type { Answers } from '../form/answers'
import type { Form } from '../form/definition'
import { fill, problemsIn } from './fill'
import { pageOfProblem, pagesOf, problemsOnPage } from './pages'
import { planOf } from './plan'

const TODAY = '2026-11-24'
/** A form with one question at a time. */
const paced = smallForm.map((form): Form => ({ ...form, pace: 'question' }))
function answersTo(form: Form): fc.Arbitrary<Answers> {
  const given = askedOf(form).filter(q => ANSWERS[q.kind].length > 0)
  return fc.record(Object.fromEntries(given.map(q => [q.code, fc.constantFrom(...ANSWERS[q.kind])])))
}

describe('the problems of a page', () => {
  it('are together those of its section, each on one page that is on the way', () => {
    fc.assert(
      fc.property(
        paced.chain(form => answersTo(form).map(answers => ({ form, answers }))),
        ({ form, answers }) => {
          const filled = fill(planOf(form), answers, TODAY)
          const pages = pagesOf(filled)
          const onPages = pages.flatMap(page => problemsOnPage(filled, page))
          const sections = [...new Set(pages.map(p => p.section))]
          const ofSections = sections.flatMap(i => problemsIn(filled, filled.plan.sections[i]!))
          expect(onPages.map(p => p.path).sort()).toEqual(ofSections.map(p => p.path).sort())
          for (const problem of onPages) expect(pages).toContainEqual(pageOfProblem(filled, problem))
        },
      ),
      { numRuns: 800 },
    )
  })

  it('of a failing check of the section are told where the section ends, one question at a time', () => {
    const whole = (code: string) =>
      ({ kind: 'question', type: 'integer', code, label: code, min: 0, max: 9 }) as const
    const form: Form = {
      tobbin: 2,
      code: 'f',
      title: 'F',
      pace: 'question',
      sections: [
        {
          code: 's',
          title: 'S',
          items: [whole('a'), whole('b')],
          validWhen: [{ rule: 'b > a', message: 'B is to be more than A.' }],
        },
      ],
    }
    const filled = fill(planOf(form), { a: 5, b: 3 }, TODAY)
    const [first, last] = pagesOf(filled)
    expect(problemsOnPage(filled, first!)).toEqual([])
    expect(problemsOnPage(filled, last!).map(p => p.sentence)).toEqual(['B is to be more than A.'])
  })
})
