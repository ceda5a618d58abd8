import { namesIn, type Expr } from '../../expressions/tree'
import type { PlannedSection, PlannedSkip, Step, PlannedQuestion } from '../../fill/planned'
import { parseEntryCode, codeAt, plainCode } from '../model/entryCodes'
import { handOffConditions } from '../model/turnPlan'
import type { Entries } from '../model/groupQuestions'
import { ownRules, skipNames } from '../../fill/steps'
import { locksOf, shownChain, type Model } from '../model/model'

/** Everything that can matter to a goal in a section: what its names depend on, what decides the way there, and what blocks it. */
export interface DependencyClosure {
  codes: string[]
  exprs: ReadonlySet<Expr>
}

/** What goals about some questions depend on, in the order of the form. */
export const dependencyClosure = (
  model: Model,
  current: number,
  names: readonly string[],
): DependencyClosure => new Collector(model, current).collect(names)

/** Follows dependencies with a stack of its own: long chains must not overflow. */
class Collector {
  private readonly codes = new Set<string>()
  private readonly exprs = new Set<Expr>()
  private readonly sections = new Set<number>()
  private open: string[] = []

  constructor(
    private readonly model: Model,
    private readonly current: number,
  ) {}

  collect(names: readonly string[]): DependencyClosure {
    this.open = [...names]
    this.addSection(this.current)
    for (const expr of handOffConditions(this.model.turns)) this.addExpr(expr)
    for (const blocker of this.model.blockers)
      if (blocker.place.section < this.current) this.addBlocker(blocker)
    for (let name = this.open.pop(); name !== undefined; name = this.open.pop()) this.addNamed(name)
    const inOrder = [...this.codes]
      .map(code => ({ code, order: this.model.stepOf(code)?.place.order ?? 0 }))
      .sort((a, b) => a.order - b.order)
    return { codes: inOrder.map(c => c.code), exprs: this.exprs }
  }

  private addExpr(expr: Expr | null | undefined) {
    if (!expr || this.exprs.has(expr)) return
    this.exprs.add(expr)
    this.open.push(...namesIn(expr))
  }

  /** What decides whether the routes lead to a section, and whether it shows. */
  private addSection(index: number) {
    if (this.sections.has(index)) return
    this.sections.add(index)
    const { plan, waypoint } = this.model
    this.addExpr(plan.sections[index]?.shown?.expr)
    for (const before of plan.sections.slice(waypoint[index] ?? 0, index)) {
      if (before.routes.length === 0 && before.exits.length === 0) continue
      this.addSection(before.place.section)
      before.exits.forEach(exit => this.addSkip(exit))
      for (const route of before.routes) this.addExpr(route.when?.expr)
    }
  }

  private addBlocker(blocker: Step | PlannedSection) {
    if ('read' in blocker) {
      this.open.push(blocker.place.code)
      return
    }
    for (const check of blocker.checks) this.addExpr(check.expr)
    this.addSection(blocker.place.section)
    if (!('routes' in blocker)) this.addChain(blocker)
  }

  private addChain(step: Step) {
    for (const around of shownChain(this.model, step)) {
      this.addExpr(around.shown?.expr)
      around.skips.forEach(skip => this.addSkip(skip))
    }
  }

  /** What decides whether a skip is taken. */
  private addSkip({ from, when, above }: PlannedSkip) {
    this.open.push(from.code)
    for (const skip of above) this.addExpr(skip.when?.expr)
    this.addExpr(when?.expr)
  }

  private addNamed(name: string) {
    const code = plainCode(name)
    const question = this.model.stepOf(code)
    const entries = this.model.copies.of.get(code)
    if (this.codes.has(code) || (!question && !entries)) return
    this.codes.add(code)
    if (entries) this.addEntries(entries)
    if (question) this.addQuestion(code, question)
  }

  private addQuestion(code: string, question: PlannedQuestion) {
    const { place, said } = question
    const isPart = place.node.type === 'choice' || place.node.type === 'money'
    const { grid } = isPart ? parseEntryCode(code) : { grid: null }
    this.open.push(...(grid === null ? this.model.copies.rowsOf(code) : [grid]))
    this.addSection(place.section)
    this.addChain(question)
    for (const { lock } of locksOf(this.model, question)) if (lock !== true) this.addExpr(lock.expr)
    // What gives a value is no condition: its names count, but it has no truth.
    for (const rule of ownRules(question)) if (rule.expr) this.open.push(...namesIn(rule.expr))
    if (said && said !== true) this.addExpr(said.expr)
    if (place.section < this.current) for (const check of question.checks) this.addExpr(check.expr)
  }

  private addEntries(entries: Entries) {
    const { group, copies, members } = entries
    this.addSection(group.place.section)
    this.addChain(group)
    for (let entry = 1; entry <= copies; entry++) {
      this.open.push(...members.map(m => codeAt(m, entry)))
      if (group.place.section < this.current) this.addBlockersIn(entries, entry)
    }
  }

  private addBlockersIn(entries: Entries, entry: number) {
    for (const step of blockersIn(this.model, entries, entry)) {
      if ('read' in step) this.open.push(step.place.code)
      else for (const check of step.checks) this.addExpr(check.expr)
      this.addChain(step)
    }
  }
}

/** What can keep the k-th entry of a group from being complete. */
export const blockersIn = (model: Model, { group }: Entries, entry: number): Step[] =>
  model.blocking.flatMap(b =>
    !('routes' in b) && b.place.entryOf === group.place ? [model.copies.inEntry(b, group, entry)] : [],
  )

/** The questions that decide whether something is in play: by its own rule and the groups around, and by the skips that can pass over them. */
export const namesAround = (model: Model, step: Step): string[] =>
  shownChain(model, step).flatMap(s => [...(s.shown?.expr ? namesIn(s.shown.expr) : []), ...skipNames(s)])
