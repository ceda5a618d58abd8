import { compile } from '../expressions/compile'
import { namesIn, type Expr } from '../expressions/tree'
import { BOOLEAN } from '../expressions/types'
import type { Frame } from '../fill/frame'
import type { Plan } from '../fill/planned'
import { withoutQuotes } from '../form/quotes'
import { placeName } from '../form/walk'
import { accessViewOf, mayFill } from '../parties/access'
import { turnName } from '../parties/turns'
import type { TemplateScope } from './templateScope'

/** What stands in a preview for an answer that is not there yet: what is asked, and in whose turn, in a form with turns. */
export function blankLabel({ frame: { plan } }: Pick<TemplateScope, 'frame'>, source: string): string {
  const place = plan.byCode.get(source)?.place
  if (!place) return `‹${source}›`
  const name = withoutQuotes(placeName(place))
  const turn = firstTurnFilling(plan, place.order)
  return turn === null ? `‹${name}›` : `‹${turn}: ${name}›`
}

/** What stands in a preview before a clause that is not decided yet: on which open answers it rests. Null where whatever is answered there, it is printed, or is not. */
export function openLabel(scope: TemplateScope, condition: string): string | null {
  const { frame, stand } = scope
  const { expr } = frame.plan.names.read(condition, stand, BOOLEAN)
  if (!expr || decide(frame, expr) !== null) return null
  const open = [...new Set(namesIn(expr))].filter(name => isOpen(frame, name))
  return `‹a clause rests on ${open.map(name => blankLabel(scope, name)).join(', ')}›`
}

/** Whether a condition holds, as far as that rests on no open answer; null where it does. */
function decide(frame: Frame, expr: Expr): boolean | null {
  if (expr.kind === 'not') {
    const inner = decide(frame, expr.value)
    return inner === null ? null : !inner
  }
  if (expr.kind === 'and' || expr.kind === 'or') {
    const parts = expr.parts.map(part => decide(frame, part))
    const decisive = expr.kind === 'or'
    if (parts.includes(decisive)) return decisive
    return parts.includes(null) ? null : !decisive
  }
  if (namesIn(expr).some(name => isOpen(frame, name))) return null
  return compile(expr, frame.plan.environment)(frame.values) === true
}

/** Whether a question is asked, and not answered. */
function isOpen({ plan, values, inPlay }: Frame, name: string): boolean {
  const question = plan.byCode.get(name)
  return (
    question !== undefined &&
    inPlay[question.place.order] === true &&
    (values[question.slot] ?? null) === null
  )
}

function firstTurnFilling({ form, places }: Plan, order: number): string | null {
  const place = places[order]
  const turn = form.turns?.find(t => place && mayFill(accessViewOf(form, places, t), place))
  return turn ? turnName(form, turn) : null
}
