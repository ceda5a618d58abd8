import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answersTo, questionsOf, smallForm } from '../../tests/support/forms'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import type { Answer, Answers } from '../form/answers'
import { ChoiceUses } from '../form/choiceUses'
import { Form } from '../form/definition'
import { applyEdits, type Edit } from '../form/edits'
import { isChoice } from '../form/questions'
import { renameChoiceEdits } from './renameChoice'
import { rulesOf } from '../form/rules'

const TODAY = '2026-11-28'

const made = Form.parse({
  tobbin: 2,
  code: 'berths',
  title: 'Berths',
  lists: [
    {
      code: 'shores',
      rows: [
        { code: 'north', label: 'North' },
        { code: 'south', label: 'South' },
      ],
    },
    {
      code: 'harbours',
      columns: ['coast'],
      rows: [
        { code: 'quay', label: 'Quay', coast: 'north' },
        { code: 'mill', label: 'Mill', coast: 'south' },
      ],
    },
  ],
  sections: [
    {
      code: 'where',
      title: 'Where',
      items: [
        {
          kind: 'question',
          code: 'coast',
          label: 'Coast',
          type: 'choice',
          list: 'shores',
          default: 'if true then "north" else "south"',
        },
        {
          kind: 'question',
          code: 'harbour',
          label: 'Harbour',
          type: 'choice',
          list: 'harbours',
          narrowedBy: 'row.coast = coast',
        },
        {
          kind: 'question',
          code: 'name',
          label: 'Name',
          type: 'text',
          shownWhen: 'coast in ["north", "south"] and harbour != "north"',
          under: { question: 'coast', option: 'north' },
        },
        { kind: 'note', code: 'told', text: 'Cold: {{ if coast = "north" then "north wind" else "south" }}' },
        {
          kind: 'question',
          code: 'parts',
          label: 'Parts',
          type: 'grid',
          rows: [{ code: 'north', label: 'N' }],
          options: [{ code: 'ok', label: 'Good' }],
        },
        { kind: 'note', code: 'fine', text: 'Fine.', shownWhen: 'parts.north = "ok"' },
      ],
      routes: [{ when: 'coast = "north"', to: 'finish' }],
    },
  ],
  closings: [
    { code: 'bye', text: 'Bye {{ if coast = "north" then "N" else "S" }}', when: 'coast = "north"' },
  ],
  promises: [{ code: 'p', text: 'P', holds: 'coast != "north"' }],
  walks: [
    {
      code: 'w',
      title: 'W',
      answers: { coast: 'north', name: 'north', parts: { north: 'ok' } },
      expect: { values: { coast: 'north' } },
    },
  ],
} as never)

describe('giving a choice another code', () => {
  it('says the new one in rules, routes, quotes, defaults, narrowing, promises, closings and walks, and nowhere else', () => {
    const next = applyEdits(made, renameChoiceEdits(made, { list: 'shores' }, 'north', 'n')).form
    const text = JSON.stringify(next)
    expect(rulesOf(next).map(r => r.text)).toEqual([
      'coast = "n"',
      'if true then "n" else "south"',
      'row.coast = coast',
      'coast in ["n", "south"] and harbour != "north"',
      'parts.north = "ok"',
      'coast = "n"',
      'coast != "n"',
    ])
    expect(text).toContain('Cold: {{ if coast = \\"n\\" then \\"north wind\\" else')
    expect(text).toContain('Bye {{ if coast = \\"n\\"')
    expect(text).toContain('"under":{"question":"coast","option":"n"}')
    expect(next.lists?.[1]?.rows.map(r => r.coast)).toEqual(['n', 'south'])
    expect(next.walks?.[0]?.answers).toEqual({ coast: 'n', name: 'north', parts: { north: 'ok' } })
    expect(next.walks?.[0]?.expect.values).toEqual({ coast: 'n' })
  })

  it('of a row of a grid follows it through paths and walks', () => {
    const at = { question: 'item/parts', field: 'rows' } as const
    const next = applyEdits(made, renameChoiceEdits(made, at, 'north', 'n')).form
    expect(rulesOf(next).map(r => r.text)).toContain('parts.n = "ok"')
    expect(next.walks?.[0]?.answers.parts).toEqual({ n: 'ok' })
    expect(next.walks?.[0]?.answers.coast).toBe('north')
  })

  it('tells who says it', () => {
    const uses = new ChoiceUses(made, { list: 'shores' }, 'north').words()
    expect(uses.map(u => `${u.place.code} ${u.words}`)).toEqual([
      ...['where leads on when', 'coast begins with', 'name shown when', 'where closes so when'],
      ...['where promises that', 'told quotes it', 'name stands under it'],
    ])
  })
})

describe('giving a choice of a random form another code', () => {
  it('changes nothing of what is shown, asked and worked out', () => {
    let renamed = 0
    fc.assert(
      fc.property(
        smallForm.chain(form =>
          fc.tuple(
            fc.constant(form),
            fc.nat(),
            fc.tuple(...questionsOf(form).map(q => fc.option(fc.constantFrom(null, ...answersTo(q))))),
          ),
        ),
        ([form, which, given]) => {
          const choices = questionsOf(form).filter(isChoice)
          const target = choices[which % Math.max(1, choices.length)]
          // Two choices that are compared with each other are one no more when only one of them changes.
          const isCompared = rulesOf(form).some(r => /q\d (?:!?=) q\d/.test(r.text))
          if (!target || isCompared) return
          renamed += 1
          const to = (answer: Answer): Answer => {
            if (Array.isArray(answer)) return answer.map((a: Answer) => to(a))
            return answer === 'a' ? 'a_new' : answer
          }
          const options = target.options?.map(o => (o.code === 'a' ? { ...o, code: 'a_new' } : o))
          const own: Edit = { do: 'change', what: `item/${target.code}`, set: { options } }
          const at = { question: `item/${target.code}`, field: 'options' } as const
          const next = applyEdits(form, [...renameChoiceEdits(form, at, 'a', 'a_new'), own]).form
          const answers: Answers = Object.fromEntries(
            questionsOf(form).map((q, i) => [q.code, given[i] ?? null]),
          )
          const before = fill(planOf(form), answers, TODAY)
          const after = fill(
            planOf(next),
            { ...answers, [target.code]: to(answers[target.code] ?? null) },
            TODAY,
          )
          expect(after.inPlay).toEqual(before.inPlay)
          expect(after.required).toEqual(before.required)
          expect(after.path).toEqual(before.path)
        },
      ),
    )
    expect(renamed).toBeGreaterThan(0)
  })
})
