import type { Value, ValueType } from '../expressions/types'
import { isFormat, splitQuotes, type Format } from '../form/quotes'
import { compile } from '../expressions/compile'
import type { Compiled } from '../expressions/compiled'
import type { GroupPlace } from '../form/walk'
import type { Frame } from './frame'
import type { Plan, PlannedQuestion } from './planned'
import { standpointInside, type Standpoint } from '../form/scope'
import { describeTyped, describeValue } from './describeValue'

/** A text made ready: its words and the quotes between them. */
export type PlannedText = readonly (
  string | { run: Compiled; tell: (value: Value, frame: Frame) => string }
)[]

const READY = new WeakMap<Plan, Map<string, PlannedText>>()

/** A text with its quotes as it reads now. A blank answer is quoted as nothing; a faulty quote too. */
export function quotedText(frame: Frame, text: string, stand: Standpoint): string {
  if (!text.includes('{{')) return text
  return textFor(frame.plan, text, stand)
    .map(p => (typeof p === 'string' ? p : p.tell(p.run(frame.values), frame)))
    .join('')
}

/** The same with each quote escaped for where it lands. */
export const quotedWith = (
  frame: Frame,
  text: string,
  stand: Standpoint,
  escape: (quote: string) => string,
): string =>
  text.includes('{{')
    ? textFor(frame.plan, text, stand)
        .map(p => (typeof p === 'string' ? p : escape(p.tell(p.run(frame.values), frame))))
        .join('')
    : text

/** The heading of an entry; `Engine 2` where the group gives none, or nothing that it quotes is answered yet. */
export function entryHeading(entry: Frame, group: GroupPlace, index: number): string {
  const own = group.node.repeat?.heading ?? ''
  const stand = standpointInside(group)
  const quotes = textFor(entry.plan, own, stand).filter(p => typeof p !== 'string')
  const isBlank = quotes.length > 0 && quotes.every(q => q.run(entry.values) === null)
  const quoted = isBlank ? '' : quotedText(entry, own, stand).trim()
  return quoted || `${group.node.title || 'Entry'} ${index + 1}`
}

function textFor(plan: Plan, text: string, stand: Standpoint): PlannedText {
  const ready = READY.get(plan) ?? new Map<string, PlannedText>()
  READY.set(plan, ready)
  const key = `${stand.section}/${stand.entryOf?.order ?? ''}:${text}`
  const known = ready.get(key)
  if (known) return known
  const made = splitQuotes(text).map(piece => {
    if (piece.kind === 'words') return piece.text
    const { expr, type } = plan.names.readQuote(piece.source, stand)
    const question = expr?.kind === 'name' ? plan.byCode.get(expr.name) : undefined
    const format = piece.format !== null && isFormat(piece.format) ? piece.format : null
    return { run: expr ? compile(expr, plan.environment) : () => null, tell: teller(format, type, question) }
  })
  ready.set(key, made)
  return made
}

/** An amount is written with its currency. */
const isMoney = (question: PlannedQuestion | undefined): boolean =>
  question !== undefined && 'currency' in question.place.node && question.place.node.currency !== undefined

function teller(
  format: Format | null,
  type: ValueType,
  question: PlannedQuestion | undefined,
): (value: Value, frame: Frame) => string {
  const plain = (value: Value, frame: Frame) =>
    question
      ? describeValue(value, question.place.node, frame.plan.form, frame.given.get(question.slot))
      : describeTyped(value, type)
  switch (format) {
    case 'upper case':
      return (value, frame) => plain(value, frame).toUpperCase()
    case 'lower case':
      return (value, frame) => plain(value, frame).toLowerCase()
    case 'long date':
      return value => describeTyped(value, type, { longDate: true })
    case 'short date':
      return value => (typeof value === 'string' ? value : '')
    case 'money':
      return isMoney(question) ? plain : value => describeTyped(value, type, { places: 2 })
    case 'list':
      return value => describeTyped(value, type, { last: ' and ' })
    case 'lines':
      return value => describeTyped(value, type, { glue: '\n' })
    default:
      return plain
  }
}
