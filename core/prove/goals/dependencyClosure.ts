import { namesIn, type Expr } from '../../expressions/tree'
import type { PlannedSection, Step } from '../../fill/planned'
import { baseOf, codeAt, plainCode, type Entries } from '../model/entries'
import { ownRules } from '../../fill/steps'
import { locksOf, shownChain, type Model } from '../model/model'

/** Everything that can matter to a goal in a section: what its names depend on, what decides the way there, and what blocks it. */
export interface Cone {
  codes: string[]
  exprs: ReadonlySet<Expr>
}
export function coneOf(model: Model, current: number, names: readonly string[]): Cone {
  const cone = new Set<string>()
  const exprs = new Set<Expr>()
  const open = [...names]
  const sections = new Set<number>()
  const want = (expr: Expr | null | undefined) => {
    if (!expr || exprs.has(expr)) return
    exprs.add(expr)
    open.push(...namesIn(expr))
  }
  const wantSection = (index: number) => {
    if (sections.has(index)) return
    sections.add(index)
    want(model.plan.sections[index]?.shown?.expr)
    for (const before of model.plan.sections.slice(model.waypoint[index] ?? 0, index))
      if (before.routes.length > 0) wantRoutes(before, wantSection, want)
  }
  wantSection(current)
  for (const blocker of model.blockers) {
    if (blocker.place.section >= current) continue
    if ('read' in blocker) open.push(blocker.place.code)
    else {
      for (const check of blocker.checks) want(check.expr)
      wantSection(blocker.place.section)
      if (!('routes' in blocker)) for (const step of shownChain(model, blocker)) want(step.shown?.expr)
    }
  }
  const wantEntries = (entries: Entries) => {
    const { group, copies, members } = entries
    wantSection(group.place.section)
    for (const step of shownChain(model, group)) want(step.shown?.expr)
    for (let entry = 1; entry <= copies; entry++) {
      open.push(...members.map(m => codeAt(m, entry)))
      for (const step of group.place.section < current ? blockersIn(model, entries, entry) : []) {
        if ('read' in step) open.push(step.place.code)
        else for (const check of step.checks) want(check.expr)
        for (const around of shownChain(model, step)) want(around.shown?.expr)
      }
    }
  }
  for (let name = open.pop(); name !== undefined; name = open.pop()) {
    const code = plainCode(name)
    const question = model.stepOf(code)
    const entries = model.copies.of.get(code)
    if (cone.has(code) || (!question && !entries)) continue
    cone.add(code)
    if (entries) wantEntries(entries)
    if (!question) continue
    const { grid } = question.place.node.type === 'choice' ? baseOf(code) : { grid: null }
    open.push(...(grid === null ? model.copies.rowsOf(code) : [grid]))
    wantSection(question.place.section)
    for (const step of shownChain(model, question)) want(step.shown?.expr)
    for (const { lock } of locksOf(model, question)) if (lock !== true) want(lock.expr)
    // What gives a value is no condition: its names count, but it has no truth.
    for (const rule of ownRules(question)) if (rule.expr) open.push(...namesIn(rule.expr))
    if (question.required && question.required !== true) want(question.required.expr)
    if (question.place.section < current) for (const check of question.checks) want(check.expr)
  }
  const inOrder = [...cone]
    .map(code => ({ code, order: model.stepOf(code)?.place.order ?? 0 }))
    .sort((a, b) => a.order - b.order)
  return { codes: inOrder.map(c => c.code), exprs }
}

/** What can keep the k-th entry of a group from being complete. */
export const blockersIn = (model: Model, { group }: Entries, entry: number): Step[] =>
  model.blocking.flatMap(b =>
    !('routes' in b) && b.place.entryOf === group.place ? [model.copies.inEntry(b, group, entry)] : [],
  )

function wantRoutes(
  section: PlannedSection,
  wantSection: (index: number) => void,
  want: (expr: Expr | null | undefined) => void,
) {
  wantSection(section.place.section)
  for (const route of section.routes) want(route.when?.expr)
}

/** The questions that decide whether something is in play, by its own rule and the groups around. */
export const namesAround = (model: Model, step: Step): string[] =>
  shownChain(model, step).flatMap(s => (s.shown?.expr ? namesIn(s.shown.expr) : []))
