import { namesIn, type Expr } from '../expressions/tree'
import type { Plan } from '../fill/planned'
import { accessViewOf, mayFill } from './access'

/** What a hand-off of a turn asks for that later turns fill: `blank` only they do, so it is blank then; `open` earlier ones do as well, or it begins with an answer. */
export interface LaterNames {
  blank: ReadonlySet<string>
  open: ReadonlySet<string>
}

/** What a condition asks for, with what calculated values are made of. */
export function namesBehind(plan: Plan, expr: Expr): string[] {
  const found = new Set<string>()
  const open = [...namesIn(expr)]
  for (let name = open.pop(); name !== undefined; name = open.pop()) {
    if (found.has(name)) continue
    found.add(name)
    const value = plan.byCode.get(name)?.value?.expr
    if (value) open.push(...namesIn(value))
  }
  return [...found]
}

/** Which answers that a hand-off of a turn asks for are given by later turns. */
export function laterNamesOf(plan: Plan, index: number, expr: Expr): LaterNames {
  const { form } = plan
  const turns = form.turns ?? []
  const blank = new Set<string>()
  const open = new Set<string>()
  for (const name of namesBehind(plan, expr)) {
    const place = (plan.byCode.get(name) ?? plan.groups.get(name))?.place
    // A calculated value is given by nobody.
    if (!place || (place.kind === 'question' && place.node.type === 'value')) continue
    const filling = turns.flatMap((turn, i) =>
      mayFill(accessViewOf(form, plan.places, turn), place) ? [i] : [],
    )
    if (!filling.some(i => i > index)) continue
    // What begins with an answer has it before anybody fills it.
    const isBlankBefore = !filling.some(i => i <= index) && plan.byCode.get(name)?.default == null
    if (!isBlankBefore) open.add(name)
    else blank.add(name)
  }
  return { blank, open }
}
