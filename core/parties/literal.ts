import { isDuration, durationText } from '../expressions/dates'
import { isNumber } from '../expressions/decimal'
import type { Expr } from '../expressions/tree'
import type { Value, ValueType } from '../expressions/types'

const at = { from: 0, to: 0 }

/** A value as a constant of the rule language; entries and other records, which have no constant, are blank. */
export function literalOf(value: Value, type: ValueType): Expr {
  if (value === null) return { kind: 'null', ...at }
  if (typeof value === 'boolean') return { kind: 'boolean', value, ...at }
  if (isNumber(value)) return { kind: 'number', value, ...at }
  if (isDuration(value)) return { kind: 'duration', value: durationText(value), ...at }
  if (typeof value === 'string')
    return type.kind === 'date' || type.kind === 'time' || type.kind === 'dateTime'
      ? { kind: type.kind, value, ...at }
      : { kind: 'text', value, ...at }
  if (Array.isArray(value))
    return {
      kind: 'list',
      items: value.map((v: Value) => literalOf(v, type.kind === 'list' ? type.of : { kind: 'unknown' })),
      ...at,
    }
  return { kind: 'null', ...at }
}
