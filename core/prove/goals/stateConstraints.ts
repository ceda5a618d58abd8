import { CURRENCY_MEMBER } from '../../form/currencies'
import { rowCode } from '../model/entryCodes'
import type { PlannedQuestion, PlannedSection, Step } from '../../fill/planned'
import { valueKey } from '../../lists/listIndex'
import type { Encoding } from '../encode/encoding'
import { offersOf } from '../encode/offers'
import { isNeverComplete } from '../model/blockers'
import { constantDefault } from '../model/domains'
import type { Entries } from '../model/groupQuestions'
import { locksOf, type Model } from '../model/model'
import type { Literal } from '../solver/literal'
import { blockersIn } from './dependencyClosure'
import type { InPlayLiterals } from './inPlayLiterals'
import type { RuleLiterals } from './ruleLiterals'
import type { TurnLiterals } from './turnLiterals'

/** What holds of questions in every state in which a section is the current one, as clauses. */
export class StateConstraints {
  private readonly offeredOf = new Map<string, Literal[]>()
  /** Choices of which it can't be said by conditions what they offer. */
  private readonly unclear = new Set<string>()

  constructor(
    private readonly model: Model,
    private readonly current: number,
    private readonly encoding: Encoding,
    private readonly rules: RuleLiterals,
    private readonly inPlay: InPlayLiterals,
    private readonly turns: TurnLiterals,
  ) {}

  /** Whether it can't be said by conditions what a choice offers. */
  isUnclear = (code: string): boolean => this.unclear.has(code)

  /** What holds of a question in every state: blank unless in play, and complete before the current section. */
  constrain(code: string) {
    const question = this.model.stepOf(code)
    const entries = this.model.copies.of.get(code)
    if (entries && entries.group.place.section <= this.current) this.enter(entries)
    if (!question || question.place.section > this.current) return
    const { solver } = this.encoding
    const { blank } = this.encoding.variable(code)
    solver.addClause([blank, this.inPlay.inPlay(question)])
    this.leaveUnfilled(question)
    this.joinRows(question, blank)
    this.lock(question)
    this.offers(question)
    this.calculate(question)
    if (question.place.section >= this.current) return
    // An earlier entry is only seen through its group; that it must be complete is left to the replay.
    const { entryOf } = question.place
    if (entryOf === null || this.model.copies.of.has(entryOf.code)) this.complete(question)
    else this.encoding.widen()
  }

  /** What no turn fills has the answer that it begins with. */
  private leaveUnfilled(question: PlannedQuestion) {
    const filled = this.turns.filled(question.place)
    if (filled === this.encoding.yes || question.value !== null) return
    const begins = this.beginningOf(question)
    if (begins === null) return this.encoding.widen()
    this.encoding.solver.addClause([filled, -this.inPlay.inPlay(question), begins])
  }

  /** The literal “it has the answer that it begins with”; null where that can’t be told. */
  private beginningOf(question: PlannedQuestion): Literal | null {
    const { blank, classes, domain } = this.encoding.variable(question.place.code)
    if (question.default === null) return blank
    const begins = constantDefault(question)
    if (begins === undefined || domain.opaque || domain.many) return null
    return classes.find(c => valueKey(c.value) === valueKey(begins))?.literal ?? null
  }

  /** A read-only question has the answer that it begins with, whatever was given before. */
  private lock(question: PlannedQuestion) {
    const { blank, classes, domain } = this.encoding.variable(question.place.code)
    const locks = locksOf(this.model, question)
    if (locks.length === 0 || question.value !== null || domain.opaque) return
    const locked = this.encoding.or(
      locks.map(({ lock, place }) =>
        lock === true ? this.rules.always(place, 'readOnly') : this.rules.rule(lock, place, 'readOnly'),
      ),
    )
    const begins = constantDefault(question)
    const answer =
      begins === undefined ? blank : classes.find(c => valueKey(c.value) === valueKey(begins))?.literal
    if (answer === undefined) return this.encoding.widen()
    const on = begins === undefined ? [] : [-this.rules.switchFor(question.place, 'default', 0)]
    this.encoding.solver.addClause([...on, -locked, -this.inPlay.inPlay(question), answer])
  }

  /** A grid is blank while all its rows are; an amount where its currency is, and it is in that one. */
  private joinRows({ place: { code, node } }: PlannedQuestion, blank: Literal) {
    const rows = this.model.copies.rowsOf(code)
    if (rows.length === 0) return
    if (node.type === 'money') return this.joinAmounts(code, rows, blank)
    if (node.type !== 'grid') return
    const answered = rows.map(row => -this.encoding.variable(row).blank)
    for (const literal of answered) this.encoding.solver.addClause([-literal, -blank])
    if (rows.length === node.rows.length) this.encoding.solver.addClause([blank, ...answered])
  }

