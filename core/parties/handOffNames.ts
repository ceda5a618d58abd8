import { namesIn, type Expr } from '../expressions/tree'
import type { Plan } from '../fill/planned'
import { accessViewOf, mayFill } from './access'
import { decidingCodes } from './decidingCodes'

/**
 * What a hand-off of a turn asks for that later turns may change: `blank` only they fill, so it is blank then; `open` earlier ones fill as well,
 * or it begins with an answer, or later answers decide whether something that is asked for is in play.
 */
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

/** Which answers that a hand-off of a turn asks for are given, or brought into play, by later turns. */
export function laterNamesOf(plan: Plan, index: number, expr: Expr): LaterNames {
  const blank = new Set<string>()
  const open = new Set<string>()
  const names = namesBehind(plan, expr)
  for (const name of names) {
    const filling = turnsFilling(plan, name)
    if (!filling.some(i => i > index)) continue
    // What begins with an answer has it before anybody fills it.
    const isBlankBefore = !filling.some(i => i <= index) && plan.byCode.get(name)?.default == null
    if (isBlankBefore) blank.add(name)
    else open.add(name)
  }
  const notBlank = names.filter(name => !blank.has(name))
  for (const name of decidingCodes(plan, notBlank))
    if (!names.includes(name) && turnsFilling(plan, name).some(i => i > index)) open.add(name)
  return { blank, open }
}

/** The positions of the turns that fill what has a code; a calculated value is given by nobody. */
function turnsFilling(plan: Plan, name: string): number[] {
  const place = (plan.byCode.get(name) ?? plan.groups.get(name))?.place
  if (!place || (place.kind === 'question' && place.node.type === 'value')) return []
  return (plan.form.turns ?? []).flatMap((turn, i) =>
    mayFill(accessViewOf(plan.form, plan.places, turn), place) ? [i] : [],
  )
}
