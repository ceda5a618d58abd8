import type { Finding } from './finding'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isTaken } from '../fill/wayOut'
import { CHECKS } from './checks'
import { Inquiry } from './goals/inquiry'
import { findingsOf } from './checks/check'
import { namesIn } from '../expressions/tree'
import { allProblems, problemsIn, type Filled } from '../fill/fill'
import { isNeverInPlay } from './checks/neverInPlay'
import type { Form } from '../form/definition'
import { smallForm } from '../../tests/support/forms'
import { isMissingBehind, skipsOver } from '../../tests/support/restsOn'
import { RUNS, states, TODAY } from '../../tests/support/states'
import type { Plan, PlannedSection, PlannedQuestion } from '../fill/planned'

/** What of rules was seen to happen in some state: `q0 required`, `s0 route 1`, `finish`. */
function tryAll(form: Form, inquiry: Inquiry): Set<string> {
  const seen = new Set<string>()
  const { plan } = inquiry.model
  for (const { section, state } of states(form, inquiry)) {
    const planned = plan.sections[section]
    if (!planned) continue
    for (const what of planned.questions.flatMap(q => seenOfQuestion(plan, state, planned, q))) seen.add(what)
    const skipping = plan.skips.filter(s => s.from.section === section && isTaken(s, state))
    for (const skip of skipping) seen.add(`${skip.from.code} skip ${skip.index}`)
    if (problemsIn(state, planned).length > 0) continue
    const taken = planned.routes.findIndex(r => r.when === null || r.when.run(state.values) === true)
    // A skip that leads out of the section comes before its routes.
    if (!skipping.some(s => s.target > section)) seen.add(`${planned.place.code} route ${taken}`)
    if (allProblems(state).length === 0) seen.add('finish')
  }
  return seen
}

function seenOfQuestion(plan: Plan, state: Filled, section: PlannedSection, q: PlannedQuestion): string[] {
  if (!state.inPlay[q.place.order]) return []
  const seen = ['in play']
  const { node } = q.place
  const rule = 'required' in node && typeof node.required === 'string' ? node.required : ''
  if (state.required[q.slot]) seen.push('required')
  else if (
    !isMissingBehind(q.place, [rule, ...skipsOver(q.place, plan)].join(' '), plan.places, state, section)
  )
    seen.push('not required')
  const isAnswered = state.values[q.slot] !== null
  for (const check of q.checks)
    // What is missing is told before any check; a check is met by an answer.
    seen.push(
      ...seenOfCheck(plan, state, check).filter(
        what => isAnswered || (what === 'false' && !state.required[q.slot]),
      ),
    )
  return seen.map(what => `${q.place.code} ${what}`)
}

function seenOfCheck(plan: Plan, state: Filled, check: PlannedQuestion['checks'][number]): string[] {
  const isKnown = (name: string) => {
    const q = plan.byCode.get(name)
    return !state.inPlay[q?.place.order ?? -1] || state.values[q?.slot ?? -1] !== null
  }
  const isFull = namesIn(check.expr!).every(isKnown)
  const isFalse = check.run(state.values) === false
  return [...(isFalse ? ['false'] : []), ...(isFull ? ['asked'] : []), ...(isFull && !isFalse ? ['met'] : [])]
}

/** The findings that follow from what was seen to happen. */
function expectedOf(inquiry: Inquiry, seen: ReadonlySet<string>): string[] {
  const { plan } = inquiry.model
  const ofQuestions = plan.questions.flatMap(q => expectedOfQuestion(q, seen))
  const ofRoutes = plan.sections
    .filter(s => !isNeverInPlay(inquiry, s.place.order))
    .flatMap(s =>
      s.routes
        .filter((_, i) => !seen.has(`${s.place.code} route ${i}`))
        .map(r => `${s.place.code} never-taken ${r.index}`),
    )
  const ofSkips = plan.skips
    .filter(s => seen.has(`${s.from.code} in play`) && !seen.has(`${s.from.code} skip ${s.index}`))
    .map(s => `${s.from.code} never-skips ${s.index}`)
  return [...ofQuestions, ...ofRoutes, ...ofSkips]
}

function expectedOfQuestion(
  { place, required, checks }: PlannedQuestion,
  seen: ReadonlySet<string>,
): string[] {
  const has = (what: string) => seen.has(`${place.code} ${what}`)
  if (!has('in play')) return []
  const hasRule = required !== null && required !== true
  const expected = []
  if (hasRule && !has('required')) expected.push('never-required')
  if (hasRule && !has('not required')) expected.push('always-required')
  if (checks.length > 0 && has('asked') && !has('met')) expected.push('unmeetable-valid 0')
  if (checks.length > 0 && !has('false')) expected.push('idle-valid 0')
  return expected.map(e => `${place.code} ${e}`)
}

const COMPARED = new Set([
  ...['never-required', 'always-required', 'unmeetable-valid', 'idle-valid'],
  ...['never-taken', 'shadowed-route', 'never-skips', 'unreachable-finish'],
])
const brief = (f: Finding) =>
  `${f.at} ${f.code.replace('shadowed-route', 'never-taken')} ${f.rule?.split(':')[2] ?? ''}`.trim()
const NO_FINISH = 'null unreachable-finish'

describe('against brute force', () => {
  it('required, valid and route rules, and the finish: the same verdict on random forms', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const inquiry = new Inquiry(form, TODAY)
        const seen = tryAll(form, inquiry)
        const all = CHECKS.flatMap(check => findingsOf(check, inquiry))
        const found = all.filter(f => COMPARED.has(f.code)).map(brief)
        const expected = expectedOf(inquiry, seen)
        if (found.includes(NO_FINISH)) expect(seen.has('finish')).toBe(false)
        // A check that nothing meets says by itself that nobody gets through.
        const { questions } = inquiry.model.plan
        const isUnmet = questions.some(q => q.checks.length > 0 && !seen.has(`${q.place.code} met`))
        // So does what keeps everybody from a section before it.
        const isSaid = all.some(f => f.code === 'unreachable-section' || f.code === 'no-answer-fits')
        const isStuck = !seen.has('finish') && !isUnmet && !isSaid
        if (isStuck) expected.push(NO_FINISH)
        const compared = found.filter(f => isStuck || f !== NO_FINISH)
        expect(compared.sort()).toEqual(expected.sort())
      }),
      { numRuns: Math.ceil(RUNS / 3) },
    )
  })
})
