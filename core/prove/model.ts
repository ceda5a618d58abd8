import { parse, ExpressionError } from '../expressions/parse'
import { check, type ExpressionProblem } from '../expressions/check'
import { namesIn, type Expr } from '../expressions/tree'
import { BOOLEAN, type ValueType } from '../expressions/types'
import { planOf, scopeOver, type Plan, type PlannedPlace, type PlannedQuestion, type PlannedSection } from '../fill/plan'
import type { Form } from '../form/definition'
import { rulesOf, type Rule } from '../form/rules'
import type { PlaceOf } from '../form/walk'
import { blockersOf } from './blockers'
import { circularCodes } from './circles'
import { askedIn, domainOf, type Asked, type Domain } from './domains'

/** A rule, read: its tree, or what is wrong with it. `expr` is null when it can't be used. */
export interface ReadRule extends Rule {
  expr: Expr | null
  syntax: ExpressionError | null
  problems: readonly ExpressionProblem[]
}

/** A form as the prover sees it: the plan that the evaluator runs, the rules as trees, and the quotient of every answer. */
export interface Model {
  form: Form
  plan: Plan
  rules: readonly ReadRule[]
  asked: Asked
  domain: (code: string) => Domain
  /** Codes of questions whose rules wait for each other. */
  circular: Set<string>
  stepOf: (code: string) => PlannedQuestion | undefined
  sectionOf: (step: PlannedPlace | PlannedQuestion) => PlannedSection | undefined
  /** What stands in sections, by place order. */
  stepAt: ReadonlyMap<number, PlannedPlace | PlannedQuestion>
  /** Questions that can keep a section from being completed, whatever else is answered: see `blockers.ts`. */
  blockers: readonly PlannedQuestion[]
}

export function modelOf(form: Form): Model {
  const plan = planOf(form)
  const rules = readRules(form, plan)
  const asked = askedIn(rules.map(r => r.expr).filter(e => e !== null))
  const domains = new Map<string, Domain>()
  const stepAt = new Map(plan.sections.flatMap(s => s.steps).map(s => [s.place.order, s] as const))
  const domain = (code: string): Domain => {
    const known = domains.get(code)
    if (known) return known
    const question = plan.byCode.get(code)
    const found = question ? domainOf(question.place.node, plan, asked) : { classes: [], singletons: true }
    domains.set(code, found)
    return found
  }
  return {
    form, plan, rules, asked, domain, stepAt,
    circular: circularCodes(plan),
    blockers: blockersOf(plan, domain),
    stepOf: code => plan.byCode.get(code),
    sectionOf: step => plan.sections[step.place.section],
  }
}

function readRules(form: Form, plan: Plan): ReadRule[] {
  const index = new Map<string, PlaceOf<'question'>>()
  for (const q of plan.questions) if (!index.has(q.place.code)) index.set(q.place.code, q.place)
  const types = new Map<string, ValueType>()
  const scopes = form.sections.map((_, i) => scopeOver(form, index, i, types))
  return rulesOf(form).map((rule) => {
    const scope = scopes[rule.place.section]
    try {
      const expr = parse(rule.text)
      const problems = scope ? check(expr, scope, BOOLEAN).problems : []
      return { ...rule, expr: problems.length === 0 ? expr : null, syntax: null, problems }
    }
    catch (error) {
      if (!(error instanceof ExpressionError)) throw error
      return { ...rule, expr: null, syntax: error, problems: [] }
    }
  })
}

/** The steps whose own rules decide whether something is in play: itself and the groups around it, the inner ones first. */
export function shownChain(model: Model, step: PlannedPlace | PlannedQuestion): (PlannedPlace | PlannedQuestion)[] {
  const chain = [step]
  for (let at = step.parent; at >= 0;) {
    const group = model.stepAt.get(at)
    if (!group) break
    chain.push(group)
    at = group.parent
  }
  return chain
}

/** The names in several trees, each once. */
export const namesInAll = (trees: readonly Expr[]): string[] => [...new Set(trees.flatMap(namesIn))]
