import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sharedForm } from '../../tests/support/sharedForms'
import type { Answers } from '../form/answers'
import { seededRandom } from '../fill/draw'
import { answersInPlay, fill, type Frame } from '../fill/fill'
import { isQuestion } from '../fill/steps'
import { drawPlausibleAnswers } from '../fill/plausible'
import { planOf } from '../fill/plan'
import type { Form } from '../form/definition'
import { readForm } from '../form/read'
import { renameCode } from '../form/rename'
import { runWalk } from '../prove/walks'
import { turnsTaken, nextTurn, turnProblems, withTurn } from './turns'
import { maySee, accessViewOf, type AccessView } from './access'
import { redactForParty } from './redact'

const TODAY = '2026-11-24'
const seed = fc.integer({ min: 1, max: 1e9 })

const answersFor = (form: Form, s: number): Answers =>
  drawPlausibleAnswers(planOf(form), {}, TODAY, seededRandom(s), () => ['oak', 'elm']) ?? {}
/** Every word that looks like a code in what is sent. */
const words = (value: unknown) => new Set(JSON.stringify(value).match(/[a-z][a-z0-9_]*/g))

describe('a party’s view', () => {
  it('holds no code, text or answer of what the party never sees', () => {
    fc.assert(
      fc.property(seed, seed, fc.nat(1), (s, t, which) => {
        const form = sharedForm(s)
        const plan = planOf(form)
        const turn = form.turns?.[which] ?? null
        const answers = answersFor(form, t)
        const view = accessViewOf(form, plan.places, turn)
        const seen = redactForParty(fill(plan, answers, TODAY), turn, answers)
        expect(readForm(seen.form).problems).toBeNull()
        const sent = words(seen)
        const hidden = plan.places.filter(p => !maySee(view, p) && p.kind === 'question').map(p => p.code)
        expect(hidden.filter(code => code !== 'coast' && sent.has(code))).toEqual([])
        expect(Object.keys(seen.answers).filter(code => hidden.includes(code))).toEqual([])
      }),
      { numRuns: 300 },
    )
  })

  it('shows, asks and calculates just what the whole form does', () => {
    let compared = 0
    let inEntries = 0
    fc.assert(
      fc.property(seed, seed, fc.nat(1), (s, t, which) => {
        const form = sharedForm(s)
        const plan = planOf(form)
        const turn = form.turns?.[which] ?? null
        const whole = fill(plan, answersFor(form, t), TODAY)
        const answers = answersInPlay(whole)
        const full = fill(plan, answers, TODAY)
        const seen = redactForParty(full, turn, answers)
        const part = fill(planOf(seen.form), seen.answers, TODAY)
        const view = accessViewOf(form, plan.places, turn)
        inEntries += compareEntries(part, full, view)
        for (const q of part.plan.questions) {
          if (q.place.entryOf) continue
          const original = plan.byCode.get(q.place.code)
          compared += 1
          expect([q.place.code, part.inPlay[q.place.order], part.values[q.slot]]).toEqual([
            q.place.code,
            full.inPlay[original?.place.order ?? -1],
            full.values[original?.slot ?? -1],
          ])
          if (original && view.at[original.place.order] === 'fills')
            expect([q.place.code, part.required[q.slot]]).toEqual([
              q.place.code,
              full.required[original.slot],
            ])
        }
      }),
      { numRuns: 300 },
    )
    expect(compared).toBeGreaterThan(1_000)
    expect(inEntries).toBeGreaterThan(100)
  })
})

/** What is read in the entries of a cut form is what they have in the whole one; returns how many were compared. */
function compareEntries(part: Frame, full: Frame, view: AccessView): number {
  let compared = 0
  for (const [order, entries] of part.entries) {
    const group = groupAt(part, order)
    const original = full.plan.groups.get(group?.place.code ?? '')
    if (!group || !original || view.at[original.place.order] !== 'reads') continue
    const theirs = full.entries.get(original.place.order) ?? []
    expect(entries.length).toBe(theirs.length)
    entries.forEach((entry, i) => {
      const other = theirs[i]
      if (!other) return
      compared += compareEntries(entry, other, view)
      for (const step of group.steps) {
        const same = full.plan.byCode.get(step.place.code)
        if (!isQuestion(step) || !same) continue
        compared += 1
        expect([step.place.code, entry.inPlay[step.place.order], entry.values[step.slot]]).toEqual([
          step.place.code,
          other.inPlay[same.place.order],
          other.values[same.slot],
        ])
      }
    })
  }
  return compared
}
const groupAt = ({ plan }: Frame, order: number) =>
  [...plan.groups.values()].find(g => g.place.order === order)

