import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { realForm } from '../../tests/bench/real/realForm'
import { readFormText } from '../form/read'
import { prove } from './prove'
import type { Finding } from './finding'

const TODAY = '2026-11-24'
const FOLDER = new URL('../../tests/fixtures/cases/', import.meta.url)

/** What must be said of a form: at each of these places, one of these codes (any, where none is named). */
interface Expected {
  said?: readonly { at: readonly string[]; code?: string; rule?: number }[]
  silent?: readonly string[]
  decided?: true
  /** How many answers the example of the broken promise has. */
  answers?: number
}
const at = (...places: string[]) => ({ at: places })
const coded = (code: string, ...places: string[]) => places.map(place => ({ at: [place], code }))

const CASES: Readonly<Record<string, Expected>> = {
  limit_date_min_over_max: { said: coded('no-answer-fits', 'd'), decided: true },
  limit_date_min_over_max_optional: { said: coded('no-answer-fits', 'd'), decided: true },
  limit_text_pattern_length: { said: coded('no-answer-fits', 'd'), decided: true },
  limit_choices_least_most: { said: coded('no-answer-fits', 'd'), decided: true },
  limit_repeat: { said: coded('no-answer-fits', 'g'), decided: true },
  min_max_promise: { said: coded('no-answer-fits', 'm'), silent: ['promise-broken'], decided: true },
  least_alone: { said: coded('no-answer-fits', 'm'), decided: true },
  check_vs_offer: { said: [at('hull', 'n')], decided: true },
  check_vs_narrow: { said: [at('depot', 'n')], decided: true },
  check_vs_lock: { said: [{ at: [''], code: 'unreachable-finish' }], silent: ['idle-valid'], decided: true },
  two_checks_same_place: {
    said: [
      { at: ['n'], code: 'unmeetable-valid', rule: 1 },
      { at: ['n'], code: 'idle-valid', rule: 0 },
      { at: ['n'], code: 'idle-valid', rule: 2 },
    ],
    decided: true,
  },
  opaque_routes_text: { said: [at('s1')] },
  optional_cascade_parent: { said: [at('depot', 'region')], decided: true },
  optional_cascade_parent_promise: {
    said: [at('depot', 'region')],
    silent: ['promise-broken'],
    decided: true,
  },
  witness_default: {
    answers: 1,
    said: [{ at: [''], code: 'promise-broken' }, ...coded('never-shown', 'u')],
    decided: true,
  },
  witness_beside_days: { said: [{ at: [''], code: 'promise-broken' }] },
  witness_beside_product: { said: [{ at: [''], code: 'promise-broken' }] },
  limit_default_out_of_range: { said: coded('default-not-allowed', 'd'), decided: true },
  invalid_only: { said: coded('shown-to-refused', 'late'), decided: true },
  age_gap: { said: coded('answers-between', 'years'), decided: true },
  gate_optional: { said: coded('open-gate', 'music'), decided: true },
  not_no: { said: coded('blank-as-yes', 'cigarettes', 'which'), decided: true },
  none_not_alone: { said: coded('none-with-others', 'diet'), decided: true },
  blank_operand: { said: coded('total-goes-blank', 'total'), decided: true },
  hidden_operand: { said: coded('total-goes-blank', 'total'), decided: true },
  forward_ref: { said: coded('asked-below', 'until'), decided: true },
  twin_left: { said: coded('twin-left', 'a2_end', 'a2_own'), decided: true },
  precedence: { said: coded('mixed-and-or', 't'), decided: true },
  all_call: {
    said: [...coded('never-shown', 'd', 'e', 'f'), ...coded('never-offered', 'c')],
    decided: true,
  },
  any_text_group: { said: coded('always-shown', 'b', 'c'), decided: true },
  check_over_entries: {
    said: [{ at: [''], code: 'promise-broken' }, ...coded('never-shown', 'odd')],
    decided: true,
  },
  days_number: {
    said: [{ at: [''], code: 'promise-broken' }, ...coded('never-shown', 't1', 't2', 't3', 't4')],
    decided: true,
  },
  opaque_routes: { said: [{ at: ['s1'], code: 'shadowed-route', rule: 1 }], decided: true },
  opaque_two_sided: { said: coded('never-shown', 'both', 'neg'), decided: true },
  hard_pigeon_10: { said: coded('unreachable-section', 'e'), decided: true },
  hard_slots_10: { silent: ['promise-broken'], decided: true },
  hard_multi_20: {
    said: [{ at: [''], code: 'promise-broken' }, ...coded('never-shown', 'u')],
    decided: true,
  },
  hard_texts_many: { silent: ['never-shown', 'promise-broken'], decided: true },
  hard_shares_10: { said: coded('never-shown', 'v0', 'v8'), silent: ['promise-broken'], decided: true },
  hard_ticks_30: { silent: ['never-shown', 'promise-broken'], decided: true },
  hard_shifts_10: { said: coded('never-shown', 'much'), silent: ['promise-broken'], decided: true },
  hard_uniq_int_7: { said: coded('never-shown', 't', 'u'), silent: ['promise-broken'], decided: true },
  hard_roster: { said: coded('never-shown', 'n'), silent: ['promise-broken'], decided: true },
  hard_ages: {
    said: coded('never-shown', 's0', 's1', 's2', 's3', 's4', 'o0', 'o1', 'o2', 'o3'),
    silent: ['promise-broken'],
    decided: true,
  },
  turns_handoff_small: {
    said: [
      ...coded('ungiven-turn', 'mail'),
      { at: [''], code: 'promise-broken', rule: 0 },
      { at: [''], code: 'promise-broken', rule: 1 },
    ],
    decided: true,
  },
  turns_handoff_required_mail: { said: coded('ungiven-turn', 'mail'), decided: true },
  // The last turn comes only after a yes: what it would say after a no never shows.
  turns_handoff_back: { said: coded('never-shown', 'why'), silent: ['promise-broken'], decided: true },
  run_on_last: { said: coded('falls-through', 'mail_sec'), decided: true },
  run_on_one_named: { said: coded('falls-through', 'mail_sec'), decided: true },
  run_on_two: { said: coded('falls-through', 'm', 'p'), decided: true },
  run_on_wanted: { silent: ['falls-through'], decided: true },
  turns_entries: { silent: ['never-shown'], decided: true },
  turns_nobody_fills: { said: coded('unfilled-question', 'start', 'dept', 'boss_mail'), decided: true },
}

