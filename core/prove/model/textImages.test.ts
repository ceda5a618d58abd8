import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compile } from '../../expressions/compile'
import { parse } from '../../expressions/parse'
import { planOf } from '../../fill/plan'
import { Form } from '../../form/definition'
import { prove } from '../prove'
import { isPieceTest, textClasses, textTestIn } from './textClasses'
import { outcomeOf } from './textAutomata'

/** Letters whose cases are several letters, or come from elsewhere, beside plain ones. */
const LETTERS = [
  'a',
  'A',
  'b',
  'B',
  's',
  'S',
  '1',
  ' ',
  'ß',
  'ſ',
  'ﬁ',
  'F',
  'I',
  'i',
  'İ',
  'ı',
  '\u212a',
  'k',
  'é',
  '😀',
  'ς',
]
const shortText = (maxLength: number) => fc.string({ unit: fc.constantFrom(...LETTERS), maxLength })
const made = fc
  .array(
    fc.oneof(
      fc.constantFrom('upper case(·)', 'lower case(·)'),
      fc.tuple(fc.nat(3), fc.nat(2)).map(([from, length]) => `substring(·, ${from + 1}, ${length})`),
      fc.nat(3).map(from => `substring(·, ${from + 1})`),
    ),
    { minLength: 1, maxLength: 3 },
  )
  .map(steps => steps.reduce((inner, step) => step.replace('·', inner), 'x'))
const condition = fc
  .tuple(made, shortText(3), fc.constantFrom('contains', 'starts with', 'ends with', '=', '!=', 'in'))
  .map(([subject, text, how]) => {
    if (how === 'in') return `${subject} in ("${text}")`
    return how.includes('=') ? `${subject} ${how} "${text}"` : `${how}(${subject}, "${text}")`
  })
const ENVIRONMENT = planOf(
  Form.parse({
    tobbin: 2,
    code: 'f',
    title: 'F',
    sections: [{ code: 's', title: 'S', items: [{ kind: 'question', code: 'x', type: 'text', label: 'X' }] }],
  }),
).environment
const slot = ENVIRONMENT.slotOf('x') ?? 0
const answerOf = (source: string) => {
  const run = compile(parse(source), ENVIRONMENT)
  return (text: string) => {
    const values: (string | null)[] = []
    values[slot] = text
    return run(values)
  }
}

describe('what is asked of a text behind functions', () => {
  it('turns out for each text as the engine says', () => {
    let told = 0
    fc.assert(
      fc.property(condition, fc.array(shortText(5), { minLength: 6, maxLength: 6 }), (source, texts) => {
        const [asked] = textTestIn(parse(source))?.tests ?? []
        if (!asked || !isPieceTest(asked)) throw new Error(`${source} is not read as a test of a text.`)
        const run = answerOf(source)
        for (const text of texts) {
          const outcome = outcomeOf(asked, text)
          if (outcome === null || text.includes('Σ')) continue
          told += 1
          expect(source.includes('!=') ? !outcome : outcome).toBe(run(text))
        }
      }),
      { numRuns: 1_500 },
    )
    expect(told).toBeGreaterThan(5_000)
  })

  it('is told apart by classes: no text turns out as none of them does', () => {
    let compared = 0
    fc.assert(
      fc.property(
        fc.array(condition, { minLength: 1, maxLength: 3 }),
        fc.array(shortText(4), { minLength: 20, maxLength: 20 }),
        (sources, texts) => {
          const tests = sources.flatMap(s => textTestIn(parse(s))?.tests ?? [])
          const classes = textClasses(tests, [], { least: 1, most: undefined })
          if (classes === null) return
          const runs = sources.map(answerOf)
          const outcomes = (text: string) => runs.map(run => run(text)).join()
          const known = new Set(classes.map(outcomes))
          for (const text of texts) {
            if (text.trim() === '') continue
            compared += 1
            expect([...known]).toContain(outcomes(text))
          }
        },
      ),
      { numRuns: 300 },
    )
    expect(compared).toBeGreaterThan(2_000)
  })
})

it('decides what forms ask of the letters and parts of a text', () => {
  const rule = (code: string, shownWhen: string) => ({ kind: 'note', code, text: code, shownWhen })
  const form = Form.parse({
    tobbin: 2,
    code: 'f',
    title: 'F',
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          { kind: 'question', code: 'plate', type: 'text', label: 'Plate', maxLength: 8, required: true },
          rule('ours', 'starts with(upper case(plate), "WR-")'),
          rule('never', 'upper case(plate) = "wr"'),
          rule('both', 'substring(plate, 1, 2) = "WR" and lower case(plate) = "ab-1"'),
          rule('always', 'upper case(plate) != "wr"'),
          rule('part', 'substring(plate, 4) in ("100", "200")'),
        ],
      },
    ],
  })
  const { findings, tally } = prove(form, '2026-11-24')
  expect(tally.undecided).toBe(0)
  const told = findings.filter(f => f.code !== 'no-pattern').map(f => `${f.code} ${f.address}`)
  expect(told.toSorted()).toEqual([
    'always-shown item/always',
    'never-shown item/both',
    'never-shown item/never',
  ])
})
