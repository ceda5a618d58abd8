import { compile } from '../expressions/compile'
import { type Expr, BOUND_NAMES, namesIn } from '../expressions/tree'
import { exitName, type RuleKind } from '../form/rules'
import { placeName, type Place } from '../form/walk'
import type { Filled, Frame } from './frame'
import { isQuestion } from './steps'
import type { PlannedRule, PlannedSkip, Step, PlannedQuestion } from './planned'
import { isTaken, wayOut } from './wayOut'
import { describeValue } from './describeValue'

export type Outcome = true | false | null

/** A part of a condition with how it turned out, and the answers that decided it. Parts nest as the condition does. */
export interface Part {
  expr: Expr
  outcome: Outcome
  answers: { code: string; told: string }[]
  parts: Part[]
  mode: 'all' | 'any' | 'none' | null
}
/** Why something is as it is: one rule, where it stands, and how each of its parts turned out; without a rule, a sentence. */
export interface Reason {
  place: Place
  kind: RuleKind | 'route'
  outcome: Outcome
  part: Part | null
  words: string
}

/** How a condition turned out with the answers so far, part by part. */
export function explainCondition(frame: Frame, expr: Expr): Part {
  const value = compile(expr, frame.plan.environment)(frame.values)
  const outcome: Outcome = typeof value === 'boolean' ? value : null
  if (expr.kind === 'and' || expr.kind === 'or')
    return {
      expr,
      outcome,
      answers: [],
      parts: expr.parts.map(p => explainCondition(frame, p)),
      mode: expr.kind === 'and' ? 'all' : 'any',
    }
  if (expr.kind === 'not') {
    const inner = expr.value.kind === 'or' ? expr.value.parts : [expr.value]
    return { expr, outcome, answers: [], parts: inner.map(p => explainCondition(frame, p)), mode: 'none' }
  }
  return { expr, outcome, answers: answersIn(frame, expr), parts: [], mode: null }
}

function answersIn(frame: Frame, expr: Expr): Part['answers'] {
  return namesIn(expr)
    .filter(name => !BOUND_NAMES.has(name))
    .flatMap(code => {
      const told = tellNamed(frame, code)
      return told === null ? [] : [{ code, told }]
    })
}

/** What a question is answered with now, or how many entries a group has; null for anything else. */
function tellNamed(frame: Frame, code: string): string | null {
  const question = frame.plan.byCode.get(code)
  return question ? tellAnswer(frame, question) : tellEntries(frame, code)
}

function tellAnswer(frame: Frame, { slot, place }: PlannedQuestion): string {
  const value = frame.values[slot] ?? null
  if (value !== null) return describeValue(value, place.node, frame.plan.form, frame.given.get(slot))
  return frame.inPlay[place.order] ? 'blank' : 'not asked'
}

function tellEntries(frame: Frame, code: string): string | null {
  const entries = frame.plan.groups.get(code)
  const list = entries ? frame.values[entries.slot] : undefined
  return Array.isArray(list) ? `${list.length} ${list.length === 1 ? 'entry' : 'entries'}` : null
}

const outcomeOf = (rule: PlannedRule, frame: Frame): Outcome => {
  const value = rule.run(frame.values)
  return typeof value === 'boolean' ? value : null
}

function reason(place: Place, kind: RuleKind, rule: PlannedRule, frame: Frame): Reason {
  return {
    place,
    kind,
    outcome: outcomeOf(rule, frame),
    part: rule.expr ? explainCondition(frame, rule.expr) : null,
    words: rule.expr ? '' : 'This rule has an error, so it is never true.',
  }
}

/** Why something is shown or not: whether its section is reached, then every rule around it from the outside in, then its own. */
export function explainShown(filled: Filled, frame: Frame, place: Place): Reason[] {
  const { plan } = filled
  const section = plan.sections[place.section]
  const reasons: Reason[] = []
  if (!section) return reasons
  const reached = filled.path.includes(place.section) || passedOver(filled, place.section)
  if (!reached)
    reasons.push({
      place: section.place,
      kind: 'route',
      outcome: false,
      part: null,
      words: whereTo(filled, place.section),
    })
  if (section.shown) reasons.push(reason(section.place, 'shownWhen', section.shown, filled))
  const around = [...place.groups.map(g => g.order), ...(place.kind === 'section' ? [] : [place.order])]
  for (const order of around) {
    const step = section.all.find(s => s.place.order === order)
    const seen = step?.place.entryOf ? frame : filled
    if (step?.shown) reasons.push(reason(step.place, 'shownWhen', step.shown, seen))
    const skip = step?.skips.find(s => isTaken(s, seen))
    if (skip) reasons.push(skippedBy(skip, seen))
  }
  return reasons
}

/** That a skip passes over something. */
function skippedBy({ from, index, when }: PlannedSkip, frame: Frame): Reason {
  const to = exitName(frame.plan.places, { place: from, index })
  return {
    place: from,
    kind: 'skip',
    outcome: false,
    part: when?.expr ? explainCondition(frame, when.expr) : null,
    words: `“${placeName(frame.plan.places[from.order] ?? from)}” goes on at ${to === 'the finish' ? to : `“${to}”`}, past this.`,
  }
}

/** A section that the way leads to, though its own rule does not show it. */
function passedOver(filled: Filled, index: number): boolean {
  const before = filled.path.findLast(i => i < index)
  if (before === undefined) return index === 0 || filled.path[0] !== 0 || index < (filled.path[0] ?? 0)
  const after = filled.path.find(i => i > index) ?? filled.plan.sections.length
  const section = filled.plan.sections[before]
  const taken = section ? wayOut(section, filled) : null
  return taken === null || taken.target <= index ? index < after : false
}

function whereTo(filled: Filled, index: number): string {
  const before = filled.path.findLast(i => i < index)
  const section = before === undefined ? undefined : filled.plan.sections[before]
  const taken = section ? wayOut(section, filled) : null
  const target = taken && (filled.plan.sections[taken.target]?.place.node.title ?? 'the finish')
  return section && target
    ? `“${section.place.node.title}” leads on to ${target === 'the finish' ? target : `“${target}”`}, past this section.`
    : 'No answers so far lead to this section.'
}

/** Why an answer is required or not; empty where nothing says so. */
export function explainRequired(frame: Frame, step: Step): Reason[] {
  if (!isQuestion(step) || step.required === null) return []
  if (step.required === true)
    return [
      {
        place: step.place,
        kind: 'required',
        outcome: true,
        part: null,
        words: 'An answer is always required here.',
      },
    ]
  return [reason(step.place, 'required', step.required, frame)]
}
