import type { Expr } from '../../expressions/tree'
import type { Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import { namesBehind } from '../../parties/handOffNames'
import type { Model } from '../model/model'

/**
 * The questions whose answers decide what becomes of some places: whether they are there, are required, can be changed, fit, or what they offer
 * and begin with; and in turn what decides those questions.
 * @returns by code of such a question, the place that it decides
 */
export function decidersOf(model: Model, places: readonly Place[]): ReadonlyMap<string, Place> {
  const found = new Map<string, Place>()
  const open = [...places]
  const seen = new Set<number>()
  for (let place = open.pop(); place !== undefined; place = open.pop()) {
    if (seen.has(place.order)) continue
    seen.add(place.order)
    open.push(...placesAround(model, place))
    for (const name of namesDeciding(model, place)) {
      const asked = (model.plan.byCode.get(name) ?? model.plan.groups.get(name))?.place
      if (!asked || found.has(name)) continue
      found.set(name, place)
      open.push(asked)
    }
  }
  return found
}

function placesAround({ plan }: Model, place: Place): Place[] {
  const section = plan.sections[place.section]?.place
  return [...place.groups, ...(section ? [section] : [])]
}

function namesDeciding(model: Model, place: Place): string[] {
  const { plan, rules } = model
  const own = rules.filter(r => r.place.order === place.order && !SAID_AT_THE_END.has(r.kind))
  const exprs = [
    ...own.map(r => r.expr),
    ...passingSkips(model.stepAt(place.order)),
    ...(place.kind === 'section' ? passingRoutes(model, place.section) : []),
  ]
  return exprs.flatMap(expr => (expr ? namesBehind(plan, expr) : []))
}

/** What decides nothing of what is asked: these stand with the last section. A route and a skip decide what they pass over. */
const SAID_AT_THE_END: ReadonlySet<string> = new Set([
  'handOff',
  'promise',
  'delivery',
  'payment',
  'document',
  'closing',
  'route',
  'skip',
])

/** The conditions of the skips that can pass over a step. */
const passingSkips = (step: Step | undefined): (Expr | null | undefined)[] =>
  (step?.skips ?? []).flatMap(skip => [skip.when?.expr, ...skip.above.map(s => s.when?.expr)])

/** The conditions of the ways out of sections from which one of them leads past another section. */
const passingRoutes = ({ plan }: Model, section: number): (Expr | null | undefined)[] =>
  plan.sections.slice(0, section).flatMap(({ routes, exits }) => {
    const ways = [...exits, ...routes]
    return ways.some(way => way.target > section) ? ways.map(way => way.when?.expr) : []
  })
