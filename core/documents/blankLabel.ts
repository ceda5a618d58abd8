import { BOOLEAN } from '../expressions/types'
import type { Plan } from '../fill/planned'
import { withoutQuotes } from '../form/quotes'
import { placeName } from '../form/walk'
import { accessViewOf, mayFill } from '../parties/access'
import { turnName } from '../parties/turns'
import { OpenAnswers } from './openAnswers'
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
  const open = expr ? new OpenAnswers(frame).under(expr) : []
  if (open.length === 0) return null
  return `‹a clause rests on ${open.map(name => blankLabel(scope, name)).join(', ')}›`
}

function firstTurnFilling({ form, places }: Plan, order: number): string | null {
  const place = places[order]
  const turn = form.turns?.find(t => place && mayFill(accessViewOf(form, places, t), place))
  return turn ? turnName(form, turn) : null
}
