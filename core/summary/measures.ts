import type { Plan, PlannedQuestion } from '../fill/planned'
import { gridSteps } from '../form/notApplicable'
import { writeInLabel } from '../form/types'
import { isChoice, type Question } from '../form/questions'
import { withoutQuotes } from '../form/quotes'
import { optionsOf, WRITE_IN } from '../form/rows'
import { unitOf } from '../form/unitOf'

/** One of the values that a choice can have, with what it counts where its options have points, or it is a step of a scale. */
export interface MeasureOption {
  code: string
  label: string
  points: number | null
}

/**
 * What of a question is summarised: a question, or one row of a grid. `key`: its code, with `.row` for a row; `options`: of choices, in the
 * order of the form; `isRanked`: several, put into an order; `isSeveral`: a response can hold several values, since several are chosen or
 * the question is asked in each entry; `promise`: of a promise of the form, its condition; `asked`: how the rule language names it, null where a condition can’t.
 */
export interface Measure {
  key: string
  code: string
  row: string | null
  label: string
  section: string
  kind: 'choice' | 'number' | 'day' | 'text' | 'other'
  options: readonly MeasureOption[]
  isSeveral: boolean
  isRanked: boolean
  unit: string
  promise: string | null
  asked: string | null
}

/** More rows of a list are no options: they are counted as they occur. */
const MOST_OPTIONS = 200

/** Everything that can be summarised of a form, in its order. */
export function listMeasures(plan: Plan): Measure[] {
  const questions = plan.questions.toSorted((a, b) => a.place.order - b.place.order)
  return [...questions.flatMap(question => measuresOf(plan, question)), ...promisesOf(plan)]
}

/** What a promise can be in a response that is done. */
const KEPT_OR_BROKEN: readonly MeasureOption[] = [
  { code: 'kept', label: 'kept', points: null },
  { code: 'broken', label: 'broken', points: null },
]

/** The promises of a form: how many responses keep each. */
const promisesOf = ({ form }: Plan): Measure[] =>
  (form.promises ?? []).map(({ code, text, holds }) => ({
    ...{ key: `@promise.${code}`, code: '', row: null, section: 'Promises', kind: 'choice' },
    ...{ isSeveral: false, isRanked: false, unit: '', promise: holds, asked: null },
    label: text || code,
    options: KEPT_OR_BROKEN,
  }))

function measuresOf(plan: Plan, { place }: PlannedQuestion): Measure[] {
  const { node, code, entryOf, section } = place
  const about = {
    code,
    row: null,
    section: withoutQuotes(plan.form.sections[section]?.title ?? ''),
    isSeveral: entryOf !== null || node.type === 'choices' || node.type === 'ranking',
    isRanked: node.type === 'ranking',
    unit: unitOf(node) ?? '',
    options: [],
    promise: null,
    asked: isAsked(node) && entryOf === null ? code : null,
  }
  const label = withoutQuotes(node.label) || code
  if (node.type === 'grid')
    return node.rows.map(row => ({
      ...about,
      key: `${code}.${row.code}`,
      row: row.code,
      label: `${label}: ${withoutQuotes(row.label)}`,
      kind: 'choice',
      options: gridSteps(node).map(optionOf),
    }))
  return [{ ...about, key: code, label, kind: kindOf(node), options: choicesOf(plan, node) }]
}

/** Whether the database can be asked for it; a value is worked out, a grid has rows, and a moment is no day. */
const isAsked = (node: Question): boolean =>
  !['value', 'grid', 'ranking', 'file', 'signature', 'hidden', 'dateTime'].includes(node.type)

/** What each type is summarised as; contacts, files and the like only by whether they were given. */
const KINDS: Partial<Record<Question['type'], Measure['kind']>> = {
  ...{ choice: 'choice', choices: 'choice', yesNo: 'choice', scale: 'choice', ranking: 'choice' },
  ...{ integer: 'number', decimal: 'number', money: 'number', value: 'number' },
  ...{ date: 'day', dateTime: 'day', text: 'text', longText: 'text' },
}

function kindOf(node: Question): Measure['kind'] {
  if (node.type === 'hidden') return node.holds === 'number' ? 'number' : 'text'
  return KINDS[node.type] ?? 'other'
}

const optionOf = ({ code, label, points }: { code: string; label: string; points?: number }) => ({
  code,
  label: withoutQuotes(label),
  points: points ?? null,
})

function choicesOf(plan: Plan, node: Question): MeasureOption[] {
  if (node.type === 'yesNo')
    return [
      { code: 'true', label: 'Yes', points: null },
      { code: 'false', label: 'No', points: null },
    ]
  if (node.type === 'ranking') return node.options.map(optionOf)
  if (node.type === 'scale')
    return Array.from({ length: Math.max(0, node.max - node.min + 1) }, (_, i) => {
      const step = node.min + i
      return { code: `${step}`, label: `${step}`, points: step }
    })
  if (!isChoice(node)) return []
  const rows = (optionsOf(plan.form, node) ?? []).slice(0, MOST_OPTIONS).map(optionOf)
  return node.writeIn ? [...rows, { code: WRITE_IN, label: writeInLabel(node), points: null }] : rows
}