  private joinAmounts(code: string, rows: readonly string[], blank: Literal) {
    const { solver } = this.encoding
    const currency = this.encoding.variable(rowCode(code, CURRENCY_MEMBER))
    solver.addClause([-blank, currency.blank])
    solver.addClause([blank, -currency.blank])
    for (const { value, literal } of currency.classes) {
      const amount = rows.find(row => typeof value === 'string' && row === rowCode(code, value))
      if (amount === undefined) continue
      const { blank: isOther } = this.encoding.variable(amount)
      solver.addClause([-literal, -isOther])
      solver.addClause([literal, isOther])
    }
  }

  /** A group that is looked into: before the current section, every entry is complete. */
  private enter(entries: Entries) {
    this.inPlay.constrainGroup(entries)
    if (entries.group.place.section >= this.current) return
    if (this.turns.filled(entries.group.place) !== this.encoding.yes) this.encoding.widen()
    for (let entry = 1; entry <= entries.copies; entry++)
      for (const step of blockersIn(this.model, entries, entry)) if (!('read' in step)) this.checked(step)
  }

  /** A calculated value is there just when it is in play and what it needs is. */
  private calculate(question: PlannedQuestion) {
    const expr = question.value?.expr
    if (!expr || this.model.circular.has(question.place.code)) return
    const given = this.encoding.given(expr)
    if (given === null) return
    const { solver } = this.encoding
    const { blank } = this.encoding.variable(question.place.code)
    const on = this.rules.switchFor(question.place, 'value', 0)
    solver.addClause([-on, -this.inPlay.inPlay(question), -given, -blank])
    solver.addClause([-on, given, blank])
  }

  /** A class that is not on offer is not chosen. */
  private offers(question: PlannedQuestion) {
    const { offer, place } = question
    if (!offer || (offer.narrow === null && offer.rules === null)) return
    const { classes, domain } = this.encoding.variable(place.code)
    const kinds = domain.opaque ? null : classes.map(c => offersOf(question, domain.classes, c.value))
    if (kinds === null || kinds.some(k => k === null)) {
      this.unclear.add(place.code)
      return
    }
    const codes = [...offer.rows.keys()]
    const offered = kinds.map(rows =>
      this.encoding.or(
        (rows ?? []).map(parts => this.encoding.and(parts.map(p => this.encoding.truth(p).t))),
      ),
    )
    classes.forEach((c, i) => {
      const on = offer.narrow
        ? this.rules.switchFor(place, 'narrowedBy', 0)
        : this.rules.switchFor(place, 'option', Math.max(0, codes.indexOf(String(c.value))))
      this.encoding.solver.addClause([-on, -c.literal, offered[i] ?? this.encoding.yes])
    })
    this.offeredOf.set(place.code, offered)
  }

  /** By class, the literal “this is on offer now”; null where nothing is taken away, or it can't be said by conditions. */
  offered = (code: string): readonly Literal[] | null => this.offeredOf.get(code) ?? null

  private complete(question: PlannedQuestion) {
    this.demandAnswer(question)
    this.checked(question)
  }

  /** The checks of a question, group or section in play don't fail. */
  checked(step: Step | PlannedSection) {
    const inPlay = 'routes' in step ? this.inPlay.sectionShown(step.place.section) : this.inPlay.inPlay(step)
    const filled = this.turns.filled(step.place)
    if ('is' in step && isNeverComplete(step))
      this.encoding.solver.addClause([-this.rules.switchFor(step.place, 'required', 0), -filled, -inPlay])
    for (const check of step.checks) {
      if (!check.expr) continue
      const on = this.rules.switchFor(step.place, check.kind, check.index)
      this.encoding.solver.addClause([-on, -filled, -inPlay, -this.encoding.truth(check.expr).f])
    }
  }

  /**
   * A required question in play is answered; where no answer is possible, there is no such state.
   * @param guard only where this holds
   */
  demandAnswer(question: PlannedQuestion, guard: Literal = this.encoding.yes) {
    const { place, required, offer } = question
    const { blank, domain } = this.encoding.variable(place.code)
    if (required === null) return
    // Of rows too many for classes it can't be said by conditions whether one is on offer: the evaluator tells.
    if (this.unclear.has(place.code) || (domain.open && offer !== null)) return this.encoding.widen()
    const clause = [-guard, -this.rules.switchFor(place, 'required', 0), -this.turns.filled(place)]
    if (required !== true) clause.push(-this.rules.rule(required, place, 'required'))
    this.encoding.solver.addClause([...clause, -this.inPlay.inPlay(question), -blank])
  }
}
