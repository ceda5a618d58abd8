import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { patternOf } from '../../expressions/patterns'
import { planOf } from '../../fill/plan'
import { Form } from '../../form/definition'
import { prove } from '../prove'
import { EMAIL, PHONE } from './textDomains'
import { isPossible } from './sampleAnswers'
import { textPattern } from './regularText'
import type { TextForm, TextTest } from './textAutomata'
import { isPieceTest, textClasses } from './textClasses'
import { roomsOf } from './textRoom'
import { findText } from './textSearch'

const codes = (text: string) => [...text].map(l => l.codePointAt(0) ?? 0)
const accepts = (source: string, whole: boolean, text: string): boolean | null => {
  const pattern = textPattern(source, whole)
  return (
    pattern &&
    pattern.accepts(codes(text).reduce((state, letter) => pattern.step(state, letter), pattern.start))
  )
}

/** Patterns of the syntax that is read, and now and then of what is not. */
const { pattern } = fc.letrec<{ pattern: string; one: string }>(tie => ({
  one: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.constantFrom(
      'a',
      'b',
      '7',
      '.',
      '\\d',
      '\\w',
      '\\s',
      '\\W',
      '[ab]',
      '[^a]',
      '[a-c7]',
      '[\\d-]',
      '[]a]',
      '\\.',
      '-',
      ' ',
      'é',
    ),
    tie('pattern').map(p => `(${p})`),
    tie('pattern').map(p => `(?:${p})`),
  ),
  pattern: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc
      .tuple(tie('one'), fc.constantFrom('', '', '*', '+', '?', '{2}', '{1,2}', '{2,}', '*?', '{,2}', '{x'))
      .map(([one, many]) => `${one}${many}`),
    fc.tuple(tie('pattern'), tie('pattern')).map(([a, b]) => `${a}${b}`),
    fc.tuple(tie('pattern'), tie('pattern')).map(([a, b]) => `${a}|${b}`),
  ),
}))
const anchored = fc
  .tuple(fc.constantFrom('', '', '^'), pattern, fc.constantFrom('', '', '$'))
  .map(parts => parts.join(''))
const written = fc.string({
  unit: fc.constantFrom('a', 'b', 'c', '7', '.', '-', ' ', '\n', 'é', '{', ']', 'x', ','),
  maxLength: 7,
})

describe('patterns', () => {
  it('match what the engine of the answers matches, wholly and in part', () => {
    let read = 0
    fc.assert(
      fc.property(
        anchored,
        fc.array(written, { minLength: 4, maxLength: 12 }),
        fc.boolean(),
        (source, texts, whole) => {
          const engine = patternOf(source)
          if (!engine) return
          for (const text of texts) {
            const told = accepts(source, whole, text)
            if (told === null) return
            read += 1
            expect(told).toBe(whole ? engine.matcher(text).matches() : engine.matcher(text).find())
          }
        },
      ),
      { numRuns: 2_000 },
    )
    expect(read).toBeGreaterThan(5_000)
  })

  it('that are not known here, or too large, are left alone', () => {
    for (const source of ['(?i)ab', '\\bab', '[[:alpha:]]', '\\pL', '(^a)b', 'a{2}{3}', '((a{40}){40}){40}'])
      expect(textPattern(source, true)).toBeNull()
  })
})

const piece = fc.string({ unit: fc.constantFrom('a', 'b'), minLength: 1, maxLength: 2 })
const test: fc.Arbitrary<TextTest> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('contains' as const, 'starts with' as const, 'ends with' as const),
    piece,
  }),
  fc.record({
    kind: fc.constant('matches' as const),
    piece: fc.constantFrom('^a+$', 'a.b', '^(ab)*$', 'b$', '[^ab]', 'a{2}'),
  }),
  fc.integer({ min: 1, max: 4 }).map(at => ({ kind: 'length' as const, at })),
)
const outcomeOf = (k: TextTest, t: string) => {
  switch (k.kind) {
    case 'length':
      return t.length >= k.at
    case 'contains':
      return t.includes(k.piece)
    case 'starts with':
      return t.startsWith(k.piece)
    case 'ends with':
      return t.endsWith(k.piece)
    case 'matches':
      return new RegExp(k.piece).test(t)
  }
}
// A line’s end is the one letter that a dot does not stand for.
const texts: string[] = ['']
for (let from = 0, n = 0; n < 8; n++)
  for (const end = texts.length; from < end; from++) for (const c of 'abx\n') texts.push(`${texts[from]}${c}`)

