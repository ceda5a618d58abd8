import type { PlannedGroup, PlannedSkip, Step } from '../../fill/planned'
import { isRepeating } from '../../fill/steps'
import type { Encoding } from '../encode/encoding'
import { parseEntryCode } from '../model/entryCodes'
import type { Entries } from '../model/groupQuestions'
import { shownChain, type Model } from '../model/model'
import type { Literal } from '../solver/literal'
import { RouteLiterals } from './routeLiterals'
import type { RuleLiterals } from './ruleLiterals'

/** What is in play, as literals: sections by the routes that lead to them, what stands in them by the rules around it. */
export class InPlayLiterals {
  private readonly known = new Map<number, Literal>()
  private readonly constrained = new Set<string>()
  private readonly takenAt = new Map<PlannedSkip, Literal>()
  private readonly plainSkips = new Map<string, Literal>()
  private readonly routes: RouteLiterals

  constructor(
    private readonly model: Model,
    private readonly encoding: Encoding,
    private readonly rules: RuleLiterals,
  ) {
    this.routes = new RouteLiterals(model, encoding, rules, skip => this.taken(skip))
  }

  /** The literal “this is in play”, the section around it included. */
  inPlay(step: Step): Literal {
    const known = this.known.get(step.place.order)
    if (known !== undefined) return known
    const section = this.sectionShown(step.place.section)
    const around = shownChain(this.model, step).flatMap(s => [
      this.rules.rule(s.shown, s.place, 'shownWhen'),
      ...this.notSkipped(s),
      ...(s !== step && isRepeating(s) ? this.entryThere(s) : []),
    ])
    const literal = this.encoding.and([section, ...around])
    this.known.set(step.place.order, literal)
    return literal
  }

  private notSkipped = ({ skips }: Step): Literal[] => skips.map(skip => -this.taken(skip))

  /** The literal “this skip is taken”: its question is in play, its condition true, and no skip above it came first. */
  taken(skip: PlannedSkip): Literal {
    const known = this.takenAt.get(skip)
    if (known !== undefined) return known
    const from = this.model.stepAt(skip.from.order)
    const above = skip.above.map(s => -this.holds(s))
    const literal = this.encoding.and([
      from ? this.inPlay(from) : -this.encoding.yes,
      this.holds(skip),
      ...above,
    ])
    this.takenAt.set(skip, literal)
    return literal
  }

  private holds({ from, when, index }: PlannedSkip): Literal {
    if (when !== null) return this.rules.rule(when, from, 'skip', index)
    const key = `${from.order} ${index}`
    const known = this.plainSkips.get(key) ?? this.rules.always(from, 'skip', index)
    this.plainSkips.set(key, known)
    return known
  }

  /** The literal “the group has this entry”, where it matters how many it has. */
  private entryThere(group: PlannedGroup): Literal[] {
    const { base, entry } = parseEntryCode(group.place.code)
    const entries = this.model.copies.of.get(base)
    if (!entries) return []
    this.constrainGroup(entries)
    return [this.encoding.groups.of(entries).exists[entry - 1] ?? this.encoding.yes]
  }

  /** A group is there just when it is in play. */
  constrainGroup({ group }: Entries) {
    const { blank } = this.encoding.variable(group.place.code)
    if (this.constrained.has(group.place.code)) return
    this.constrained.add(group.place.code)
    const inPlay = this.inPlay(group)
    this.encoding.solver.addClause([blank, inPlay])
    this.encoding.solver.addClause([-blank, -inPlay])
  }

  /** The literal “what stands around this is in play, and no skip passes over it”. */
  aroundShown(step: Step): Literal {
    const parent = this.model.stepAt(step.parent)
    const around = parent ? this.inPlay(parent) : this.sectionShown(step.place.section)
    return this.encoding.and([around, ...this.notSkipped(step)])
  }

  /** The literal “the routes lead to this section, and its rule shows it”. */
  sectionShown(index: number): Literal {
    const section = this.model.plan.sections[index]
    if (!section) return this.encoding.yes
    return this.encoding.and([
      this.reached(index),
      this.rules.rule(section.shown, section.place, 'shownWhen'),
    ])
  }

  /** The literal “the routes lead to this section”; the number of sections stands for the finish. */
  reached = (index: number): Literal => this.routes.reached(index)

  /** By route of a section: the literal “leaving the section takes this one”. */
  routesTaken = (index: number): Literal[] => this.routes.routesTaken(index)
}
