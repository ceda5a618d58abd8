import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answersTo, askedOf, condition, questionsOf, smallForm } from '../../../tests/support/forms'
import { acts, stepsOf } from '../../../tests/support/formEdits'
import { TODAY } from '../../../tests/support/states'
import { richForm } from '../../../tests/support/richForms'
import { seededRandom } from '../../fill/draw'
import { allProblems, fill } from '../../fill/fill'
import { drawPlausibleAnswers } from '../../fill/plausible'
import { planOf } from '../../fill/plan'
import type { Answer, Answers } from '../../form/answers'
import { applyEdits, EditError } from '../../form/edits'
import type { Form } from '../../form/definition'
import { listPlaces } from '../../form/walk'
import { example, section, text, whole, yesNo } from '../checks/exampleForms'
import { modelOf } from '../model/model'
import { listAspects } from './aspects'
import { decideEffects } from './effects'
import { decidePromises } from './keptPromises'

const FORMS = Math.ceil(Number(process.env.PROVE_FORMS ?? 1500) / 5)

/** All sets of answers to the questions of two forms, each of them given or not. */
function* allAnswers(forms: readonly Form[]): Generator<Answers> {
  const given = new Map<string, Answer[]>()
  for (const form of forms)
    for (const question of questionsOf(form))
      given.set(question.code, [...new Set([...(given.get(question.code) ?? []), ...answersTo(question)])])
  const asked = [...given]
  function* combine(i: number, answers: Answers): Generator<Answers> {
    const next = asked[i]
    if (!next) return yield answers
    yield* combine(i + 1, answers)
    for (const answer of next[1]) yield* combine(i + 1, { ...answers, [next[0]]: answer })
  }
  yield* combine(0, {})
}

/** Another rule, or none, at one place; or what designers do elsewhere. */
function changed(
  form: Form,
  kind: number,
  at: number,
  rule: string,
  done: readonly (readonly [number, number])[],
): Form {
  const places = listPlaces(form)
  const place = places[at % places.length]
  if (!place) return form
  const what = place.address
  try {
    if (kind === 0) return applyEdits(form, [{ do: 'change', what, set: { shownWhen: rule } }]).form
    if (kind === 1) return applyEdits(form, [{ do: 'change', what, set: { shownWhen: null } }]).form
    if (kind === 2 && place.kind === 'question')
      return applyEdits(form, [{ do: 'change', what, set: { required: rule } }]).form
    return stepsOf(form, done.slice(0, 2)).reduce((was, edits) => applyEdits(was, edits).form, form)
  } catch (error) {
    if (error instanceof EditError) return form
    throw error
  }
}

/** By trying all answers: the aspects that some answers show to be otherwise. */
function tried(before: Form, after: Form): Set<string> {
  const [was, is] = [planOf(before), planOf(after)]
  const aspects = listAspects(was, is)
  const found = new Set<string>()
  for (const answers of allAnswers([before, after])) {
    const [one, other] = [fill(was, answers, TODAY), fill(is, answers, TODAY)]
    for (const a of aspects)
      if (a.seen(one) !== a.seen(other))
        found.add(`${keyOf({ ...a, option: a.option?.label ?? null })} ${a.seen(other)}`)
  }
  return found
}