describe('a party’s view', () => {
  it('is cut anew by exactly what it asks for: any other answer of the turn leaves it as it is', () => {
    fc.assert(
      fc.property(seed, seed, seed, fc.nat(1), (s, t, u, which) => {
        const form = sharedForm(s)
        const plan = planOf(form)
        const turn = form.turns?.[which] ?? null
        const [before, other] = [answersFor(form, t), answersFor(form, u)]
        const first = redactForParty(fill(plan, before, TODAY), turn, before)
        const asks = new Set(first.refetchOn)
        const changed = Object.fromEntries(
          Object.entries(other).filter(([code]) => first.access[code] === 'fills' && !asks.has(code)),
        )
        const { answers } = withTurn(plan, turn, before, {
          ...Object.fromEntries(Object.entries(before).filter(([code]) => first.access[code] === 'fills')),
          ...changed,
        })
        expect(redactForParty(fill(plan, answers, TODAY), turn, answers).form).toEqual(first.form)
      }),
      { numRuns: 200 },
    )
  })

  it('keeps office-only and private questions from the one respondent of a form without turns', () => {
    const form: Form = {
      tobbin: 2,
      code: 'f',
      title: 'F',
      sections: [
        {
          code: 's',
          title: 'S',
          items: [
            { kind: 'question', code: 'a', label: 'A', type: 'text' },
            { kind: 'question', code: 'b', label: 'B', type: 'text', officeOnly: true },
            {
              kind: 'note',
              code: 'n',
              text: '{{ b }}!',
              shownWhen: 'b = "x"',
              under: { question: 'b', option: 'x' },
            },
          ],
        },
      ],
    }
    const seen = redactForParty(fill(planOf(form), { a: '1', b: 'x' }, TODAY), null, { a: '1', b: 'x' })
    expect(seen.form.sections[0]?.items).toEqual([
      { kind: 'question', code: 'a', label: 'A', type: 'text' },
      { kind: 'note', code: 'n', text: '{{ null }}!', shownWhen: 'true' },
    ])
    expect(seen.answers).toEqual({ a: '1' })
  })
})

const HANDED: Form = {
  tobbin: 2,
  code: 'f',
  title: 'F',
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard', office: true },
    { code: 'surveyor', name: 'Surveyor' },
  ],
  sections: [
    {
      code: 'boat',
      title: 'Boat',
      items: [
        { kind: 'question', code: 'loa', label: 'Length', type: 'decimal', required: true },
        { kind: 'question', code: 'mail_to', label: 'Mail', type: 'email' },
      ],
    },
    {
      code: 'office',
      title: 'Office',
      items: [
        {
          kind: 'question',
          code: 'survey_needed',
          label: 'Survey?',
          type: 'yesNo',
          required: true,
          default: 'true',
        },
      ],
    },
    {
      code: 'survey',
      title: 'Survey',
      shownWhen: 'survey_needed = true',
      items: [{ kind: 'question', code: 'sound', label: 'Sound?', type: 'yesNo', required: 'loa > 10' }],
    },
  ],
  turns: [
    { code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' } },
    {
      code: 'check_in',
      party: 'yard',
      by: { team: ['yard@wherry.example'] },
      access: { boat: 'reads', office: 'fills' },
      handOff: [{ when: 'survey_needed = true', to: 'look' }, { to: 'done' }],
    },
    {
      code: 'look',
      party: 'surveyor',
      by: { answer: 'mail_to' },
      access: { boat: 'reads', survey: 'fills', loa: 'never' },
    },
  ],
  walks: [
    {
      code: 'long',
      title: 'Long boat',
      answers: { loa: 12, survey_needed: true },
      expect: {
        inPlay: ['sound'],
        required: ['sound'],
        wrong: ['sound'],
        finishes: false,
        values: { loa: 12 },
        turns: ['request', 'check_in', 'look'],
      },
    },
  ],
}

describe('turns', () => {
  const plan = planOf(HANDED)
  const [request, checkIn, look] = HANDED.turns ?? []
  it('are handed off by the first rule that is true, else in order', () => {
    if (!request || !checkIn || !look) throw new Error('The form lost its turns.')
    const at = (answers: Answers) => fill(plan, answers, TODAY)
    expect(nextTurn(at({}), request)).toBe(checkIn)
    expect(nextTurn(at({ survey_needed: true }), checkIn)).toBe(look)
    expect(nextTurn(at({ survey_needed: false }), checkIn)).toBeNull()
    expect(nextTurn(at({ survey_needed: true }), look)).toBeNull()
    expect(turnsTaken(at({ survey_needed: false }))).toEqual(['request', 'check_in'])
  })
  it('are complete when what they fill is; others’ answers stay, and may not be given', () => {
    if (!request || !checkIn || !look) throw new Error('The form lost its turns.')
    expect(turnProblems(fill(plan, {}, TODAY), request).map(p => p.path)).toEqual(['loa'])
    expect(turnProblems(fill(plan, { loa: 3 }, TODAY), request)).toEqual([])
    expect(turnProblems(fill(plan, { loa: 12, survey_needed: true }, TODAY), look).map(p => p.path)).toEqual([
      'sound',
    ])
    expect(withTurn(plan, look, { loa: 12, sound: false }, { sound: true, loa: 1 })).toEqual({
      answers: { loa: 12, sound: true },
      foreign: ['loa'],
    })
    // The surveyor is told whether an answer is required, but not the length that decides it.
    const seen = redactForParty(fill(plan, { loa: 12, survey_needed: true }, TODAY), look, {
      loa: 12,
      survey_needed: true,
    })
    expect(seen.form.sections.map(s => s.code)).toEqual(['boat', 'survey'])
    expect(JSON.stringify(seen)).not.toContain('loa')
    expect(seen.form.sections[1]?.items[0]).toMatchObject({ required: 'true' })
  })
  it('and walks follow a renamed code, and walks say what is not as expected', () => {
    const today = TODAY
    expect(runWalk(plan, HANDED.walks![0]!, today).misses).toEqual([])
    const renamed = renameCode(HANDED, 'item/loa', 'length')
    expect(renamed.turns?.[2]?.access).toEqual({ boat: 'reads', survey: 'fills', length: 'never' })
    expect(runWalk(planOf(renamed), renamed.walks![0]!, today).misses).toEqual([])
    const turned = {
      ...HANDED.walks![0]!,
      expect: {
        inPlay: ['gone'],
        notInPlay: ['sound'],
        finishes: true,
        values: { loa: 13 },
        turns: ['request'],
      },
    }
    expect(runWalk(plan, turned, today).misses).toHaveLength(5)
  })
})
