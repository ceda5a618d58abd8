import fc from 'fast-check'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref, shallowRef, watch } from 'vue'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import type { Form, Item } from '#core/form/definition'
import { allProblems } from '#core/fill/fill'
import { prove } from '#core/prove/prove'
import { refusalOf } from '../composables/useRefusal'
import { useDraft } from './draft'
import { dayHere, useRehearsal } from './rehearsal'

// What the application brings into every file by itself.
for (const [name, value] of Object.entries({ ref, computed, shallowRef, watch, refusalOf }))
  vi.stubGlobal(name, value)

const question = (code: string, more: Record<string, unknown> = {}) =>
  ({ kind: 'question', type: 'text', code, label: code, ...more }) as Item
const START: Form = {
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [
    { code: 's', title: 'S', items: ['a', 'b', 'c'].map(c => question(c)) },
    { code: 't', title: 'T', items: [question('d')] },
  ],
}
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** A server that keeps one form, as the routes of the application do. */
class Server {
  form: Form
  saves: { revision: number; edits: Edit[]; by: string }[] = []
  isReachable = true
  constructor(form: Form) {
    this.form = copy(form)
  }

  /** What `$fetch` is for somebody who is signed in by a name. */
  fetchFor =
    (by: string) =>
    (
      url: string,
      options: { method?: string; body?: { base: number; edits: Edit[] }; query?: { since: number } } = {},
    ): Promise<unknown> => {
      if (!this.isReachable) return Promise.reject(new TypeError('fetch failed'))
      const refused = (code: string, sentence: string) =>
        Promise.reject(
          Object.assign(new Error(sentence), { status: 409, data: { data: { code, sentence } } }),
        )
      if (url.endsWith('/edits')) {
        const { base = -1, edits = [] } = options.body ?? {}
        if (base !== this.saves.length) return refused('outdated', 'Somebody else changed this form.')
        try {
          this.form = applyEdits(this.form, copy(edits)).form
        } catch (error) {
          if (error instanceof EditError) return refused('edit-impossible', error.message)
          throw error
        }
        this.saves.push({ revision: base + 1, edits: copy(edits), by })
        return Promise.resolve({ revision: base + 1, savedAt: '2026-11-24T10:42:00Z' })
      }
      if (url.endsWith('/changes')) return Promise.resolve(copy(this.saves.slice(options.query?.since ?? 0)))
      return Promise.resolve({
        id: 'x',
        draft: copy(this.form),
        revision: this.saves.length,
        savedAt: '2026-11-24T10:40:00Z',
        releases: [],
        responses: 0,
        accepted: [],
      })
    }
}

/** Somebody at a draft: `does` what follows with that person's connection. */
async function person(server: Server, by: string) {
  const pinia = createPinia()
  const does = async <T>(what: (draft: ReturnType<typeof useDraft>) => T | Promise<T>): Promise<T> => {
    vi.stubGlobal('$fetch', server.fetchFor(by))
    return what(useDraft(pinia))
  }
  await does(draft => draft.load('x'))
  return { draft: useDraft(pinia), does }
}

beforeEach(() => {
  vi.useFakeTimers({ now: new Date('2026-11-24T10:00:00') })
  setActivePinia(createPinia())
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  })
})
afterEach(() => {
  vi.useRealTimers()
})

const named = fc.constantFrom('a', 'b', 'c', 'd')
const edit = (who: string): fc.Arbitrary<Edit> =>
  fc.oneof(
    fc
      .tuple(named, fc.nat(9))
      .map(([code, n]): Edit => ({ do: 'change', what: `item/${code}`, set: { label: `${who} ${n}` } })),
    named.map((code): Edit => ({ do: 'change', what: `item/${code}`, set: { help: who } })),
    named.map((code): Edit => ({ do: 'remove', what: `item/${code}` })),
    fc
      .tuple(named, fc.constantFrom('section/s' as const, 'section/t' as const), fc.nat(3))
      .map(([code, into, at]): Edit => ({ do: 'move', what: `item/${code}`, into, at })),
    fc
      .tuple(fc.nat(3), fc.nat(1_000_000))
      .map(([at, n]): Edit => ({ do: 'insert', into: 'section/t', at, node: question(`${who}${n}`) })),
  )