describe('what a version does otherwise', () => {
  it('is what trying all answers finds, and most of it is decided', () => {
    const tally = { same: 0, differs: 0, undecided: 0 }
    fc.assert(
      fc.property(
        smallForm.chain(form =>
          fc.tuple(fc.constant(form), fc.nat(3), fc.nat(20), condition(askedOf(form)), acts),
        ),
        ([before, kind, at, rule, done]) => {
          const after = changed(before, kind, at, rule, done)
          fc.pre(isSmall(before, after))
          const all = tried(before, after)
          const isCircular = [before, after].some(form => modelOf(form, TODAY).circular.size > 0)
          const effects = decideEffects(before, after, TODAY)
          if (!isCircular) for (const effect of effects) tally[effect.outcome] += 1
          const open = new Set(effects.filter(e => e.outcome === 'undecided').map(keyOf))
          const otherwise = effects.filter(e => e.outcome === 'differs').map(e => `${keyOf(e)} ${e.is}`)
          expect(otherwise.filter(key => !all.has(key))).toEqual([])
          const decided = [...all].filter(key => !open.has(key.replace(/ (?:true|false)$/, '')))
          expect(decided.filter(key => !otherwise.includes(key))).toEqual([])
        },
      ),
      { numRuns: FORMS },
    )
    expect(tally.undecided).toBeLessThan(0.02 * (tally.same + tally.differs))
  })
})

/** By trying all answers: whether a complete response of a form breaks its first promise. */
function isBroken(form: Form): boolean {
  const plan = planOf(form)
  for (const answers of allAnswers([form])) {
    const state = fill(plan, answers, TODAY)
    if (allProblems(state).length === 0 && plan.promises[0]?.run(state.values) !== true) return true
  }
  return false
}

/** Promises that a form may well keep: a condition that is never unknown, or that something is answered. */
const promiseOf = (form: Form): fc.Arbitrary<string> =>
  fc.oneof(
    condition(askedOf(form)).map(text => `(${text}) or not (${text})`),
    fc.constantFrom(...askedOf(form)).map(({ code }) => `${code} != null`),
  )

describe('the promises of a version', () => {
  it('hold no more where trying all answers finds a response that breaks them', () => {
    const tally = { kept: 0, broken: 0, untold: 0, undecided: 0 }
    fc.assert(
      fc.property(
        smallForm.chain(form =>
          fc.tuple(...[fc.constant(form), fc.nat(3), fc.nat(20), condition(askedOf(form)), promiseOf(form)]),
        ),
        acts,
        ([form, kind, at, rule, holds], done) => {
          const promises = [{ code: 'p', text: 'P', holds }]
          const before = { ...form, promises }
          const after = changed(form, kind, at, rule, done)
          fc.pre(isSmall(before, after))
          fc.pre([before, after].every(f => modelOf(f, TODAY).circular.size === 0))
          const [found] = decidePromises(before, after, TODAY)
          if (!found) return
          tally[found.outcome] += 1
          expect(isBroken(before)).toBe(false)
          if (found.outcome === 'untold' || found.outcome === 'undecided') return
          const later = { ...after, promises }
          expect([holds, isBroken(later)]).toEqual([holds, found.outcome === 'broken'])
          if (!found.witness) return
          const plan = planOf(later)
          const shown = fill(plan, found.witness, found.today)
          expect(allProblems(shown)).toEqual([])
          expect(plan.promises[0]?.run(shown.values)).not.toBe(true)
        },
      ),
      { numRuns: FORMS },
    )
    expect(Math.min(tally.kept, tally.broken)).toBeGreaterThan(0)
    expect(tally.undecided).toBeLessThan(0.05 * (tally.kept + tally.broken))
  })
})

it('an option that now counts otherwise makes a difference to what rests on it', () => {
  const withPoints = (points: number): Form =>
    example(
      section('s', [
        {
          ...{ kind: 'question', code: 'hull', type: 'choice', label: 'Hull' },
          options: [{ code: 'w', label: 'Wood', points }],
        },
        text('why', { shownWhen: 'hull.points > 3' }),
      ]),
    )
  const effects = decideEffects(withPoints(1), withPoints(5), TODAY).filter(e => e.code === 'why')
  const asked = effects.filter(e => e.kind === 'asked')
  expect(asked.map(e => e.outcome)).not.toContain('same')
  expect(asked[0]).toMatchObject({ outcome: 'differs', was: false, is: true, witness: { hull: 'w' } })
})

