import { isOutOfPlay } from '../../core/prove/checks/neverInPlay'
import { expect } from 'vitest'
import type { Answers } from '../../core/form/answers'
import { allProblems, fill, problemsIn } from '../../core/fill/fill'
import type { Form } from '../../core/form/definition'
import { neverShown } from '../../core/prove/checks/neverShown'
import { promiseBroken } from '../../core/prove/checks/promiseBroken'
import { unreachableSection } from '../../core/prove/checks/unreachableSection'
import { Inquiry } from '../../core/prove/goals/inquiry'
import { Memory } from '../../core/prove/goals/memory'
import { findingsOf } from '../../core/prove/checks/check'

export const TODAY = '2026-11-24'

/** The places that come into play in some state, and whether the first promise is broken in some complete response, by trying answers. */
export function tried(
  { model: { plan } }: Inquiry,
  all: Iterable<Answers>,
): { seen: Set<string>; broken: boolean } {
  const seen = new Set<string>()
  let broken = false
  for (const answers of all) {
    const state = fill(plan, answers, TODAY)
    let isComplete = true
    for (const section of state.path) {
      for (const place of plan.places)
        if (place.section === section && state.inPlay[place.order]) seen.add(place.code)
      const planned = plan.sections[section]
      isComplete = planned !== undefined && problemsIn(state, planned).length === 0
      if (!isComplete) break
    }
    if (isComplete && !broken && plan.promises[0] && allProblems(state).length === 0)
      broken = plan.promises[0].run(state.values) !== true
  }
  return { seen, broken }
}

interface Proved {
  inquiry: Inquiry
  shown: Set<string>
  broken: boolean
  isOpen: boolean
}

/** What the prover says of the same. */
export function proved(form: Form, memory = new Memory()): Proved {
  const inquiry = new Inquiry(form, TODAY, memory)
  const findings = [unreachableSection, neverShown, promiseBroken].flatMap(c => findingsOf(c, inquiry))
  // What the evaluator does not agree with is undecided from then on.
  if (!inquiry.confirm()) return proved(form, memory)
  const { plan } = inquiry.model
  const shown = plan.places.filter(p => !isOutOfPlay(inquiry, { place: p })).map(p => p.code)
  return {
    inquiry,
    shown: new Set(shown),
    broken: findings.some(f => f.code === 'promise-broken'),
    isOpen: findings.some(f => f.code === 'undecided'),
  }
}

/** The prover and trying all answers say the same. */
export function expectSame(form: Form, all: Iterable<Answers>) {
  const { inquiry, shown, broken, isOpen } = proved(form)
  const found = tried(inquiry, all)
  expect(shown).toEqual(found.seen)
  expect(broken).toBe(found.broken)
  expect(isOpen).toBe(false)
}
