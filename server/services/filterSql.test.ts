import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { answersTo, askedOf, condition, questionsOf, smallForm } from '../../tests/support/forms'
import { TODAY } from '../../tests/support/states'
import { compile } from '../../core/expressions/compile'
import { BOOLEAN } from '../../core/expressions/types'
import { answersInPlay, fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import type { Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import { formOf, openTestStore, question, type TestStore } from '../testing/testStore'
import { filterSql, NotAsked } from './filterSql'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 120_000)
afterAll(() => store.end())

const END = (plan: Plan) => ({ section: plan.form.sections.length - 1, groups: [], entryOf: null })

/** Which of some stored answers a condition is true of, as the database says. */
async function askedOfSql(plan: Plan, text: string, stored: readonly Answers[]): Promise<number[]> {
  const where = filterSql(plan, text, code => sql`(r.answers -> ${code}::text)`, TODAY)
  const rows = sql`jsonb_array_elements(${JSON.stringify(stored)}::jsonb) with ordinality as r(answers, i)`
  const found = await store.db
    .select({ i: sql<string>`r.i` })
    .from(rows)
    .where(sql`${where} is true`)
  return found.map(r => Number(r.i) - 1).sort((a, b) => a - b)
}

/** The same by the engine. */
function askedOfEngine(plan: Plan, text: string, stored: readonly Answers[]): number[] {
  const { expr } = plan.names.read(text, END(plan), BOOLEAN)
  if (!expr) throw new Error(`The condition can’t be read: ${text}`)
  const run = compile(expr, plan.environment)
  return stored.flatMap((answers, i) => (run(fill(plan, answers, TODAY).values) === true ? [i] : []))
}

/** Stored answers of a form, drawn by numbers. */
function storedBy(plan: Plan, form: Form, draws: readonly number[]): Answers[] {
  return draws.map(draw => {
    let left = draw
    const given = questionsOf(form).flatMap(q => {
      const answers = answersTo(q)
      const at = left % (answers.length + 1)
      left = Math.floor(left / (answers.length + 1))
      const answer = answers[at]
      return answer === undefined ? [] : [[q.code, answer] as const]
    })
    return answersInPlay(fill(plan, Object.fromEntries(given), TODAY))
  })
}

it('the database finds the responses that the engine finds, whatever is asked', async () => {
  const tally = { asked: 0, refused: 0, found: 0 }
  await fc.assert(
    fc.asyncProperty(
      smallForm.chain(form => fc.tuple(fc.constant(form), condition(askedOf(form)))),
      fc.array(fc.nat(1_000_000), { minLength: 12, maxLength: 12 }),
      async ([form, text], draws) => {
        const plan = planOf(form)
        const stored = storedBy(plan, form, draws)
        try {
          const found = await askedOfSql(plan, text, stored)
          tally.asked += 1
          tally.found += found.length
          expect([text, found]).toEqual([text, askedOfEngine(plan, text, stored)])
        } catch (error) {
          if (!(error instanceof NotAsked)) throw error
          tally.refused += 1
        }
      },
    ),
    { numRuns: 400 },
  )
  // What random conditions calculate beyond that, is refused.
  expect(tally.asked).toBeGreaterThan(0.4 * (tally.asked + tally.refused))
  expect(tally.found).toBeGreaterThan(100)
})

it('hostile text stays text, and answers of another shape are blank', async () => {
  const plan = planOf(formOf([question('a'), question('n', { type: 'integer' })]))
  const hostile = "x' or 1=1; drop table responses; --"
  const stored: Answers[] = [
    { a: hostile },
    { a: 'x', n: 'no number' },
    { a: { other: 1 }, n: 5 },
    { n: [1] },
  ]
  expect(await askedOfSql(plan, `a = ${JSON.stringify(hostile)}`, stored)).toEqual([0])
  expect(await askedOfSql(plan, `contains(a, "' or")`, stored)).toEqual([0])
  expect(await askedOfSql(plan, 'n > 1', stored)).toEqual([2])
  expect(await askedOfSql(plan, 'n + 1 > 2 and string length(a) > 1', stored)).toEqual([2])
  expect(await askedOfSql(plan, 'n = null', stored)).toEqual([0, 1, 3])
  expect(() => filterSql(plan, 'n / 2 > 2', () => sql`''`, TODAY)).toThrow(/can’t be filtered by this part/)
  expect(() => filterSql(plan, 'b = 1', () => sql`''`, TODAY)).toThrow(NotAsked)
  expect(() => filterSql(plan, 'n >', () => sql`''`, TODAY)).toThrow(NotAsked)
})
