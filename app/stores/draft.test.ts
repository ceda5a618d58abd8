import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Edit } from '#core/form/edits'
import { listPlaces } from '#core/form/walk'
import { beginAfresh, copy, person, question, Server, START } from '../testing/stores'

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

beforeEach(beginAfresh)
afterEach(() => {
  vi.useRealTimers()
})

describe('a draft is undone and redone', () => {
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
          expect([copy(draft.form), server.form]).toEqual([end, end])
          expect([draft.future.length, draft.save.kind]).toEqual([0, 'saved'])
        },
      ),
      { numRuns: 150 },
    )
  })
})

describe('a draft of two people', () => {
  it('ends the same for both and on the server, in whatever order they save and look', async () => {
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
})

describe('what two people change at once', () => {
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
        offer: { words: 'Take theirs', edit: label('Hull')[0], otherwise: 'Keep mine' },
      },
    ])
    expect(server.form.sections[0]?.items.map(i => 'label' in i && i.label)).toEqual(['Keel', 'c'])
    // What was taken away meanwhile is said, and comes back with what was written there.
    ines.draft.edit([{ do: 'change', what: 'item/b', set: { help: 'Lost?' } }])
    await ines.does(d => d.flush())
    expect(ines.draft.clashes.map(c => c.sentence)).toEqual([
      'Caspar deleted “b” while it was being written in here.',
      'Caspar changed the label of a right after you: yours was “Hull”, theirs “Keel” stands.',
    ])
    expect(copy(ines.draft.form)).toEqual(server.form)
    await ines.does(async d => {
      for (const { offer } of d.clashes) if (offer) d.edit([offer.edit])
      await d.flush()
    })
    expect(server.form.sections[0]?.items).toMatchObject([
      { code: 'a', label: 'Hull' },
      { code: 'b', help: 'Lost?' },
      { code: 'c' },
    ])
  })
})

describe('undo', () => {
  it('leaves what somebody else has set since, whatever one’s own steps were', async () => {
    const theirs = fc.tuple(named, fc.constantFrom('label', 'help'))
    await fc.assert(
      fc.asyncProperty(
        fc.array(edit('own'), { minLength: 1, maxLength: 8 }),
        fc.array(theirs, { minLength: 1, maxLength: 4 }),
        async (own, set) => {
          const server = new Server(START)
          const [ines, caspar] = [await person(server, 'Ines'), await person(server, 'Caspar')]
          await ines.does(d => (own.forEach(e => d.edit([e])), d.flush()))
          const made = await caspar.does(async d => {
            await d.look()
            const done = set.filter(([code, key]) =>
              d.edit([{ do: 'change', what: `item/${code}`, set: { [key]: 'theirs' } }]),
            )
            await d.flush()
            return done
          })
          await ines.does(async d => {
            await d.look()
            while (d.past.length > 0) d.undo()
            await d.flush()
          })
          for (const [code, key] of made)
            expect(listPlaces(server.form).find(p => p.code === code)?.node).toHaveProperty(key, 'theirs')
        },
      ),
      { numRuns: 100 },
    )
  })
})

describe('undo after a reload', () => {
  it('takes back only what is one’s own', async () => {
    const server = new Server(START)
    const [ines, caspar] = [await person(server, 'Ines'), await person(server, 'Caspar')]
    const set = (what: 'a' | 'b', values: Record<string, string>): Edit[] => [
      { do: 'change', what: `item/${what}`, set: values },
    ]
    await ines.does(async d => {
      d.edit(set('a', { label: 'Hull', help: 'Below' }))
      d.edit([{ do: 'insert', into: 'section/s', at: 0, node: question('new') }])
      d.edit(set('b', { label: 'Mast' }))
      await d.flush()
    })
    await caspar.does(async d => {
      await d.look()
      d.edit([{ do: 'change', what: 'item/new', set: { help: 'Mine' } }])
      d.edit(set('a', { label: 'Keel' }))
      await d.flush()
    })
    await ines.does(d => d.look())
    await ines.reload()
    await ines.does(async d => {
      while (d.past.length > 0) d.undo()
      await d.flush()
    })
    const [added, a, b] = server.form.sections[0]?.items ?? []
    expect([added, a, b]).toMatchObject([
      { code: 'new', help: 'Mine' },
      { code: 'a', label: 'Keel' },
      { code: 'b', label: 'b' },
    ])
    expect(a).not.toHaveProperty('help')
  })
})

describe('a draft', () => {
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