describe('the draft', () => {
  it('undone to the beginning and redone to the end is the same definition, on the server as well', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(edit('own'), { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 10 }),
        async steps => {
          const server = new Server(START)
          const { draft, does } = await person(server, 'Ines')
          for (const edits of steps) {
            const before = copy(draft.form)
            if (!draft.edit(edits))
              expect([copy(draft.form), draft.refused]).toEqual([before, expect.any(String)])
          }
          const [end, made] = [copy(draft.form), draft.past.length]
          await does(d => d.flush())
          expect(server.form).toEqual(end)
          for (let i = 0; i < made; i++) draft.undo()
          await does(d => d.flush())
          expect([copy(draft.form), server.form, draft.past.length]).toEqual([START, START, 0])
          for (let i = 0; i < made; i++) draft.redo()
          await does(d => d.flush())
          expect([copy(draft.form), server.form, draft.future.length, draft.save.kind]).toEqual([
            end,
            end,
            0,
            'saved',
          ])
        },
      ),
      { numRuns: 150 },
    )
  })

  it('of two people ends the same for both and on the server, in whatever order they save and look', async () => {
    const act = fc.record({
      who: fc.constantFrom(0, 1),
      what: fc.oneof(
        edit('x').map(e => [e]),
        fc.constantFrom('flush' as const, 'look' as const, 'undo' as const, 'redo' as const),
      ),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 2, maxLength: 25 }), async acts => {
        const server = new Server(START)
        const both = [await person(server, 'Ines'), await person(server, 'Caspar')]
        for (const { who, what } of acts) {
          await both[who]!.does(async draft => {
            if (Array.isArray(what)) draft.edit(what)
            else await draft[what]()
          })
        }
        for (let round = 0; round < 3; round++)
          for (const { does } of both) await does(async d => (await d.flush(), await d.look()))
        const [ines, caspar] = both.map(p => copy(p.draft.form))
        expect(ines).toEqual(server.form)
        expect(caspar).toEqual(server.form)
        expect(both.map(p => p.draft.unsaved())).toEqual([false, false])
      }),
      { numRuns: 200 },
    )
  })

  it('says where two changed the same, keeps the own and offers the other', async () => {
    const server = new Server(START)
    const [ines, caspar] = [await person(server, 'Ines'), await person(server, 'Caspar')]
    const label = (value: string): Edit[] => [{ do: 'change', what: 'item/a', set: { label: value } }]
    ines.draft.edit(label('Hull'))
    caspar.draft.edit(label('Keel'))
    caspar.draft.edit([{ do: 'remove', what: 'item/b' }])
    await ines.does(d => d.flush())
    await caspar.does(d => d.flush())
    expect(caspar.draft.clashes).toEqual([
      {
        sentence: 'Ines changed the label of a at the same time: theirs was “Hull”, yours “Keel” stands.',
        theirs: label('Hull')[0],
      },
    ])
    expect(server.form.sections[0]?.items.map(i => 'label' in i && i.label)).toEqual(['Keel', 'c'])
    // What was taken away meanwhile is said with what was written there.
    ines.draft.edit([{ do: 'change', what: 'item/b', set: { help: 'Lost?' } }])
    await ines.does(d => d.flush())
    expect(ines.draft.clashes[0]?.sentence).toMatch(
      /^Caspar changed the same place; your change could not be made: .*\(help: Lost\?\)$/,
    )
    expect(copy(ines.draft.form)).toEqual(server.form)
  })

  it('loses nothing while the server can’t be reached, and saves by itself once it can', async () => {
    const server = new Server(START)
    const { draft, does } = await person(server, 'Ines')
    server.isReachable = false
    await does(async d => {
      d.edit([{ do: 'change', what: 'item/a', set: { label: 'Hull' } }])
      await d.flush()
      expect(d.save).toMatchObject({ kind: 'failed', refusal: { code: 'unreachable' } })
      d.edit([{ do: 'change', what: 'item/b', set: { label: 'Mast' } }])
      server.isReachable = true
      await vi.advanceTimersByTimeAsync(5_000)
    })
    expect([draft.save.kind, draft.unsaved(), server.form]).toEqual(['saved', false, copy(draft.form)])
  })

  it('typing in one field is one step back; selecting by stretch and one by one', async () => {
    const { draft } = await person(new Server(START), 'Ines')
    for (const label of ['H', 'Hu', 'Hull']) {
      vi.advanceTimersByTime(300)
      draft.edit([{ do: 'change', what: 'item/a', set: { label } }], 'item/a label')
    }
    vi.advanceTimersByTime(5_000)
    draft.edit([{ do: 'change', what: 'item/a', set: { label: 'Hull no.' } }], 'item/a label')
    draft.undo()
    expect(draft.places.find(p => p.code === 'a')?.node).toMatchObject({ label: 'Hull' })
    draft.undo()
    expect(copy(draft.form)).toEqual(START)
    draft.select('item/a')
    draft.select('item/c', 'stretch')
    expect(draft.selection).toEqual(['item/a', 'item/b', 'item/c'])
    draft.select('item/b', 'toggle')
    expect([draft.selection, draft.selected]).toEqual([['item/a', 'item/c'], 'item/b'])
  })
})