const isAbout = ({ at: place, conflict }: Finding, places: readonly string[]) =>
  places.includes(place ?? '') || conflict.some(c => places.includes(c.code))

describe('forms that the prover must be right about', () => {
  it.each(Object.keys(CASES))('%s', name => {
    const { said = [], silent = [], decided, answers } = CASES[name] ?? {}
    const read = readFormText(readFileSync(new URL(`${name}.form.json`, FOLDER), 'utf8'))
    if (!('form' in read) || !read.form) throw new Error(`${name} can’t be read.`)
    const { findings, tally } = prove(read.form, TODAY)
    for (const { at: places, code, rule } of said) {
      const found = findings.filter(f => isAbout(f, places) && (code === undefined || f.code === code))
      const ruled = found.filter(f => rule === undefined || f.rule?.endsWith(`:${rule}`))
      expect(ruled, `${code ?? 'something'} at ${places.join(' or ')}`).not.toEqual([])
    }
    for (const code of silent) expect(findings.map(f => f.code)).not.toContain(code)
    if (decided) expect(tally.undecided).toBe(0)
    const broken = findings.find(f => f.code === 'promise-broken')
    if (answers !== undefined) expect(Object.keys(broken?.witness ?? {})).toHaveLength(answers)
    // A fault has its example, or rests on rules that it names.
    for (const f of findings.filter(f => f.code === 'promise-broken')) expect(f.witness).not.toBeNull()
  })
})

describe('forms put together as people write them', () => {
  it.each([1, 2, 3])('have every rule decided and no fault: seed %i', seed => {
    const { findings, tally } = prove(realForm(140, seed), TODAY)
    expect(tally.undecided).toBe(0)
    expect(findings.filter(f => f.severity === 'fault')).toEqual([])
  })
})
