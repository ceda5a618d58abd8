import type { Compiled } from '../expressions/compiled'
import { numberFromDouble } from '../expressions/decimal'
import type { Value } from '../expressions/types'
import type { Form } from '../form/definition'
import type { ChoiceType, Question, QuestionOf } from '../form/questions'
import { optionsOf, WRITE_IN } from '../form/rows'
import { writeInLabel } from '../form/types'
import { cellValue, indexRows } from '../lists/listIndex'

/**
 * What a path reaches through a chosen code: the option's label, points and price, the row's cells, the text written in; through a grid, the
 * points of its rows. Undefined where there is nothing to reach.
 */
export function memberReader(form: Form, node: Question, slot: number, member: string): Compiled | undefined {
  if (node.type === 'grid' && member === 'points') return gridPoints(node, slot)
  if (node.type !== 'choice' && node.type !== 'choices') return undefined
  if (member === WRITE_IN) return node.writeIn ? slots => slots[slot + 1] ?? null : undefined
  const reach = throughRow(form, node, member)
  return slots => {
    const value = slots[slot] ?? null
    if (!Array.isArray(value)) return reach(value)
    return value.map(reach).filter(v => v !== null || member === 'label')
  }
}

function gridPoints(node: QuestionOf<'grid'>, slot: number): Compiled {
  const points = new Map(
    node.options.map(o => [o.code, o.points === undefined ? null : numberFromDouble(o.points)]),
  )
  return slots => {
    const value = slots[slot]
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return null
    return Object.values(value)
      .flatMap((code): Value[] => (typeof code === 'string' ? [points.get(code) ?? null] : []))
      .filter(p => p !== null)
  }
}

function throughRow(form: Form, node: QuestionOf<ChoiceType>, member: string): (code: Value) => Value {
  const rows = indexRows(optionsOf(form, node) ?? []).byCode
  return code => {
    if (typeof code !== 'string') return null
    const row = rows.get(code)
    if (member === 'label') return row?.label ?? (code === WRITE_IN ? writeInLabel(node) : null)
    if (!row) return null
    return member === 'row'
      ? Object.fromEntries(Object.entries(row).map(([key, value]) => [key, cellValue(value)]))
      : cellValue(row[member])
  }
}
