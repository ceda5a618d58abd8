import type { PlannedSkip } from '../../fill/planned'
import type { Literal } from '../solver/literal'
import type { Encoding } from '../encode/encoding'
import type { Model } from '../model/model'
import type { RuleLiterals } from './ruleLiterals'

/** Where the routes of a form lead, as literals of a state space. */
export class RouteLiterals {
  private readonly leads: Literal[][] = []
  private readonly routeLiterals: Literal[][] = []
  private readonly reachedAt: Literal[] = []

  constructor(
    private readonly model: Model,
    private readonly encoding: Encoding,
    private readonly rules: RuleLiterals,
    private readonly skipTaken: (skip: PlannedSkip) => Literal,
  ) {}

  /** The literal “the routes lead to this section”; the number of sections stands for the finish. */
  reached(index: number): Literal {
    return (this.reachedAt[index] ??= this.reach(index))
  }

  private reach(index: number): Literal {
    const start = this.model.waypoint[index] ?? 0
    if (start === index) return this.encoding.yes
    const from: Literal[] = []
    for (let i = start; i < index; i++) {
      const literal = this.leadsTo(i)[index]
      if (literal !== undefined) from.push(literal)
    }
    return this.encoding.or(from)
  }

  /** By target: the literal “leaving section i leads there”. */
  private leadsTo(i: number): Literal[] {
    const known = this.leads[i]
    if (known) return known
    const section = this.model.plan.sections[i]
    if (!section) return []
    const { encoding } = this
    const reached = this.reached(i)
    if (section.routes.length === 0 && section.exits.length === 0) {
      const onward: Literal[] = []
      onward[i + 1] = reached
      return (this.leads[i] = onward)
    }
    const shown = this.rules.rule(section.shown, section.place, 'shownWhen')
    const byTarget = new Map<number, Literal[]>([[i + 1, [encoding.and([reached, -shown])]]])
    const add = (target: number, literal: Literal) =>
      byTarget.set(target, [...(byTarget.get(target) ?? []), literal])
    const taken = this.routesTaken(i)
    section.routes.forEach((route, r) => add(route.target, taken[r] ?? -encoding.yes))
    const skipped = section.exits.map(this.skipTaken)
    section.exits.forEach((exit, e) => add(exit.target, skipped[e] ?? -encoding.yes))
    add(i + 1, encoding.and([reached, shown, ...[...taken, ...skipped].map(t => -t)]))
    const leads: Literal[] = []
    for (const [target, literals] of byTarget) leads[target] = encoding.or(literals)
    this.leads[i] = leads
    return leads
  }

  /** By route of a section: the literal “leaving the section takes this one”: it is true, none above it is, and no skip leads out. */
  routesTaken(i: number): Literal[] {
    const section = this.model.plan.sections[i]
    const known = this.routeLiterals[i]
    if (!section || known) return known ?? []
    const notBefore: Literal[] = [
      this.reached(i),
      this.rules.rule(section.shown, section.place, 'shownWhen'),
      ...section.exits.map(exit => -this.skipTaken(exit)),
    ]
    return (this.routeLiterals[i] = section.routes.map(route => {
      const holds =
        route.when === null
          ? this.rules.always(section.place, 'route', route.index)
          : this.rules.rule(route.when, section.place, 'route', route.index)
      const taken = this.encoding.and([...notBefore, holds])
      notBefore.push(-holds)
      return taken
    }))
  }
}
