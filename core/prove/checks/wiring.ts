import type { Form } from '../../form/definition'
import { RULE_WORDS, withRule } from '../../form/rules'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt } from './check'
import type { Finding } from '../finding'
import type { ReadRule } from '../model/readRule'
import type { Edit } from '../../form/edits'

interface Wiring {
  code: string
  about: string
  raises: Form
  spares: Form
}

/** A check that reports one kind of error in the text of rules, with its position and, where it is plain, the right spelling. */
export function wiringCheck({ code, about, raises, spares }: Wiring): Check {
  const check = { code, severity: 'fault', about, raises, spares } as const
  return {
    ...check,
    run: inquiry =>
      inquiry.model.rules.flatMap(rule =>
        rule.problems
          .filter(p => p.code === code)
          .map(problem => wiringFinding(inquiry, check, rule, problem)),
      ),
  }
}

interface Problem {
  from: number
  to: number
  sentence: string
  instead: string | null
}

/** A finding about the text of a rule; the witness leads to the section where the rule acts. */
export function wiringFinding(
  inquiry: Inquiry,
  check: Pick<Check, 'code' | 'severity'>,
  rule: ReadRule,
  problem: Problem,
): Finding {
  const where = `${RULE_WORDS[rule.kind].toLowerCase()}, character ${problem.from + 1}`
  return finding(check, rule.place, `${problem.sentence} (${where})`, {
    rule: rule.id,
    conflict: [partAt(rule.place, rule.kind, rule.index)],
    marked: { text: rule.text, from: problem.from, to: problem.to },
    witness: inquiry.wayTo(rule.place.section),
    mend:
      problem.instead === null
        ? null
        : { words: `Write ${problem.instead}`, edits: [replaceInRule(inquiry.form, rule, problem)] },
  })
}

const replaceInRule = (form: Form, rule: ReadRule, { from, to, instead }: Problem): Edit =>
  withRule(form, rule, rule.text.slice(0, from) + (instead ?? '') + rule.text.slice(to))
