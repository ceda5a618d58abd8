import type { Value } from '../expressions/types'
import { isContext } from '../expressions/values'
import { describeValue } from '../fill/describeValue'
import type { Frame } from '../fill/frame'
import { gridSteps } from '../form/notApplicable'
import type { Question, QuestionOf } from '../form/questions'
import { optionsOf, type OfferedRow } from '../form/rows'
import { cellValue } from '../lists/listIndex'

/** What a loop goes over now, by what can be quoted of it as `item.label`. */
export type Item = Readonly<Record<string, Value>>

/** What can be quoted of whatever a loop goes over: of a question, by its type. Of entries only their number. */
export function itemMembers(question: Question | null, rows: readonly OfferedRow[]): string[] {
  if (question === null) return ['number']
  if (question.type === 'grid') return ['number', 'code', 'label', 'answer']
  const columns = rows.flatMap(row => Object.keys(row))
  return [...new Set(['number', 'code', 'label', ...columns])]
}

/** The options of a question that is gone over; none of one that has none. */
export function optionsLooped(form: Frame['plan']['form'], question: Question): readonly OfferedRow[] {
  if (question.type === 'choices') return optionsOf(form, question) ?? []
  return question.type === 'ranking' ? question.options : []
}

/** What a multiple choice, a ranking or a grid holds, one by one. */
export function listItems(frame: Frame, code: string): Item[] {
  const question = frame.plan.byCode.get(code)
  if (!question) return []
  const { node } = question.place
  const value = frame.values[question.slot] ?? null
  if (node.type === 'grid') return listGrid(node, value)
  if (!Array.isArray(value)) return []
  const rows = new Map(optionsLooped(frame.plan.form, node).map(row => [row.code, row]))
  return value.map((chosen: Value): Item => {
    const row = typeof chosen === 'string' ? rows.get(chosen) : undefined
    const label = row?.label ?? describeValue([chosen], node, frame.plan.form, frame.given.get(question.slot))
    const cells = Object.entries(row ?? {}).map(([key, cell]) => [key, cellValue(cell)] as const)
    return { ...Object.fromEntries(cells), code: chosen, label }
  })
}

function listGrid(grid: QuestionOf<'grid'>, value: Value): Item[] {
  if (!isContext(value)) return []
  const steps = new Map(gridSteps(grid).map(step => [step.code, step.label]))
  return grid.rows.flatMap(row => {
    const step = value[row.code] ?? null
    if (typeof step !== 'string') return []
    return [{ code: row.code, label: row.label, answer: steps.get(step) ?? step }]
  })
}