it('entries whose questions rest on what stands outside of them are not taken for never answered', () => {
  const form: Form = example(
    section('s', [
      { kind: 'question', code: 'sails', type: 'yesNo', label: 'Sails' },
      {
        ...{ kind: 'group', code: 'masts', title: 'Masts', repeat: { min: 1, max: 3 } },
        items: [whole('height', { shownWhen: 'sails' })],
      },
      text('why', { shownWhen: 'some m in masts satisfies m.height > 5' }),
    ]),
  )
  const after = applyEdits(form, [{ do: 'remove', what: 'item/why' }]).form
  const asked = decideEffects(form, after, TODAY).filter(e => e.code === 'why' && e.kind === 'asked')
  expect(asked.map(e => e.outcome)).not.toContain('same')
})

it('entries that are only asked for by a value outside of them are not taken for never given', () => {
  const form: Form = example(
    section('s', [
      whole('tons'),
      { kind: 'question', type: 'value', code: 'double', label: 'Double', value: 'tons * 2' },
      {
        ...{
          kind: 'group',
          code: 'masts',
          title: 'Masts',
          repeat: { min: 1, max: 3 },
          shownWhen: 'double > 4',
        },
        items: [whole('height')],
      },
      text('why', { shownWhen: 'some m in masts satisfies m.height > 5' }),
    ]),
  )
  const after = applyEdits(form, [{ do: 'remove', what: 'item/why' }]).form
  const asked = decideEffects(form, after, TODAY).filter(e => e.code === 'why' && e.kind === 'asked')
  expect(asked.map(e => e.outcome)).not.toContain('same')
})

it('a route whose section was removed leads nowhere, though it reads as before', () => {
  const form: Form = example(
    section('a', [yesNo('ready')], { routes: [{ when: 'ready = true', to: 'c' }] }),
    section('b', [text('more')]),
    section('c', [text('last')]),
  )
  const after = applyEdits(form, [{ do: 'remove', what: 'section/c' }]).form
  const asked = decideEffects(form, after, TODAY).filter(e => e.address === 'section/b' && e.kind === 'asked')
  expect(asked.map(e => e.outcome)).toEqual(['differs'])
})

describe('what a version of a form with all features does otherwise', () => {
  it('is never called the same where a likely response shows a difference', () => {
    let decided = 0
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), acts, (seed, done) => {
        const before = richForm(seed)
        const after = stepsOf(before, done).reduce((form, edits) => applyEdits(form, edits).form, before)
        const effects = decideEffects(before, after, TODAY)
        const same = new Set(effects.filter(e => e.outcome === 'same').map(keyOf))
        decided += effects.filter(e => e.outcome !== 'undecided').length
        const [was, is] = [planOf(before), planOf(after)]
        const random = seededRandom(seed)
        for (let i = 0; i < 20; i++) {
          const answers =
            drawPlausibleAnswers(i % 2 ? was : is, {}, TODAY, random, () => ['oak', 'elm']) ?? {}
          const [one, other] = [fill(was, answers, TODAY), fill(is, answers, TODAY)]
          const otherwise = listAspects(was, is).filter(a => a.seen(one) !== a.seen(other))
          expect(
            otherwise.map(a => keyOf({ ...a, option: a.option?.label ?? null })).filter(k => same.has(k)),
          ).toEqual([])
        }
        for (const { witness, was: then, is: now, outcome } of effects)
          expect([outcome, witness !== null]).toEqual([outcome, outcome === 'differs' && then !== now])
      }),
      { numRuns: Math.ceil(FORMS / 10) },
    )
    expect(decided).toBeGreaterThan(100)
  })
})

const keyOf = ({ kind, address, option }: { kind: string; address: string; option: string | null }) =>
  `${kind} ${address} ${option ?? ''}`
/** So few sets of answers that all are tried. */
function isSmall(...forms: Form[]): boolean {
  const codes = new Map(forms.flatMap(questionsOf).map(q => [q.code, answersTo(q).length + 1]))
  return [...codes.values()].reduce((product, n) => product * n, 1) <= 4_000
}
