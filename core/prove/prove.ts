import { bringPatternEngine } from '../expressions/patternEngine'
import { runCheck } from './checks/check'
import type { Form } from '../form/definition'
import { CHECKS } from './checks'
import { withFolded } from './folded'
import { bySeverity, type Finding, type Verdict } from './finding'
import { Inquiry } from './goals/inquiry'
import { Memory } from './goals/memory'

// A form is proved by its patterns, too.
bringPatternEngine()

/**
 * Proves a form: every check, for all possible answers (docs/meaning.md says which are possible).
 * @param today the day from which `today()` is counted, as ISO date
 * @param memory what earlier proofs of the form decided; only what an edit can have touched is decided again
 * @returns the findings, faults first and then in the order of the form, and what was decided how
 */
export function prove(form: Form, today: string, memory?: Memory): Verdict {
  const steps = proveInSteps(form, today, memory)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value()
  }
}

/** The same, goal by goal: after each it may be asked what was found so far, or be left. */
export function* proveInSteps(
  form: Form,
  today: string,
  memory?: Memory,
): Generator<() => Verdict, () => Verdict> {
  const kept = memory ?? new Memory()
  for (;;) {
    const inquiry = new Inquiry(form, today, kept)
    const verdict = yield* askChecks(inquiry)
    // What the evaluator does not agree with is undecided now: the checks say so.
    if (inquiry.confirm()) return verdict
  }
}

/** Every check in turn: after each goal it may be asked what was found so far. */
function* askChecks(inquiry: Inquiry): Generator<() => Verdict, () => Verdict> {
  const order = new Map<string | null, number>(inquiry.model.plan.places.map(p => [p.address, p.order]))
  const findings: Finding[] = []
  const verdict = (): Verdict => ({
    findings: inquiry.facts
      .readingAll(() => withFolded(inquiry, findings))
      .toSorted((a, b) => bySeverity(a, b) || (order.get(a.address) ?? -1) - (order.get(b.address) ?? -1)),
    tally: { ...inquiry.tally },
  })
  for (const check of CHECKS) {
    for (const found of runCheck(check, inquiry)) {
      if (found) findings.push(found)
      else yield verdict
    }
    yield verdict
  }
  return verdict
}