describe('classes of texts', () => {
  it('are all the ways in which tests of a text can turn out, each with a text of its own', () => {
    const form: fc.Arbitrary<TextForm> = fc.record({
      least: fc.integer({ min: 1, max: 2 }),
      most: fc.constantFrom(undefined, undefined, 3, 5),
      pattern: fc.constantFrom(undefined, undefined, '[ab]+', 'a.*', '.{3}', 'x?(ab|ba)+'),
      samples: fc.constantFrom([], ['ab']),
    })
    fc.assert(
      fc.property(
        fc.array(test, { maxLength: 4 }),
        fc.array(piece, { maxLength: 2 }),
        form,
        (tests, equal, form) => {
          const whole = form.pattern === undefined ? null : new RegExp(`^(?:${form.pattern})$`)
          const outcome = (t: string) =>
            [...tests.map(k => outcomeOf(k, t)), ...equal.map(e => e === t)].join()
          const possible = texts.filter(
            t =>
              t.length >= form.least &&
              (form.most === undefined || t.length <= form.most) &&
              (whole?.test(t) ?? true),
          )
          const classes = textClasses(tests, equal, form)
          expect(new Set(classes?.map(outcome))).toEqual(new Set(possible.map(outcome)))
          expect(classes?.length).toBe(new Set(classes?.map(outcome)).size)
        },
      ),
      {
        numRuns: 200,
        examples: [
          [
            [
              { kind: 'contains', piece: 'aa' },
              { kind: 'matches', piece: 'a.b' },
              { kind: 'ends with', piece: 'ba' },
            ],
            [],
            { least: 1, most: 5, pattern: undefined, samples: [] },
          ],
        ],
      },
    )
  })
})

describe('classes of texts', () => {
  it('of addresses and phone numbers follow what is accepted as an answer', () => {
    const plan = planOf(
      Form.parse({
        tobbin: 2,
        code: 'f',
        title: 'F',
        sections: [
          {
            code: 's',
            title: 'S',
            items: [
              { kind: 'question', type: 'email', code: 'mail', label: 'Mail' },
              { kind: 'question', type: 'phone', code: 'phone', label: 'Phone' },
            ],
          },
        ],
      }),
    )
    const drawn = fc.oneof(
      fc.string({ unit: fc.constantFrom('a', 'b', '@', '.', ' ', '+'), maxLength: 9 }),
      fc
        .tuple(
          fc.constantFrom('', '+', '(', '+ ', '-'),
          fc.string({ unit: fc.constantFrom('0', '1', '2', '3', ' ', '-', '+', ')'), maxLength: 24 }),
        )
        .map(parts => parts.join('')),
      fc.constantFrom('a@b.c', 'a@b..c', 'a@b.c.', 'a@.b', '012345', '+44 1632 960001', '1'.repeat(21)),
    )
    fc.assert(
      fc.property(drawn, text => {
        for (const [code, form] of [
          ['mail', EMAIL],
          ['phone', PHONE],
        ] as const) {
          const step = plan.byCode.get(code)
          if (!step) throw new Error('There is no such question.')
          // Blanks around are cut off before anything is asked of it.
          if (text === text.trim() && text !== '')
            expect(accepts(form.pattern ?? '', true, text)).toBe(isPossible(text, step))
        }
      }),
      { numRuns: 3_000 },
    )
  })
})

describe('a text that is tested by a pattern which no automaton tells', () => {
  it('is not taken for one that does not match', () => {
    const form = Form.parse({
      tobbin: 2,
      code: 'f',
      title: 'F',
      sections: [
        {
          code: 's',
          title: 'S',
          items: [
            { kind: 'question', type: 'text', code: 't', label: 'T' },
            { kind: 'note', code: 'n', text: 'N', shownWhen: 't = "ABC" and matches(t, "(?i)abc")' },
          ],
        },
      ],
    })
    const codes = prove(form, '2026-11-24').findings.map(f => f.code)
    expect(codes).not.toContain('never-shown')
  })
})

describe('a text in which tests turn out as wanted', () => {
  it('is found wherever there is one, and has the form', () => {
    fc.assert(
      fc.property(
        fc.array(
          test.filter(t => isPieceTest(t)),
          { minLength: 1, maxLength: 4 },
        ),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        fc.constantFrom(undefined, 3, 5),
        (tests, holds, most) => {
          const wanted = tests.map((t, i) => ({ test: t, holds: holds[i] ?? false }))
          const isSo = (text: string) => wanted.every(w => outcomeOf(w.test, text) === w.holds)
          const found = findText(wanted, [], { least: 1, most })
          const exists = texts.some(t => t.length > 0 && t.length <= (most ?? 8) && isSo(t))
          if (found === null) expect(exists).toBe(false)
          else {
            expect(isSo(found)).toBe(true)
            expect(found.length).toBeGreaterThanOrEqual(1)
            expect(found.length).toBeLessThanOrEqual(most ?? 1000)
          }
        },
      ),
      { numRuns: 200 },
    )
  })

  it('has room for all its pieces', () => {
    const piece = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), minLength: 1, maxLength: 4 })
    const text = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 14 })
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), text, (pieces, text) => {
        for (const room of roomsOf(pieces)) {
          const taken = pieces.reduce((sum, p, i) => sum + (text.includes(p) ? (room[i] ?? 0) : 0), 0)
          expect(taken).toBeLessThanOrEqual(text.length)
        }
      }),
      { numRuns: 2000 },
    )
  })
})
