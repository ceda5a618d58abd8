import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sharedForm } from '../../tests/support/sharedForms'
import { seededRandom } from '../fill/draw'
import { fill } from '../fill/fill'
import { drawPlausibleAnswers } from '../fill/plausible'
import { planOf } from '../fill/plan'
import type { Form } from '../form/definition'
import { readForm } from '../form/read'
import { redactForParty } from './redact'
import { tellProblems } from './tellProblems'
import { turnProblems } from './turns'

const TODAY = '2026-11-24'
const seed = fc.integer({ min: 1, max: 1e9 })

/** A form whose first party gives what the second never sees. */
const privateForm = (): Form => {
  const { form, problems } = readForm({
    tobbin: 2,
    code: 'p',
    title: 'P',
    parties: [
      { code: 'office', name: 'Office' },
      { code: 'guest', name: 'Guest' },
    ],
    turns: [
      { code: 'one', party: 'office', by: 'link', access: {} },
      { code: 'two', party: 'guest', by: 'link', access: { s: 'fills' } },
    ],
    lists: [
      {
        code: 'berths',
        columns: ['depth', 'margin'],
        rows: [{ code: 'a', label: 'A', depth: 3, margin: 0.37 }],
      },
    ],
    sections: [
      {
        code: 's',
        title: 'S',
        items: [
          { kind: 'question', type: 'text', code: 'told', label: 'Told', privateTo: 'office' },
          { kind: 'question', type: 'integer', code: 'limit', label: 'Limit', privateTo: 'office' },
          {
            kind: 'question',
            type: 'integer',
            code: 'spent',
            label: 'Spent',
            validWhen: [{ rule: 'spent <= limit', message: 'Too much for {{ told }}: {{ limit }}' }],
          },
          { kind: 'question', type: 'choice', code: 'berth', label: 'Berth', list: 'berths' },
          { kind: 'note', code: 'deep', text: '{{ berth.row.depth }}' },
          {
            kind: 'question',
            type: 'text',
            code: 'dear',
            label: 'Dear',
            privateTo: 'office',
            shownWhen: 'berth.row.margin > 0.2',
          },
        ],
      },
    ],
  })
  if (!form) throw new Error(JSON.stringify(problems))
  return form
}

describe('a party', () => {
  it('gets, where its answers are refused, no sentence that quotes what it never sees', () => {
    const form = privateForm()
    const plan = planOf(form)
    const turn = form.turns?.[1] ?? null
    const refused = (limit: number) => {
      const answers = { told: 'MAGENTA', limit, spent: 50 }
      return tellProblems(fill(plan, answers, TODAY), turn, answers)
    }
    expect(refused(60)).toEqual([])
    const [problem] = refused(40)
    expect(problem?.path).toBe('spent')
    expect(problem?.sentence).toContain('Too much')
    expect(problem?.sentence).not.toMatch(/MAGENTA|40/)
  })

  it('is told of each problem at its place', () => {
    fc.assert(
      fc.property(seed, seed, fc.nat(1), (s, t, which) => {
        const form = sharedForm(s)
        const turn = form.turns?.[which] ?? null
        // Half of what was answered is missing.
        const drawn = drawPlausibleAnswers(planOf(form), {}, TODAY, seededRandom(t), () => ['oak', 'elm'])
        const all = Object.entries(drawn ?? {})
        const answers = Object.fromEntries(all.filter((_, i) => i % 2 === t % 2))
        const filled = fill(planOf(form), answers, TODAY)
        const told = tellProblems(filled, turn, answers)
        expect(told.map(p => p.path)).toEqual(turnProblems(filled, turn).map(p => p.path))
      }),
      { numRuns: 200 },
    )
  })

  it('has only those columns of lists that what is sent asks for', () => {
    const form = privateForm()
    const seen = redactForParty(fill(planOf(form), {}, TODAY), form.turns?.[1] ?? null, {})
    const sent = JSON.stringify(seen.form.lists)
    expect(sent).toContain('depth')
    expect(sent).not.toContain('margin')
    expect(sent).not.toContain('0.37')
  })
})
