import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { goesByNames } from '../../tests/support/byNames'
import { richForm } from '../../tests/support/richForms'
import type { Form, Item } from '../form/definition'
import { type Question, type QuestionType, QUESTIONS, Question as QuestionSchema } from '../form/questions'
import { newItem, retypeQuestion } from '../form/create'
import { readForm } from '../form/read'
import { renameCode } from '../form/rename'
import { listPlaces } from '../form/walk'
import { prove } from '../prove/prove'
import type { Answer, Answers } from '../form/answers'
import { findClosingMessage } from './closing'
import { seededRandom } from './draw'
import { allProblems, answersInPlay, fill } from './fill'
import { pagesOf, shownOn } from './pages'
import { progressText } from './progressText'
import { planOf } from './plan'
import { drawPlausibleAnswers } from './plausible'

const TODAY = '2026-11-24'
const TYPES = Object.keys(QUESTIONS) as QuestionType[]
const q = (more: object): Item => ({ kind: 'question', code: 'x', label: 'X', ...more }) as Item
const form = (...items: Item[]): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: [{ code: 's', title: 'S', items }],
})
const options = [
  { code: 'a', label: 'A' },
  { code: 'b', label: 'B' },
  { code: 'none', label: 'None', alone: true },
]

/** By question: answers that are taken, with what is kept of them, and answers that are not. */
const CASES: { question: object; taken: [Answer, Answer?][]; refused: Answer[] }[] = [
  {
    question: { type: 'email' },
    taken: [['a@b.example'], [' a@b.example ', 'a@b.example']],
    refused: ['ines', '@b.example', 'a@', 'a@b', 'a b@c.example', 'a@b@c.example', 'a@.example', 3],
  },
  {
    question: { type: 'phone' },
    taken: [['01632 960001'], ['+44 (0)1632-960001']],
    refused: ['12', 'ring me', '01632+960001', '1'.repeat(30)],
  },
  {
    question: { type: 'url' },
    taken: [['https://wherry.example/a?b=c']],
    refused: ['wherry.example', 'https://wherry', 'javascript:alert(1)', 'https://a b.example'],
  },
  {
    question: { type: 'text', pattern: '[A-Z]{2}', patternMessage: 'Two capitals.' },
    taken: [['AB']],
    refused: ['ABC', 'xAB', 'ab'],
  },
  {
    question: { type: 'money', currency: 'EUR', min: 0 },
    taken: [
      [12.5, { amount: '12.50', currency: 'EUR' }],
      ['480', { amount: '480.00', currency: 'EUR' }],
      [
        { amount: '0.1', currency: 'EUR' },
        { amount: '0.10', currency: 'EUR' },
      ],
    ],
    refused: [-1, 1.234, { amount: '1', currency: 'USD' }, 'much', true],
  },
  {
    question: { type: 'time', max: '18:00' },
    taken: [['10:30', '10:30:00']],
    refused: ['25:00', '18:01', 'noon', 10],
  },
  {
    question: { type: 'dateTime' },
    taken: [['2026-05-01T10:30', '2026-05-01T10:30:00']],
    refused: ['2026-02-30T10:30', '2026-05-01', '2026-05-01T10:30Z'],
  },
  { question: { type: 'scale', min: 1, max: 5 }, taken: [[1], [5]], refused: [0, 6, 2.5, 'high'] },
  {
    question: { type: 'choice', options, writeIn: true },
    taken: [['a'], [{ other: 'Cedar' }]],
    refused: ['z', { other: ' ' }, { another: 'x' }, ['a'], 1],
  },
  { question: { type: 'choice', options }, taken: [['b']], refused: [{ other: 'Cedar' }] },
  {
    question: { type: 'choices', options, most: 2, writeIn: true },
    taken: [
      [
        ['b', 'a'],
        ['a', 'b'],
      ],
      [['a', { other: 'x' }]],
      [['none']],
    ],
    refused: [['a', 'none'], ['a', 'b', { other: 'x' }], ['z'], 'a', [{ other: 'x' }, { other: 'y' }]],
  },
  {
    question: {
      type: 'grid',
      rows: [
        { code: 'r', label: 'R' },
        { code: 't', label: 'T' },
      ],
      options: options.slice(0, 2).map(({ code, label }) => ({ code, label })),
    },
    taken: [[{ r: 'a' }], [{ r: 'a', t: 'b' }]],
    refused: [{ z: 'a' }, { r: 'z' }, ['a'], 'a'],
  },
  {
    question: { type: 'ranking', options: options.map(({ code, label }) => ({ code, label })), most: 2 },
    taken: [[['b', 'a']]],
    refused: [['a'], ['a', 'a'], ['a', 'b', 'none'], ['a', 'z']],
  },
  {
    question: { type: 'file', most: 1 },
    taken: [[[{ file: 'abcdefgh', name: 'a.pdf', bytes: 3 }]]],
    refused: [
      [{ file: '../etc', name: 'a', bytes: 3 }],
      [
        { file: 'abcdefgh', name: 'a', bytes: 3 },
        { file: 'abcdefgi', name: 'b', bytes: 3 },
      ],
      'a.pdf',
      [{ file: 'abcdefgh' }],
    ],
  },
  {
    question: { type: 'signature' },
    taken: [[{ typed: 'I. Marlow' }], [{ drawn: 'M12 40 L15 44' }]],
    refused: [{ drawn: '<svg onload=1>' }, { typed: 'x'.repeat(300) }, 'me', { typed: 'a', drawn: 'M1 1' }],
  },
  { question: { type: 'hidden', holds: 'number' }, taken: [['12', 12]], refused: ['abc'] },
]

