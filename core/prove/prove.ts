import type { Form } from '../form/definition'
import { CHECKS } from './checks'
import { bySeverity, type Verdict } from './finding'
import { Inquiry } from './inquiry'

/**
 * Proves a form: every check, for all possible answers (docs/meaning.md says which are possible).
 * @param today the day from which `today()` is counted, as ISO date
 * @returns the findings, faults first and then in the order of the form, and what was decided how
 */
export function prove(form: Form, today: string): Verdict {
  const inquiry = new Inquiry(form, today)
  const findings = CHECKS.flatMap(check => check.run(inquiry))
  const order = new Map<string | null, number>(inquiry.model.plan.places.map(p => [p.address, p.order]))
  findings.sort((a, b) => bySeverity(a, b) || (order.get(a.address) ?? -1) - (order.get(b.address) ?? -1))
  return { findings, tally: inquiry.tally }
}
