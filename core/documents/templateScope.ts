import { compile } from '../expressions/compile'
import { numberFromDouble } from '../expressions/decimal'
import { BOOLEAN, type Value } from '../expressions/types'
import { describeTyped } from '../fill/describeValue'
import type { Filled, Frame } from '../fill/frame'
import type { Plan } from '../fill/planned'
import { quotedText } from '../fill/quote'
import { isRepeating } from '../fill/steps'
import type { TemplateFormat } from '../form/tags'
import { standpointAtEnd, standpointInside, type Standpoint } from '../form/scope'
import { sayInWords } from './inWords'
import { listItems, type Item } from './loopItems'

/** Where a tag is filled: a response, or an entry of it, and what the loops around it go over now. */
export interface TemplateScope {
  frame: Frame
  stand: Standpoint
  item: Item | null
}

/** What a quote of a loop’s own begins with. */
export const ITEM = /^item\.(\w+)$/

/** A response as a template is filled from it. */
export const scopeOf = (filled: Filled): TemplateScope => ({
  frame: filled,
  stand: standpointAtEnd(filled.plan.form),
  item: null,
})

/** What a quote says; blank is nothing. */
export function sayQuote(scope: TemplateScope, source: string, format: TemplateFormat | null): string {
  const { frame, stand, item } = scope
  const member = ITEM.exec(source)?.[1]
  if (member !== undefined) return sayMember(item?.[member] ?? null, format)
  if (format === 'in words') return sayWords(scope, source)
  return quotedText(frame, `{{${source}${format === null ? '' : `|${format}`}}}`, stand)
}

/** What a loop goes over, by what its columns hold. */
function sayMember(value: Value, format: TemplateFormat | null): string {
  if (format === 'in words') return sayInWords(value, null)
  const text = describeTyped(value, { kind: 'unknown' }, format === 'money' ? { places: 2 } : {})
  if (format === 'upper case') return text.toUpperCase()
  return format === 'lower case' ? text.toLowerCase() : text
}

function sayWords({ frame, stand }: TemplateScope, source: string): string {
  const { plan, values } = frame
  const { expr } = plan.names.readQuote(source, stand)
  const question = expr?.kind === 'name' ? plan.byCode.get(expr.name) : undefined
  return expr ? sayInWords(compile(expr, plan.environment)(values), question?.place.node ?? null) : ''
}

/** Whether a clause is printed: its condition is true; unknown is not. */
export function isPrinted({ frame, stand }: TemplateScope, condition: string): boolean {
  const { expr } = frame.plan.names.read(condition, stand, BOOLEAN)
  return expr !== null && compile(expr, frame.plan.environment)(frame.values) === true
}

/** What can a loop go over: the code of a repeating group, a grid, or a multiple choice that is seen from where it stands. */
export function loopOf(plan: Plan, source: string, stand: Standpoint): 'entries' | 'items' | null {
  const group = plan.groups.get(source)
  if (group) return isSeen(group.place.entryOf, stand) ? 'entries' : null
  const question = plan.byCode.get(source)
  if (!question || !isSeen(question.place.entryOf, stand)) return null
  const { type } = question.place.node
  return type === 'choices' || type === 'grid' || type === 'ranking' ? 'items' : null
}

const isSeen = (outer: Standpoint['entryOf'], stand: Standpoint) =>
  outer === null || stand.groups.some(g => g.order === outer.order)

/** The scopes that a loop goes through, in order; none where there is nothing to go over. */
export function listLoop(scope: TemplateScope, source: string): TemplateScope[] {
  const { frame, stand } = scope
  const { plan } = frame
  const loop = loopOf(plan, source, stand)
  if (loop === null) return []
  const group = plan.groups.get(source)
  if (loop === 'entries' && group && isRepeating(group))
    return (frame.entries.get(group.place.order) ?? []).map((entry, i) => ({
      frame: entry,
      stand: standpointInside(group.place),
      item: { number: numberFromDouble(i + 1) },
    }))
  return listItems(frame, source).map((item, i) => ({
    ...scope,
    item: { ...item, number: numberFromDouble(i + 1) },
  }))
}