for (const { question, taken, refused } of CASES) {
  it(`${JSON.stringify(question).slice(0, 60)}`, () => {
    const plan = planOf(form(q(question)))
    for (const [answer, kept = answer] of taken) {
      const state = fill(plan, { x: answer }, TODAY)
      expect([answer, allProblems(state), answersInPlay(state)]).toEqual([answer, [], { x: kept }])
    }
    for (const answer of refused) {
      const state = fill(plan, { x: answer }, TODAY)
      expect([answer, allProblems(state).length, answersInPlay(state)]).toEqual([answer, 1, {}])
    }
  })
}

describe('answers by type', () => {
  it('a default stands until somebody answers, blank included; read-only keeps it', () => {
    const plan = planOf(
      form(q({ type: 'text', default: '"oak"', required: true }), {
        ...q({ type: 'integer', default: '7', readOnly: 'x = "oak"' }),
        code: 'y',
      } as Item),
    )
    expect(answersInPlay(fill(plan, {}, TODAY))).toEqual({ x: 'oak', y: 7 })
    expect(answersInPlay(fill(plan, { y: 9 }, TODAY))).toEqual({ x: 'oak', y: 7 })
    expect(answersInPlay(fill(plan, { x: 'elm', y: 9 }, TODAY))).toEqual({ x: 'elm', y: 9 })
    const blank = fill(plan, { x: null, y: null }, TODAY)
    expect([answersInPlay(blank), allProblems(blank).map(p => p.kind)]).toEqual([
      { x: null, y: null },
      ['missing'],
    ])
  })

  it('a grid that is required needs every row; a check may stand at a group or section', () => {
    const grid = CASES.find(c => 'type' in c.question && c.question.type === 'grid')?.question ?? {}
    expect(
      allProblems(fill(planOf(form(q({ ...grid, required: true }))), { x: { r: 'a' } }, TODAY)).map(
        p => p.sentence,
      ),
    ).toEqual(['1 row needs an answer.'])
    const f = form({
      kind: 'group',
      code: 'g',
      title: 'G',
      validWhen: [{ rule: 'x < 3', message: 'Not {{ x }}.' }],
      items: [q({ type: 'integer' })],
    })
    f.sections[0]!.validWhen = [{ rule: 'x != 5', message: 'Never 5.' }]
    expect(allProblems(fill(planOf(f), { x: 5 }, TODAY)).map(p => [p.path, p.sentence])).toEqual([
      ['g', 'Not 5.'],
      ['s', 'Never 5.'],
    ])
  })
})

