import { readFileSync } from 'node:fs'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import fc from 'fast-check'
import type { Form } from '../../core/form/definition'
import { applyEdits, type Edit } from '../../core/form/edits'
import type { Finding } from '../../core/prove/finding'
import { prove } from '../../core/prove/prove'
import { smallForm } from '../../tests/support/forms'
import type { ProveAnswer, ProveMessage } from './prove.worker'

const TODAY = '2026-11-24'
let hear: (message: ProveMessage) => void = () => undefined
const said: ProveAnswer[] = []
/** Lets everything that waits in line have its turn, until nothing more is said. */
async function settle() {
  let quiet = 0
  while (quiet < 5) {
    const before = said.length
    await new Promise(setImmediate)
    quiet = said.length === before ? quiet + 1 : 0
  }
}

beforeEach(async () => {
  said.length = 0
  vi.stubGlobal('addEventListener', (_: string, listener: (event: { data: ProveMessage }) => void) => {
    hear = data => listener({ data })
  })
  vi.stubGlobal('postMessage', (answer: ProveAnswer) => said.push(answer))
  vi.resetModules()
  await import('./prove.worker')
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

let asked = 0
const someRules = fc.array(fc.constantFrom('true', 'false', 'q0 = null'), { minLength: 1, maxLength: 4 })
const editsOf = (rule: string): Edit[] => [
  { do: 'change', what: 'item/q0', set: { label: rule } },
  { do: 'change', what: 'section/s0', set: { shownWhen: rule === 'q0 = null' ? null : rule } },
]
/** Two smallest sets of rules keep `q3` from being shown: the one around it is the reason, whichever was met first. */
const twoReasons: Form = JSON.parse(
  readFileSync(new URL('../../tests/fixtures/twoReasons.json', import.meta.url), 'utf8'),
)
const brief = (f: Finding) => [f.code, f.address]

describe('the worker that proves while somebody writes', () => {
  it('says of the newest state what a proof from nothing says of it, however many were asked for before', async () => {
    await fc.assert(
      fc.asyncProperty(smallForm, someRules, async (form, rules) => {
        const asks = rules.map(editsOf)
        said.length = 0
        hear({ asked: ++asked, form, today: TODAY })
        for (const edits of asks) hear({ asked: ++asked, edits, today: TODAY })
        await settle()
        const last = said.filter(a => a.asked === asked)
        // On a busy machine what is known so far is said before the whole.
        expect(last.map(a => [a.isWhole, a.error])).toEqual(last.map((_, i) => [i === last.length - 1, null]))
        const whole = last.at(-1)
        const now = asks.reduce((before, edits) => applyEdits(before, edits).form, form)
        expect(whole?.verdict?.findings.map(brief)).toEqual(prove(now, TODAY).findings.map(brief))
        // What was overtaken is not said after what overtook it.
        const overtaken = said.findLastIndex(a => a.asked < asked)
        expect(overtaken).toBeLessThan(said.findIndex(a => a.asked === asked))
      }),
      { numRuns: 30, examples: [[twoReasons, ['true']]] },
    )
  })

  it('rests while it is asked to, then goes on by itself', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] })
    const form = fc.sample(smallForm, 1)[0]!
    hear({ rest: 150 })
    hear({ asked: 1, form, today: TODAY })
    await settle()
    expect(said).toEqual([])
    vi.advanceTimersByTime(100)
    hear({ rest: 150 })
    vi.advanceTimersByTime(60)
    await settle()
    expect(said).toEqual([])
    vi.advanceTimersByTime(200)
    await settle()
    expect([said.at(-1)?.asked, said.at(-1)?.isWhole]).toEqual([1, true])
  })

  it('says so when a form can’t be proved, and still answers the next', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const form = fc.sample(smallForm, 1)[0]!
    hear({ asked: 1, form: { ...form, sections: null } as never, today: TODAY })
    await settle()
    expect(said.at(-1)?.error).toMatch(/^The prover failed: /)
    expect(logged).toHaveBeenCalledOnce()
    hear({ asked: 2, form, today: TODAY })
    await settle()
    expect([said.at(-1)?.asked, said.at(-1)?.error]).toEqual([2, null])
  })
})
