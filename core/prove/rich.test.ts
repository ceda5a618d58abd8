import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { RUNS } from '../../tests/support/states'
import { sharedForm } from '../../tests/support/sharedForms'
import { seededRandom } from '../fill/draw'
import { answersInPlay, fill, problemsIn } from '../fill/fill'
import { drawPlausibleAnswers } from '../fill/plausible'
import { planOf } from '../fill/plan'
import type { Plan } from '../fill/planned'
import type { Answers } from '../form/answers'
import type { Form } from '../form/definition'
import { DONE, type HandOff } from '../form/turns'
import { rulesOf } from '../form/rules'
import { listPlaces, type Place } from '../form/walk'
import { accessViewOf, mayFill, maySee } from '../parties/access'
import { nextTurn } from '../parties/turns'
import { prove } from './prove'

const TODAY = '2026-11-24'
const RESPONSES = 12
const FORMS = Math.ceil(RUNS / 15)

/** The same form with hand-offs by conditions that stand in it. */
function withHandOffs(form: Form, seed: number): Form {
  const next = seededRandom(seed)
  const conditions = rulesOf(form, listPlaces(form)).flatMap(r => (r.kind === 'shownWhen' ? [r.text] : []))
  const [first, second] = form.turns ?? []
  const when = conditions[Math.floor(next() * conditions.length)]
  if (!first || !second || when === undefined) return form
  const handOff: HandOff[] = [{ when, to: next() < 0.5 ? DONE : second.code }]
  if (next() < 0.5) handOff.push({ to: next() < 0.3 ? DONE : second.code })
  if (next() < 0.5) return { ...form, turns: [{ ...first, handOff }, second] }
  // Two more, the first of them open at once with the second, from where one of them may be passed over.
  const [last] = form.sections.slice(-1)
  const beside = {
    ...second,
    code: 'beside',
    alongside: second.code,
    access: { [last?.code ?? '']: 'fills' as const },
  }
  const after = { ...second, code: 'after' }
  const led = { ...second, handOff: [{ when, to: next() < 0.5 ? DONE : 'after' }] }
  return { ...form, turns: [{ ...first, handOff }, led, beside, after] }
}

/** What was seen in responses: what came into play before whoever may see it, and the turns that were taken. */
interface Seen {
  places: Set<string>
  turns: Set<string>
}

/** Turn after turn, each with what it may fill, as long as what it and those before fill is complete. */
function answerInTurns(plan: Plan, answers: Answers, seen: Seen) {
  let given: Record<string, Answers[string]> = {}
  const filling: ((place: Place) => boolean)[] = []
  let turn = plan.form.turns?.[0] ?? null
  while (turn !== null) {
    const view = accessViewOf(plan.form, plan.places, turn)
    filling.push(place => mayFill(view, place))
    for (const place of plan.places)
      if (place.kind !== 'section' && place.entryOf === null && mayFill(view, place) && place.code in answers)
        given[place.code] = answers[place.code] ?? null
    const state = fill(plan, given, TODAY)
    seen.turns.add(turn.code)
    // What is not in play when a turn answers is not kept.
    given = { ...answersInPlay(state) }
    const isComplete = noteSections(
      plan,
      state,
      seen,
      place => maySee(view, place),
      place => filling.some(fills => fills(place)),
    )
    if (!isComplete) return
    turn = nextTurn(state, turn)
  }
}

/** Notes what is in play in each section up to the first that is not complete; whether all are. */
function noteSections(
  plan: Plan,
  state: ReturnType<typeof fill>,
  seen: Seen,
  sees: (place: Place) => boolean,
  counts: (place: Place) => boolean,
): boolean {
  for (const index of state.path) {
    const section = plan.sections[index]
    if (!section) return false
    for (const place of plan.places)
      if (place.section === index && state.inPlay[place.order] && sees(section.place))
        seen.places.add(place.code)
    if (problemsIn(state, section).some(p => counts(p.step.place))) return false
  }
  return true
}

const IMPOSSIBLE = ['never-shown', 'never-shown-inside', 'unreachable-section', 'unreachable-turn']

describe('what happens in responses in turns to forms with all features', () => {
  it('is never called impossible', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), seed => {
        const form = withHandOffs(sharedForm(seed), seed)
        const plan = planOf(form)
        const seen: Seen = { places: new Set(), turns: new Set() }
        const random = seededRandom(seed)
        for (let i = 0; i < RESPONSES; i++) {
          const answers = drawPlausibleAnswers(plan, {}, TODAY, random, () => ['oak', 'elm'])
          if (answers) answerInTurns(plan, answers, seen)
        }
        const wrong = prove(form, TODAY).findings.filter(
          f =>
            IMPOSSIBLE.includes(f.code) &&
            (f.code === 'unreachable-turn' ? seen.turns.has(f.turn ?? '') : seen.places.has(f.at ?? '')),
        )
        expect(wrong.map(f => `${f.code} ${f.at}`)).toEqual([])
      }),
      // The first: a later answer takes a question out of play for which an earlier hand-off had asked.
      { numRuns: FORMS, examples: [[16083879]] },
    )
  })
})
