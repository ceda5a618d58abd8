import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Form, Item } from '../form/definition'
import { tellProblems } from '../parties/tellProblems'
import { redactForParty } from '../parties/redact'
import { prove } from '../prove/prove'
import { allProblems, answersInPlay, fill } from './fill'
import { planOf } from './plan'

const TODAY = '2026-11-29'
const MESSAGE = 'We can’t write to this address.'
const ROWS = ['rake@mud.example', 'Tar@Quay.example', 'oakum']
const formWith = (takes: 'these' | 'others', more: Item[] = []): Form => ({
  tobbin: 2,
  code: 'club',
  title: 'Club',
  lists: [{ code: 'known', rows: ROWS.map(code => ({ code, label: 'never to be told' })) }],
  sections: [
    {
      code: 'one',
      title: 'One',
      items: [
        {
          kind: 'question',
          type: 'text',
          code: 'who',
          label: 'Who',
          required: true,
          table: { list: 'known', takes, message: MESSAGE },
        },
        ...more,
      ],
    },
  ],
})
const typed = fc.oneof(
  fc.constantFrom(...ROWS, ...ROWS.map(r => ` ${r.toUpperCase()} `)),
  fc.string({ minLength: 1, maxLength: 20 }).filter(text => text.trim() !== ''),
)

describe('an answer that is looked up in a list', () => {
  test('is taken when it is one of these, or none of them; said in its own words; and the list stays on the server', () => {
    fc.assert(
      fc.property(fc.constantFrom('these' as const, 'others' as const), typed, (takes, who) => {
        const form = formWith(takes)
        const filled = fill(planOf(form), { who }, TODAY)
        const row = ROWS.find(r => r.toLowerCase() === who.trim().toLowerCase())
        const isTaken = (row !== undefined) === (takes === 'these')
        expect(allProblems(filled).map(p => p.sentence)).toEqual(isTaken ? [] : [MESSAGE])
        expect(tellProblems(filled, null, { who })).toEqual(
          isTaken ? [] : [{ path: 'who', sentence: MESSAGE }],
        )
        if (isTaken) expect(answersInPlay(filled)).toEqual({ who: row ?? who })
        const sent = JSON.stringify(redactForParty(filled, null, {}))
        for (const secret of [...ROWS, 'known', 'never to be told', MESSAGE])
          expect(sent).not.toContain(secret)
      }),
    )
  })
  test('is decided by the prover: only what is taken can be asked for', () => {
    const shown = (code: string, rule: string): Item => ({
      kind: 'question',
      type: 'yesNo',
      code,
      label: code,
      shownWhen: rule,
    })
    const rules = [shown('of_list', 'who = "oakum"'), shown('of_none', 'who = "pitch"')]
    const neverShown = (takes: 'these' | 'others') =>
      prove(formWith(takes, rules), TODAY)
        .findings.filter(f => f.code === 'never-shown')
        .map(f => f.at)
    expect(neverShown('these')).toEqual(['of_none'])
    expect(neverShown('others')).toEqual(['of_list'])
  })
})