describe('the rehearsal', () => {
  const form: Form = {
    tobbin: 2,
    code: 'f',
    title: 'F',
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          question('age', { type: 'integer', required: true, min: 0 }),
          question('school', { shownWhen: 'age < 18', required: true }),
        ],
      },
      {
        code: 't',
        title: 'T',
        items: [
          question('born', { type: 'date' }),
          {
            kind: 'note',
            code: 'old',
            text: 'Old',
            shownWhen: 'years and months duration(born, today()).years > 17 and age < 18',
          },
        ],
      },
    ],
    promises: [
      {
        code: 'p',
        text: 'Nobody is grown up and a child',
        holds: 'not(years and months duration(born, today()).years > 17 and age < 18)',
      },
    ],
  }
  const begin = async () => {
    vi.stubGlobal('$fetch', new Server(form).fetchFor('Ines'))
    await useDraft().load('x')
    const rehearsal = useRehearsal()
    rehearsal.restore()
    return rehearsal
  }

  it('keeps practice answers through edits and reloads, by name as well', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 12)
    rehearsal.answer('school', 'Reach School')
    rehearsal.saveSet('A child')
    useDraft().edit([{ do: 'change', what: 'item/school', set: { shownWhen: 'age < 10' } }])
    expect([rehearsal.answers, rehearsal.filled?.values.includes('Reach School')]).toEqual([
      { age: 12, school: 'Reach School' },
      false,
    ])
    useDraft().undo()
    expect(rehearsal.filled?.values).toContain('Reach School')
    rehearsal.startAfresh()
    rehearsal.saveSet('Nobody')
    setActivePinia(createPinia())
    const again = await begin()
    expect([again.answers, again.sets.map(s => s.name)]).toEqual([{}, ['A child', 'Nobody']])
    again.openSet('A child')
    again.removeSet('Nobody')
    expect([again.answers, again.sets.map(s => s.name)]).toEqual([
      { age: 12, school: 'Reach School' },
      ['A child'],
    ])
    localStorage.setItem('tobbin-practice-x', '{nonsense')
    localStorage.setItem('tobbin-sets-x', '{nonsense')
    again.restore()
    expect([again.answers, again.sets]).toEqual([{}, []])
  })

  it('fills the rest so that nothing is missing, and leaves what is answered', async () => {
    const rehearsal = await begin()
    rehearsal.answer('age', 9)
    expect(rehearsal.fillRest()).toBe(true)
    expect([rehearsal.answers.age, rehearsal.filled && allProblems(rehearsal.filled)]).toEqual([9, []])
  })

  it('shows a witness at its section, on its day, with the rules concerned; answering goes on from there', async () => {
    const rehearsal = await begin()
    const finding = prove(form, dayHere()).findings.find(f => f.code === 'promise-broken')
    if (!finding) throw new Error('The promise holds.')
    rehearsal.show({ ...finding, address: 'item/old', today: '2027-01-31' })
    expect([rehearsal.place.section, rehearsal.lit, rehearsal.today, rehearsal.answers]).toEqual([
      1,
      'item/old',
      '2027-01-31',
      finding.witness,
    ])
    // A promise stands nowhere: the questions that it names are concerned.
    expect([...rehearsal.concerned]).toEqual(['item/born', 'item/age'])
    rehearsal.startAfresh()
    expect([rehearsal.place.section, rehearsal.lit, rehearsal.today, rehearsal.concerned.size]).toEqual([
      0,
      null,
      dayHere(),
      0,
    ])
  })
})
