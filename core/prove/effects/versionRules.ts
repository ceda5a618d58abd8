import { namesIn, type Expr } from '../../expressions/tree'
import type {
  Lock,
  Plan,
  PlannedQuestion,
  PlannedRule,
  PlannedSection,
  PlannedSkip,
  Step,
} from '../../fill/planned'
import type { Question } from '../../form/questions'
import { HERE } from '../model/rewritten'
import {
  bool,
  both,
  either,
  name,
  not,
  NULL,
  printCondition,
  replaceName,
  simplify,
  when,
} from './conditions'

/** That what is asked rests on something that can't be told by conditions over the answers alone. */
export class NotTold extends Error {}

/** To how many places a calculated value is rounded. */
export interface Rounding {
  decimals?: number | undefined
  currency?: string | undefined
}

/** What both versions share: the answers, under codes that both know. */
export interface SharedAnswers {
  /** Whether an answer under a code means the same in both versions; then it is asked for. */
  use: (code: string) => boolean
  /** The codes of the options of a choice in either version. */
  optionsOf: (code: string) => readonly string[]
  /** The code of the yes or no “it was left blank on purpose”, which keeps a default from coming back. */
  blanked: (code: string) => string
  /** Keeps an expression as a calculated value. @returns its code; of the same expression in both versions the same */
  keep: (text: string, rounding: Rounding) => string
}

/**
 * What one version of a form does with given answers, as conditions over the answers alone: each is kept as a calculated yes or no of a form
 * that asks for all of them, so that the prover can compare two versions. See `effects.ts`.
 */
export class VersionRules {
  private readonly known = new Map<string, Expr>()
  private readonly truths = new Map<PlannedRule, Expr>()
  private readonly open = new Set<string>()

  constructor(
    private readonly plan: Plan,
    private readonly shared: SharedAnswers,
  ) {}

  /** The condition “this section is reached and shown”. */
  section(index: number): Expr {
    return this.once(`section ${index}`, () => {
      const section = this.plan.sections[index]
      if (!section) throw new NotTold()
      return both(this.arrives(index), this.truth(section.shown, index))
    })
  }

  /** The condition “the way comes to this section”, whether it is shown or not. */
  private arrives(index: number): Expr {
    if (index === 0) return bool(true)
    return this.once(`arrives ${index}`, () =>
      either(...this.plan.sections.slice(0, index).map((_, from) => this.leadsTo(from, index))),
    )
  }

  private leadsTo(from: number, to: number): Expr {
    const section = this.plan.sections[from]
    if (!section) return bool(false)
    const ways = this.waysOut(section, from)
    const notBefore: Expr[] = []
    const leading: Expr[] = []
    for (const { holds, target } of ways) {
      if (target === to) leading.push(both(...notBefore, holds))
      notBefore.push(not(holds))
    }
    if (from + 1 === to) leading.push(both(...notBefore))
    const inPlay = both(this.section(from), either(...leading))
    if (from + 1 !== to) return inPlay
    return either(inPlay, both(this.arrives(from), not(this.section(from))))
  }

  private waysOut(section: PlannedSection, index: number): { holds: Expr; target: number }[] {
    return [
      ...section.exits.map(skip => ({ holds: this.isTaken(skip), target: skip.target })),
      ...section.routes.map(route => ({ holds: this.truth(route.when, index), target: route.target })),
    ]
  }

  private isTaken(skip: PlannedSkip): Expr {
    const from = this.plan.byCode.get(skip.from.code)
    if (!from || skip.from.entryOf) throw new NotTold()
    const { section } = skip.from
    const above = skip.above.map(first => not(this.truth(first.when, section)))
    return both(this.step(from), this.truth(skip.when, section), ...above)
  }

  /** The condition “this is in play”, of what stands outside of entries. */
  step(step: Step): Expr {
    const { place } = step
    if (place.entryOf) throw new NotTold()
    return this.once(`step ${place.order}`, () => {
      const section = this.plan.sections[place.section]
      const parent = section?.all.find(s => s.place.order === step.parent)
      return both(
        parent ? this.step(parent) : this.section(place.section),
        this.truth(step.shown, place.section),
        ...step.skips.map(skip => not(this.isTaken(skip))),
      )
    })
  }

  /** The condition “an answer has to be given”. */
  required(question: PlannedQuestion): Expr {
    return both(this.step(question), this.lock(question.said, question.place.section))
  }

  /** The condition “this option is offered, and the question is asked”. */
  offers(question: PlannedQuestion, code: string): Expr {
    const { offer, place } = question
    if (!offer || !offer.rows.has(code)) return bool(false)
    if (offer.narrow) throw new NotTold()
    const rule = offer.rules?.[[...offer.rows.keys()].indexOf(code)] ?? null
    return both(this.step(question), this.truth(rule, place.section))
  }

  private lock(lock: Lock, section: number): Expr {
    if (lock === null || lock === true) return bool(lock === true)
    return this.truth(lock, section)
  }

  /** A rule as a condition that is true or false; no rule is true, one that can’t be read never is. */
  private truth(rule: PlannedRule | null, section: number): Expr {
    if (rule === null) return bool(true)
    const { expr } = rule
    if (!expr) return bool(false)
    const known = this.truths.get(rule)
    if (known) return known
    const truth = this.named(when(this.told(expr, section), bool(true), bool(false)))
    this.truths.set(rule, truth)
    return truth
  }

