import { nodeText } from '../form/walk'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { richForm } from '../../tests/support/richForms'
import { prove } from '../prove/prove'
import type { Form } from '../form/definition'
import { readForm } from '../form/read'
import type { Answer, Answers } from '../form/answers'
import { seededRandom } from './draw'
import { allProblems, answersInPlay, fill, type Frame } from './fill'
import { drawPlausibleAnswers } from './plausible'
import { planOf } from './plan'
import type { Plan } from './planned'
import { quotedText } from './quote'
import { replan } from './replan'
import { describeResponse } from './describeResponse'
import { explainShown } from './explain'
import { applyEdits, type Edit } from '../form/edits'

const TODAY = '2026-11-24'
const seed = fc.integer({ min: 1, max: 1e9 })
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** Answers to a rich form: likely ones, some taken away, some spoilt. */
function someAnswers(plan: Plan, s: number): Answers {
  const next = seededRandom(s)
  const answers: Record<string, Answer> = {
    ...drawPlausibleAnswers(plan, {}, TODAY, next, () => ['oak', 'elm', 'a longer word']),
  }
  const odd: Answer[] = [null, 'nonsense', 7, true, ['a', 'zz'], { r1: 'a' }, [{}, {}], { other: 'mine' }]
  for (const q of plan.questions)
    if (next() < 0.15 && q.place.entryOf === null)
      answers[q.place.code] = odd[Math.floor(next() * odd.length)] ?? null
  return answers
}

/** What a person sees of a state: everything but the plan. */
const seen = (frame: Frame): unknown => ({
  values: frame.values,
  inPlay: frame.inPlay,
  required: frame.required,
  locked: frame.locked,
  wrong: [...frame.wrong],
  given: [...frame.given],
  lost: [...frame.lost],
  offered: [...frame.offered].map(([slot, codes]) => [slot, [...codes]]),
  entries: [...frame.entries].map(([order, frames]) => [order, frames.map(seen)]),
})

describe('forms with every feature', () => {
  it('are well-formed, and their rules type-check', () => {
    fc.assert(
      fc.property(seed, s => {
        expect(readForm(richForm(s)).problems).toBeNull()
        const wiring = [
          'syntax-error',
          'unknown-name',
          'later-name',
          'unknown-function',
          'wrong-type',
          'unknown-code',
          'label-for-code',
          'duplicate-code',
        ]
        expect(prove(richForm(s), TODAY).findings.filter(f => wiring.includes(f.code))).toEqual([])
      }),
      { numRuns: 60 },
    )
  })

  it('browser and server agree to the byte: what is sent is what the server works out from it', () => {
    fc.assert(
      fc.property(seed, seed, (s, t) => {
        const plan = planOf(richForm(s))
        const here = fill(plan, someAnswers(plan, t), TODAY)
        const sent = JSON.stringify(answersInPlay(here))
        const there = fill(planOf(copy(richForm(s))), JSON.parse(sent) as Answers, TODAY)
        expect(JSON.stringify(answersInPlay(there))).toBe(sent)
        expect(there.path).toEqual(here.path)
        expect(there.inPlay).toEqual(here.inPlay)
        expect(there.values).toEqual(here.values)
      }),
      { numRuns: 300 },
    )
  })
})

describe('forms with every feature', () => {
  it('a plan made from the one before, after words were changed, fills and tells as one made anew', () => {
    fc.assert(
      fc.property(seed, seed, fc.array(fc.nat(30), { maxLength: 4 }), fc.boolean(), (s, t, at, more) => {
        const form = richForm(s)
        const before = planOf(form)
        const places = before.places.filter((_, i) => at.includes(i))
        const edits = places.map((p): Edit => ({
          do: 'change',
          what: p.address,
          set: {
            [nodeText(p.node).key]: `Now {{ ${before.questions[0]?.place.code ?? '1'} }}`,
            ...(more ? { shownWhen: '1 = 1' } : {}),
          },
        }))
        const next = applyEdits(form, edits).form
        const [made, anew] = [replan(before, next), planOf(next)]
        const answers = someAnswers(before, t)
        expect(seen(fill(made, answers, TODAY))).toEqual(seen(fill(anew, answers, TODAY)))
        expect(describeResponse(made, answers, TODAY)).toEqual(describeResponse(anew, answers, TODAY))
      }),
      { numRuns: 200 },
    )
  })

  it('going through other answers and back changes nothing: typed answers come back, in any order', () => {
    fc.assert(
      fc.property(seed, seed, seed, (s, t, u) => {
        const plan = planOf(richForm(s))
        const answers = someAnswers(plan, t)
        const first = seen(fill(plan, answers, TODAY))
        let mixed: Answers = someAnswers(plan, u)
        fill(plan, mixed, TODAY)
        for (const code of Object.keys({ ...mixed, ...answers }).reverse()) {
          const { [code]: _, ...rest } = mixed
          mixed = code in answers ? { ...rest, [code]: answers[code] ?? null } : rest
          fill(plan, mixed, TODAY)
        }
        expect(seen(fill(plan, mixed, TODAY))).toEqual(first)
        expect(seen(fill(planOf(richForm(s)), copy(answers), TODAY))).toEqual(first)
      }),
      { numRuns: 150 },
    )
  })
})

