import { isParted } from './parts'
import type { Expr } from '../../expressions/tree'
import { clauseConditions } from '../../documents/clauseConditions'
import { planOf } from '../../fill/plan'
import type { Plan, PlannedQuestion, PlannedRule, PlannedSection, Step } from '../../fill/planned'
import { BOOLEAN, type Value, type ValueType } from '../../expressions/types'
import type { Form } from '../../form/definition'
import { isCondition, rulesOf, type Rule } from '../../form/rules'
import type { ReadRule } from './readRule'
import { cellValue } from '../../lists/listIndex'
import type { Place } from '../../form/walk'
import { blockersOf, isAvoidable } from './blockers'
import { circularCodes } from './circles'
import { domainOf, lockedAs } from './domains'
import { collectAsked, type Asked, propagateAsked } from './asked'
import { planTurns, type PlannedTurn } from './turnPlan'
import { ENTRIES, OPAQUE, type Domain } from './domain'
import { Copies } from './entries'
import { withEntriesByName } from './entryExpressions'
import { parseEntryCode } from './entryCodes'

/** A form as the prover sees it: the plan that the evaluator runs, the rules as trees, and the quotient of every answer. */
export interface Model {
  form: Form
  /** The first day that `today()` may be. */
  today: string
  plan: Plan
  rules: readonly ReadRule[]
  asked: Asked
  domain: (code: string) => Domain
  /** Codes of questions whose rules wait for each other. */
  circular: Set<string>
  /** A question by its code, those of entries that are told apart too (see `entries.ts`). */
  stepOf: (code: string) => PlannedQuestion | undefined
  sectionOf: (step: Step) => PlannedSection | undefined
  /** What stands in sections and copies of entries, by place order. */
  stepAt: (order: number) => Step | undefined
  copies: Copies
  /** What can keep a section from being completed, whatever else is answered: see `blockers.ts`. */
  blockers: readonly (Step | PlannedSection)[]
  /** The same, with what stands in repeating groups that need no entry: it can keep an entry from being complete. */
  blocking: readonly (Step | PlannedSection)[]
  /** By question with checks that hold nobody up: a value that passes them whatever else is answered. */
  passing: ReadonlyMap<PlannedQuestion, Value>
  /** By section, and for the finish: the last section up to it that no route leads past. What stands before can't decide the way from there. */
  waypoint: readonly number[]
  /** The turns, in order; none in a form without. */
  turns: readonly PlannedTurn[]
}

/** @param today the first day that `today()` may be, as ISO date */
export function modelOf(form: Form, today: string): Model {
  const plan = planOf(form)
  const rules = readRules(form, plan)
  const read = [...rules.flatMap(r => r.expr ?? []), ...clauseConditions(plan)]
  const asked = collectAsked(withEntriesByName(read, plan), path => cellsReached(plan, path))
  propagateAsked(asked, plan)
  const domains = new Map<string, Domain>()
  const stepAt = new Map(plan.sections.flatMap(s => s.all).map(s => [s.place.order, s] as const))
  const circular = circularCodes(plan)
  const copies = new Copies(plan, read, circular)
  for (const row of copies.toldOneByOne()) asked.whole.add(row)
  const domain = (of: string): Domain => {
    const code = parseEntryCode(of).base
    const known = domains.get(code)
    if (known) return known
    const found = domainOfCode(code, of, plan, asked, copies)
    domains.set(code, found)
    return found
  }
  const turns = planTurns(plan, rules)
  const { blocking, passing } = blockersOf(plan, turns, domain)
  return {
    form,
    today,
    plan,
    rules,
    asked,
    domain,
    copies,
    circular,
    stepAt: order => stepAt.get(order) ?? copies.stepAt(order),
    blockers: blocking.filter(b => !isAvoidable(b.place)),
    blocking,
    passing,
    waypoint: waypoints(plan),
    turns,
    stepOf: code => copies.stepOf(code),
    sectionOf: step => plan.sections[step.place.section],
  }
}

/** What can be answered under a code; `of` is the same code as it was asked for, of an entry or not. */
function domainOfCode(code: string, of: string, plan: Plan, asked: Asked, copies: Copies): Domain {
  const question = copies.stepOf(code)
  if (!question) return copies.of.has(of) ? ENTRIES : OPAQUE
  const isLookedInto = isParted(question.place.node) && copies.rowsOf(code).length > 0
  return isLookedInto
    ? lockedAs(ENTRIES, question, plan)
    : domainOf(question.place.node, question, plan, asked)
}

/** How many different cells a path may reach for each to be told apart. */
const MOST_CELLS = 200

/** What a path through a choice can lead to, such as `harbour.row.depth`; null where it is no such path, or leads to too much. */
function cellsReached(plan: Plan, path: Expr): readonly Value[] | null {
  if (path.kind !== 'path') return null
  const inner = path.of.kind === 'path' && path.of.member === 'row' ? path.of.of : path.of
  const offer = inner.kind === 'name' ? plan.byCode.get(inner.name)?.offer : undefined
  if (!offer) return null
  const keys = offer.index.column(path.member)
  return keys.size > MOST_CELLS
    ? null
    : [...keys.values()].flatMap(([first = -1]) => cellValue(offer.index.rows[first]?.[path.member]) ?? [])
}

/** Where a section's routes, and the skips out of it, lead. */
const leadsOf = (section: PlannedSection | undefined): number[] =>
  section ? [...section.routes, ...section.exits].map(exit => exit.target) : []

function waypoints({ sections }: Plan): number[] {
  const found: number[] = []
  let farthest = 0
  for (let at = 0; at <= sections.length; at++) {
    found.push(farthest <= at ? at : (found[at - 1] ?? 0))
    farthest = Math.max(farthest, ...leadsOf(sections[at]))
  }
  return found
}

/** Every rule, read where it stands. */
function readRules(form: Form, plan: Plan): ReadRule[] {
  return rulesOf(form, plan.places).map(rule => {
    const wanted = wantedType(rule, plan)
    const list = rule.kind === 'narrowedBy' && 'list' in rule.place.node ? (rule.place.node.list ?? '') : null
    const { expr, type, syntax, problems } = plan.names.read(rule.text, rule.place, wanted, list)
    const { id, kind, place, index, text } = rule
    // Written out: there are many, and this is done at each edit.
    return { id, kind, place, index, text, expr, type, syntax, problems }
  })
}

/** The type that a rule has to give; null where any will do. */
function wantedType({ kind, place }: Rule, { names }: Plan): ValueType | null {
  if (isCondition(kind)) return BOOLEAN
  return kind === 'default' ? names.typeOf(place.code) : null
}

/** What may make a question read-only: its own rule and those of what stands around it. */
export const locksOf = (
  model: Model,
  step: PlannedQuestion,
): { lock: true | PlannedRule; place: Place }[] => {
  if (!model.plan.locks) return []
  const section = model.sectionOf(step)
  return [...(section ? [section] : []), ...shownChain(model, step)].flatMap(({ readOnly, place }) =>
    readOnly === null ? [] : [{ lock: readOnly, place }],
  )
}

/** The steps whose own rules decide whether something is in play: itself and the groups around it, the inner ones first. */
export function shownChain(model: Model, step: Step): Step[] {
  const chain = [step]
  for (let at = step.parent; at >= 0;) {
    const group = model.stepAt(at)
    if (!group) break
    chain.push(group)
    at = group.parent
  }
  return chain
}