describe('answers by type', () => {
  it('closings: the route’s own, else the first that is true, else thanks', () => {
    const f: Form = {
      ...form(q({ type: 'yesNo' }), { ...q({ type: 'yesNo' }), code: 'y' } as Item),
      closings: [
        { code: 'early', title: 'Early' },
        { code: 'yes', when: 'y = true', text: 'Yes {{ y }}', forward: '/next' },
      ],
    }
    f.closings = [f.closings![1]!, f.closings![0]!]
    f.sections[0]!.routes = [{ when: 'x = true', to: 'finish', closing: 'early' }]
    const said = (answers: Answers) => findClosingMessage(fill(planOf(f), answers, TODAY))
    expect([
      said({ x: true, y: true }).title,
      said({ y: true }).text,
      said({ y: true }).forward,
      said({}).title,
    ]).toEqual(['Early', 'Yes Yes', '/next', 'Early'])
    expect(findClosingMessage(fill(planOf(form(q({ type: 'yesNo' }))), {}, TODAY)).title).toBe('Thank you')
  })
})

describe('pages', () => {
  it('show everything in play once, and say how many there are or can be', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom<'section' | 'question'>('section', 'question'),
        fc.nat(1000),
        (seed, pace, pick) => {
          const plan = planOf({ ...richForm(seed), pace })
          const full = drawPlausibleAnswers(plan, {}, TODAY, seededRandom(seed), () => ['oak', 'elm'])
          fc.pre(full !== null)
          const codes = Object.keys(full ?? {})
          const some = Object.fromEntries(
            codes.slice(0, pick % (codes.length + 1)).map(code => [code, full?.[code] ?? null]),
          )
          const state = fill(plan, some, TODAY)
          const pages = pagesOf(state)
          const seen = pages
            .flatMap(page => [
              ...(shownOn(state, page) ?? plan.sections[page.section]?.steps.map(s => s.place.order) ?? []),
            ])
            .filter(o => state.inPlay[o])
          expect(new Set(seen).size).toBe(seen.length)
          for (const index of state.path)
            for (const step of plan.sections[index]?.steps ?? [])
              if (state.inPlay[step.place.order]) expect(seen).toContain(step.place.order)
        },
      ),
      { numRuns: 120 },
    )
    const gate = planOf({
      ...form(q({ type: 'yesNo' })),
      sections: [
        { code: 's', title: 'S', items: [q({ type: 'yesNo' })] },
        { code: 't', title: 'T', shownWhen: 'x = true', items: [] },
      ],
    })
    const told = (answers: Answers) => {
      const filled = fill(gate, answers, TODAY)
      return progressText(filled, pagesOf(filled), 0)
    }
    const texts = ['Part 1 of 1 to 2', 'Part 1 of 1', 'Part 1 of 2']
    expect([told({}), told({ x: false }), told({ x: true })]).toEqual(texts)
  })
})

describe('definitions', () => {
  it('a question becomes one of any other type and stays well-formed, keeping what both have', () => {
    for (const from of TYPES) {
      for (const to of TYPES) {
        const node = newItem(form(), from, 'Something') as Question
        const rich = {
          ...node,
          ...('required' in QUESTIONS[from].shape ? { required: true, help: 'Help' } : {}),
        }
        const changed = Object.fromEntries(
          Object.entries({ ...rich, ...retypeQuestion(rich as Question, to) }).filter(([, v]) => v !== null),
        )
        expect([from, to, QuestionSchema.safeParse(changed).error?.issues ?? []]).toEqual([from, to, []])
        if ('required' in QUESTIONS[from].shape && 'required' in QUESTIONS[to].shape)
          expect(changed).toMatchObject({ required: true, help: 'Help' })
      }
    }
  })
  it('a renamed question takes along rules, quotes and paths of every feature', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.nat(40), (seed, pick) => {
        const before = richForm(seed)
        const items = listPlaces(before).filter(p => p.kind !== 'section')
        const place = items[pick % items.length]
        if (!place) return
        const after = renameCode(before, place.address, 'renamed_one')
        expect(readForm(after).problems).toBeNull()
        const told = (f: Form) =>
          prove(f, TODAY)
            .findings.filter(x => !goesByNames(x))
            .map(x => `${x.code} ${x.at === place.code ? 'renamed_one' : x.at}`)
            .filter(x => !x.startsWith('undecided'))
        expect(told(after)).toEqual(told(before))
      }),
      { numRuns: 60, examples: [[2, 4]] },
    )
  })
})