  /** A condition with what it asks for as this version sees it: blank where that is not in play. */
  private told(expr: Expr, section: number): Expr {
    if (expr.kind === 'and' || expr.kind === 'or')
      return simplify({ ...expr, parts: expr.parts.map(part => this.told(part, section)) })
    if (expr.kind === 'not') return simplify({ ...expr, value: this.told(expr.value, section) })
    if (expr.kind === 'if') {
      const [test, then, otherwise] = [expr.test, expr.then, expr.else].map(e => this.told(e, section))
      if (!test || !then || !otherwise) throw new NotTold()
      return when(test, then, otherwise)
    }
    return this.byCases(expr, namesIn(expr), section)
  }

  /** A test, told apart by what it asks for being in play or not. */
  private byCases(expr: Expr, names: readonly string[], section: number): Expr {
    const [first, ...others] = names
    if (first === undefined) return simplify(expr)
    if (names.length > MOST_NAMES) throw new NotTold()
    const go = (other: Expr) => this.byCases(replaceName(expr, first, other), others, section)
    const asked = this.plan.byCode.get(first) ?? this.plan.groups.get(first)
    if (!asked) return go(name(first))
    // Sections are filled one after the other: what comes later is blank.
    if (asked.place.section > section) return go(NULL)
    if (asked.place.entryOf) throw new NotTold()
    if ('read' in asked) return this.ofQuestion(asked, go)
    if (!this.shared.use(first)) throw new NotTold()
    return when(this.step(asked), go(name(first)), go(NULL))
  }

  private ofQuestion(question: PlannedQuestion, go: (other: Expr) => Expr): Expr {
    const isLocked = question.readOnly !== null || this.isLocked(question)
    if (isLocked || question.offer?.onlyOne) throw new NotTold()
    const stands = both(this.step(question), this.fits(question))
    if (question.value) return when(stands, go(name(this.calculated(question))), go(NULL))
    if (!this.shared.use(question.place.code)) throw new NotTold()
    return when(stands, this.withDefault(question, go), go(NULL))
  }

  private isLocked({ place }: PlannedQuestion): boolean {
    const section = this.plan.sections[place.section]
    return place.groups.some(g => g.node.readOnly !== undefined) || section?.readOnly != null
  }

  private withDefault({ default: begins, place }: PlannedQuestion, go: (other: Expr) => Expr): Expr {
    if (begins === null) return go(name(place.code))
    if (!begins.expr || namesIn(begins.expr).length > 0) throw new NotTold()
    const isGiven: Expr = { kind: 'compare', op: '!=', left: name(place.code), right: NULL, ...HERE }
    const isBlanked = name(this.shared.blanked(place.code))
    return when(either(isGiven, isBlanked), go(name(place.code)), go(begins.expr))
  }

  /** The condition “the chosen option is one that is offered”. */
  private fits(question: PlannedQuestion): Expr {
    const { offer, place } = question
    if (!offer) return bool(true)
    const foreign = this.shared.optionsOf(place.code).filter(code => !offer.rows.has(code))
    if (!offer.narrow && !offer.rules && foreign.length === 0) return bool(true)
    if (offer.narrow || place.node.type !== 'choice') throw new NotTold()
    const chosen = (code: string): Expr => ({
      ...{ kind: 'compare', op: '=', left: name(place.code), ...HERE },
      right: { kind: 'text', value: code, ...HERE },
    })
    const refusing = [...offer.rows.keys()].flatMap((code, i): Expr[] => {
      const rule = offer.rules?.[i]
      return rule ? [both(chosen(code), not(this.truth(rule, place.section)))] : []
    })
    return not(either(...refusing, ...foreign.map(chosen)))
  }

  /** The code of a calculated value of this version. */
  private calculated(question: PlannedQuestion): string {
    const { value, place } = question
    const { expr } = value ?? {}
    if (!expr) throw new NotTold()
    const kept = this.once(`value ${place.code}`, () => {
      const names = namesIn(expr)
      return this.keep(this.byCases(expr, names, place.section), place.node)
    })
    if (kept.kind !== 'name') throw new NotTold()
    return kept.name
  }

  /** Works something out once; what depends on itself can’t be told. */
  private once(key: string, make: () => Expr): Expr {
    const known = this.known.get(key)
    if (known) return known
    if (this.open.has(key)) throw new NotTold()
    this.open.add(key)
    let made: Expr
    try {
      made = make()
    } finally {
      this.open.delete(key)
    }
    const kept = this.named(made)
    this.known.set(key, kept)
    return kept
  }

  private named = (expr: Expr): Expr =>
    expr.kind === 'boolean' || expr.kind === 'name' ? expr : this.keep(expr)

  /** Keeps an expression as a calculated value; `like` tells to how many places it is rounded. */
  private keep(expr: Expr, like: Question | null = null): Expr {
    const rounding = like?.type === 'value' ? { decimals: like.decimals, currency: like.currency } : {}
    return name(this.shared.keep(printCondition(expr), rounding))
  }
}

/** Tests of more answers than this are not told apart case by case. */
const MOST_NAMES = 5
