import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Opening } from '../../core/form/opening'
import type { Form } from '../../core/form/definition'
import { openings } from '../store/schema'
import { byLink, formOf, openTestStore, question, releaseNew, type TestStore } from '../testing/testStore'
import { countStep, loadPageSteps } from './pageSteps'
import { loadRespondentPage } from './respondentPage'
import { respondentPageKey } from './respondentPageKey'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
})
afterAll(() => store.end())

const CODES = ['a', 'b', 'c'] as const
const FORM: Form = {
  ...formOf([]),
  sections: CODES.map(code => ({ code, title: code.toUpperCase(), items: [question(`q_${code}`)] })),
}

describe('how far people come', () => {
  it('is counted page by page: who reached one and did not go on has stopped there', async () => {
    const { db } = store
    const far = fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 2_000 })), {
      maxLength: 8,
    })
    await fc.assert(
      fc.asyncProperty(far, async fillings => {
        const { id, token } = await releaseNew(store, FORM)
        for (const [pages, seconds] of fillings)
          for (const [i, from] of [null, ...CODES].entries()) {
            if (i > pages) break
            const step = { from, to: CODES[i] ?? null, seconds: i === 0 ? 0 : seconds }
            expect(await countStep(db, byLink(token), step)).toBe(true)
          }
        const { pages } = await loadPageSteps(db, id, 0)
        const most = Math.max(-1, ...fillings.map(([reached]) => reached))
        expect(pages.map(p => p.code)).toEqual(CODES.slice(0, most + 1))
        for (const [i, { reached, left, times }] of pages.entries()) {
          expect(reached).toBe(fillings.filter(([last]) => last >= i).length)
          const went = fillings.filter(([last]) => last > i)
          expect(left).toBe(went.length)
          const within = [15, 60, 180, 600, Infinity].map(
            (limit, at, all) => went.filter(([, s]) => s < limit && s >= (all[at - 1] ?? 0)).length,
          )
          expect(times).toEqual(within)
        }
      }),
      { numRuns: 12 },
    )
  })

  it('is not counted where the form does not want it, of turns, of what it does not have, nor where there is no link', async () => {
    const { db } = store
    const { id, token } = await releaseNew(store, FORM)
    const step = (to: string | null, from: string | null = null) =>
      countStep(db, byLink(token), { from, to, seconds: 1 })
    expect(await countStep(db, byLink('/f/nowhere_at_all'), { from: null, to: 'a', seconds: 0 })).toBe(false)
    await step('no_such_section', 'nor_this')
    expect((await loadPageSteps(db, id, 0)).pages).toEqual([])
    const before = await respondentPageKey(db, token.replace('/f/', ''))
    expect((await loadRespondentPage(db, byLink(token))).countsPages).toBe(true)
    await db
      .update(openings)
      .set({ settings: Opening.parse({ countsPages: false }) })
      .where(eq(openings.formId, id))
    expect((await loadRespondentPage(db, byLink(token))).countsPages).toBe(false)
    // A page that was drawn before is drawn anew.
    expect(await respondentPageKey(db, token.replace('/f/', ''))).not.toBe(before)
    expect(await step('a')).toBe(false)
    expect((await loadPageSteps(db, id, 0)).pages).toEqual([])
  })
})
