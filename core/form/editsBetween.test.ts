import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { acts, stepsOf } from '../../tests/support/formEdits'
import { richForm } from '../../tests/support/richForms'
import type { Form } from './definition'
import { describeEdits } from './describeEdits'
import { applyEdits, type Edit } from './edits'
import { editsBetween } from './editsBetween'

const seed = fc.integer({ min: 1, max: 1e6 })
const after = (form: Form, edits: readonly Edit[]) => applyEdits(form, edits).form

describe('edits between two states of a form', () => {
  it('make the one of the other, whatever was done, with no more edits than it took', () => {
    let told = 0
    fc.assert(
      fc.property(seed, acts, (seed, numbers) => {
        const before = richForm(seed)
        const steps = stepsOf(before, numbers)
        const wanted = after(before, steps.flat())
        const edits = editsBetween(before, wanted)
        expect(after(before, edits)).toEqual(wanted)
        expect(describeEdits(before, edits).length > 0).toBe(edits.length > 0)
        if (edits.some(e => e.do === 'replace')) return
        told += 1
        const [only, ...more] = steps.flat()
        // Under another code it is another thing.
        const isRenamed = only?.do === 'change' && 'code' in only.set
        if (only && more.length === 0 && !isRenamed) expect(edits.length).toBeLessThanOrEqual(1)
      }),
      { numRuns: 300 },
    )
    expect(told).toBeGreaterThan(250)
  })

  it('make any form of any other, and nothing of one that is the same', () => {
    fc.assert(
      fc.property(seed, seed, (one, other) => {
        const [before, wanted] = [richForm(one), richForm(other)]
        expect(after(before, editsBetween(before, wanted))).toEqual(wanted)
        expect(editsBetween(before, structuredClone(before))).toEqual([])
      }),
      { numRuns: 100 },
    )
  })
})

describe('edits between two states of a form', () => {
  it('move as few as can be: the longest run in order stays', () => {
    const items = (codes: readonly string[]): Form => ({
      ...{ tobbin: 2, code: 'f', title: 'F' },
      sections: [
        {
          ...{ code: 's', title: 'S' },
          items: codes.map(code => ({ kind: 'note', code, text: code })),
        },
      ],
    })
    const codes = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { minLength: 2, maxLength: 8 })
    fc.assert(
      fc.property(codes, fc.infiniteStream(fc.nat()), (codes, picks) => {
        const shuffled = codes
          .map(code => [picks.next().value ?? 0, code] as const)
          .sort((a, b) => a[0] - b[0])
          .map(([, code]) => code)
        const edits = editsBetween(items(codes), items(shuffled))
        // What stays in order is found by trying all parts.
        const parts = Array.from({ length: 2 ** codes.length }, (_, n) =>
          codes.filter((_, i) => n & (2 ** i)),
        )
        const staying = parts.filter(part => {
          const there = shuffled.filter(code => part.includes(code))
          return there.every((code, i) => code === part[i])
        })
        const longest = Math.max(...staying.map(part => part.length))
        expect(edits.map(e => e.do)).toEqual(Array.from({ length: codes.length - longest }, () => 'move'))
      }),
    )
  })
})
