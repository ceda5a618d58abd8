import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { TODAY } from '../../tests/support/states'
import { example, section, text } from './checks/exampleForms'
import { prove } from './prove'

type Limits = [number, number]
const asking = (
  rule: string,
  [a, b]: [Limits, Limits] = [
    [1, 40],
    [1, 40],
  ],
) =>
  example(
    section('who', [
      text('first', { minLength: a[0], maxLength: a[1] }),
      text('last', { minLength: b[0], maxLength: b[1] }),
      { kind: 'note', code: 'told', text: 'Told.', shownWhen: rule },
    ]),
  )
const said = (form: ReturnType<typeof asking>) => {
  const codes = prove(form, TODAY)
    .findings.filter(f => f.at === 'told')
    .map(f => f.code)
  if (codes.includes('undecided')) return 'undecided'
  return codes.includes('never-shown') ? 'never' : 'shown'
}

describe('texts that are made of several answers', () => {
  it('are found where a test of them names a text', () => {
    const rules = [
      'string join([first, last], " ") = "Ines Marlow"',
      'string join([first, last], " ") = "Ines"',
      'contains(string join([first, last], " "), "Marlow")',
      'starts with(string join([first, last]), "Mc")',
      'substring(first, -2) = "sa"',
    ]
    expect(rules.map(rule => said(asking(rule)))).toEqual(rules.map(() => 'shown'))
  })

  it('are of the lengths that their parts add up to, whatever those are', () => {
    const limits = fc
      .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 0, max: 9 }))
      .map(([least, more]): Limits => [least, least + more])
    fc.assert(
      fc.property(
        limits,
        limits,
        fc.constantFrom('<', '>'),
        fc.integer({ min: 0, max: 30 }),
        (a, b, op, n) => {
          // Nothing is answered yet, one of them is, or both are, with a blank between them.
          const least = [0, a[0], b[0], a[0] + b[0] + 1]
          const most = [0, a[1], b[1], a[1] + b[1] + 1]
          const isPossible = op === '<' ? Math.min(...least) < n : Math.max(...most) > n
          const rule = `string length(string join([first, last], " ")) ${op} ${n}`
          expect(said(asking(rule, [a, b]))).toBe(isPossible ? 'shown' : 'never')
        },
      ),
      { numRuns: 200 },
    )
  })

  it('add up to a length that is never called impossible where answers have it', () => {
    const length = fc.integer({ min: 1, max: 6 })
    fc.assert(
      fc.property(length, length, fc.integer({ min: 0, max: 14 }), (a, b, n) => {
        const form = asking(`string length(first) + string length(last) = ${n}`, [
          [1, a],
          [1, b],
        ])
        const isPossible = n >= 2 && n <= a + b
        expect(said(form)).not.toBe(isPossible ? 'never' : 'shown')
      }),
      { numRuns: 100 },
    )
  })
})
