import { compile } from '../expressions/compile'
import { namesIn, type Expr } from '../expressions/tree'
import type { Frame } from '../fill/frame'
import type { Plan, PlannedQuestion, PlannedRule, Step } from '../fill/planned'

/** What of a response may still change as what is open in it is answered: true and false are sure, null is not. */
type Sure = boolean | null

/** Which answers of a response are still open, and what rests on them: a question that is asked and blank is, and what is asked or worked out by one. */
export class OpenAnswers {
  private readonly roots = new Map<string, readonly string[]>()

  constructor(private readonly frame: Frame) {}

  /** The questions that are asked and blank on which a condition rests, in the order of the form; none where it is decided whatever is answered there. */
  under(expr: Expr): string[] {
    if (this.decide(expr) !== null) return []
    const codes = new Set(namesIn(expr).flatMap(name => this.rootsOf(name)))
    return this.frame.plan.questions.map(q => q.place.code).filter(code => codes.has(code))
  }

  private decide(expr: Expr): Sure {
    if (expr.kind === 'not') {
      const inner = this.decide(expr.value)
      return inner === null ? null : !inner
    }
    if (expr.kind === 'and' || expr.kind === 'or')
      return together(
        expr.parts.map(part => this.decide(part)),
        expr.kind === 'or',
      )
    if (namesIn(expr).some(name => this.rootsOf(name).length > 0)) return null
    return compile(expr, this.frame.plan.environment)(this.frame.values) === true
  }

  /** The open questions on which the value of a name rests. */
  private rootsOf(name: string): readonly string[] {
    const known = this.roots.get(name)
    if (known) return known
    this.roots.set(name, []) // what depends on itself rests on nothing more by that
    const question = this.frame.plan.byCode.get(name)
    const found = question ? this.rootsUnder(question) : []
    this.roots.set(name, found)
    return found
  }

  private rootsUnder(question: PlannedQuestion): readonly string[] {
    const { place, slot, value } = question
    const rules = this.rulesOver(question)
    const isThere = together(
      rules.map(rule => this.holds(rule)),
      false,
    )
    if (isThere === false) return []
    const own = value ? this.rootsIn([value]) : []
    const above = isThere === null ? this.rootsIn(rules.filter(rule => this.holds(rule) === null)) : []
    const ways = this.waysPast(question).filter(rule => this.holds(rule) === null)
    const isAsked = this.frame.inPlay[place.order] === true && (this.frame.values[slot] ?? null) === null
    return [...(isAsked && !value ? [place.code] : []), ...own, ...above, ...this.rootsIn(ways)]
  }

  private rootsIn = (rules: readonly PlannedRule[]): string[] =>
    rules.flatMap(({ expr }) => (expr ? namesIn(expr).flatMap(name => this.rootsOf(name)) : []))

  /** A rule that can’t be read is never true. */
  private holds = ({ expr }: PlannedRule): Sure => (expr ? this.decide(expr) : false)

  /** The rules by which a question is shown: its own, and those of all that stands around it. */
  private rulesOver(question: PlannedQuestion): PlannedRule[] {
    const { plan } = this.frame
    const steps = stepsOf(plan)
    const rules: PlannedRule[] = []
    for (let step: Step | undefined = question; step; step = steps.get(step.parent))
      if (step.shown) rules.push(step.shown)
    const section = plan.sections[question.place.section]
    return section?.shown ? [...rules, section.shown] : rules
  }

  /** The conditions by which the way may lead past a question: of routes of earlier sections, and of skips. */
  private waysPast({ place }: PlannedQuestion): PlannedRule[] {
    const { sections, skips } = this.frame.plan
    const routes = sections.slice(0, place.section).flatMap(section => section.routes)
    return [...routes, ...skips.filter(skip => skip.from.order < place.order)].flatMap(way => way.when ?? [])
  }
}

/** Parts of which one can decide all: a true one in “or”, a false one in “and”. */
function together(parts: readonly Sure[], decisive: boolean): Sure {
  if (parts.includes(decisive)) return decisive
  return parts.includes(null) ? null : !decisive
}

const STEPS = new WeakMap<Plan, ReadonlyMap<number, Step>>()

/** Every step of a form, by the order of its place. */
function stepsOf(plan: Plan): ReadonlyMap<number, Step> {
  const known = STEPS.get(plan)
  if (known) return known
  const steps = new Map(plan.sections.flatMap(s => s.all).map(step => [step.place.order, step]))
  STEPS.set(plan, steps)
  return steps
}