describe('forms with every feature', () => {
  it('nothing that the prover calls impossible is ever met', () => {
    fc.assert(
      fc.property(seed, s => {
        const form = richForm(s)
        const plan = planOf(form)
        const never = new Set(
          prove(form, TODAY)
            .findings.filter(f => f.code === 'never-shown' || f.code === 'unreachable-section')
            .map(f => f.address),
        )
        const always = new Set(
          prove(form, TODAY)
            .findings.filter(f => f.code === 'always-shown')
            .map(f => f.address),
        )
        for (let t = 1; t <= 25; t++) {
          const answers = drawPlausibleAnswers(
            plan,
            {},
            TODAY,
            seededRandom(s + t),
            () => ['oak', 'elm'],
            t % 2,
          )
          if (!answers) continue
          const state = fill(plan, answers, TODAY)
          expect(allProblems(state)).toEqual([])
          for (const place of plan.places) {
            if (state.inPlay[place.order]) expect(never).not.toContain(place.address)
            else if (
              place.kind !== 'section' &&
              place.groups.length === 0 &&
              state.path.includes(place.section) &&
              !explainShown(state, state, place).some(r => r.kind === 'skip')
            )
              expect(always).not.toContain(place.address)
          }
        }
      }),
      // In the form of the example, what a skip always passes over has a rule that is always true.
      { numRuns: 60, examples: [[624843373]] },
    )
  })
})

const invoice: Form = {
  tobbin: 2,
  code: 'invoice',
  title: 'Invoice',
  sections: [
    {
      code: 's',
      title: 'S',
      items: [
        {
          kind: 'group',
          code: 'lines',
          title: 'Line',
          repeat: { max: 100 },
          items: [
            { kind: 'question', code: 'what', label: 'What', type: 'text' },
            { kind: 'question', code: 'price', label: 'Price', type: 'money', currency: 'EUR' },
            { kind: 'question', code: 'pieces', label: 'Pieces', type: 'integer' },
            {
              kind: 'question',
              code: 'line_sum',
              label: 'Sum',
              type: 'value',
              value: 'price * pieces',
              currency: 'EUR',
            },
          ],
        },
        {
          kind: 'question',
          code: 'total',
          label: 'Total',
          type: 'value',
          value: 'if count(lines) > 0 then sum(lines.line_sum) else 0',
          currency: 'EUR',
        },
        { kind: 'note', code: 'n', text: 'To pay: {{ total | money }} for {{ lines.what | list }}.' },
      ],
    },
  ],
}

describe('calculations', () => {
  it('sums of money are exact', () => {
    const cents = fc.integer({ min: 0, max: 1e9 })
    const plan = planOf(invoice)
    fc.assert(
      fc.property(fc.array(fc.tuple(cents, fc.integer({ min: 1, max: 999 })), { maxLength: 30 }), lines => {
        const amount = (c: bigint) => `${c / 100n}.${String(c % 100n).padStart(2, '0')}`
        const state = fill(
          plan,
          {
            lines: lines.map(([c, pieces]) => ({
              price: { amount: amount(BigInt(c)), currency: 'EUR' },
              pieces,
            })),
          },
          TODAY,
        )
        const total = lines.reduce((sum, [c, pieces]) => sum + BigInt(c) * BigInt(pieces), 0n)
        const told = String(state.values[plan.byCode.get('total')?.slot ?? 0])
        expect(Number(told)).toBe(Number(amount(total)))
        expect(
          quotedText(state, '{{ total | money }}', { section: 0, groups: [], entryOf: null }).replaceAll(
            '\u00a0',
            '',
          ),
        ).toBe(`${amount(total)}EUR`)
      }),
    )
  })

  it('quotes what stands in entries, with formats', () => {
    const state = fill(
      planOf(invoice),
      {
        lines: [
          { what: 'Paint', price: '9.90', pieces: 2 },
          { what: 'Rope', price: 5, pieces: 1 },
        ],
      },
      TODAY,
    )
    expect(
      quotedText(state, 'To pay: {{ total | money }} for {{ lines.what | list }}. {{ nothing_such }}', {
        section: 0,
        groups: [],
        entryOf: null,
      }),
    ).toBe('To pay: 24.80\u00a0EUR for Paint and Rope. ')
  })
})

describe('calculations', () => {
  it('names the place of a problem inside an entry, and refuses too many entries', () => {
    const state = fill(planOf(invoice), { lines: [{ price: 'x' }, { price: 1.234 }] }, TODAY)
    expect(allProblems(state).map(p => [p.path, p.kind])).toEqual([
      ['lines[0].price', 'wrong'],
      ['lines[1].price', 'wrong'],
    ])
    expect(
      allProblems(fill(planOf(invoice), { lines: Array.from({ length: 10_000 }, () => ({})) }, TODAY)).map(
        p => p.path,
      ),
    ).toEqual(['lines'])
  })
})
