import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openTestStore, type TestStore } from '../testing/testStore'
import { describeForLog, refusalOfStore } from './storeErrors'

let store: TestStore
beforeAll(async () => {
  store = await openTestStore()
}, 60_000)
afterAll(() => store.end())

const failing = async (query: ReturnType<typeof sql>): Promise<unknown> => {
  try {
    await store.db.execute(query)
  } catch (error) {
    return error
  }
  throw new Error('The query did not fail.')
}

describe('an error of the store', () => {
  it('is logged without what stood in the query or in the rows', async () => {
    const secret = 'MAGENTA-4711'
    const errors = [
      await failing(sql`select ${secret}::uuid`),
      await failing(sql`insert into users (email, name) values (${'ines@wherry.example'}, ${secret})`),
      await failing(sql`select nothing from nowhere where x = ${secret}`),
    ]
    for (const error of errors) {
      const line = describeForLog(error)
      expect(line).toMatch(/^A query failed \(\w{5}\): /)
      expect(line).not.toContain(secret)
      expect(line).not.toContain('ines@wherry.example')
      expect(refusalOfStore(error)).toBeNull()
    }
  })

  it('says what to do when the store is away, too slow or full', () => {
    const caused = (code: string) =>
      new Error('Failed query', { cause: Object.assign(new Error('x'), { code }) })
    const statuses = ['ECONNREFUSED', '57P01', '08006', '57014', '53100', 'ENOSPC', '23505', '22P02'].map(
      code => refusalOfStore(caused(code))?.status ?? null,
    )
    expect(statuses).toEqual([503, 503, 503, 503, 507, 507, null, null])
    expect(refusalOfStore(new Error('Connection terminated unexpectedly'))?.status).toBe(503)
  })
})
