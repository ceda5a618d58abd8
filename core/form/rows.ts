import type { ChoiceList, Row } from './choiceLists'
import type { Form } from './definition'
import type { ChoiceType, QuestionOf } from './questions'

/** The code of the choice that asks for its own text. */
export const WRITE_IN = 'other'

/** A row that a choice offers: an option of the question, or a row of its list. */
export type OfferedRow = Row & {
  points?: number
  price?: number
  shownWhen?: string
  alone?: boolean
  picture?: string
  /** How often it can be chosen; as a respondent sees it, how often still. */
  places?: number
}

/** The rows that a choice question offers at most, before any narrowing; null when its list does not exist. */
export function optionsOf(form: Form, question: QuestionOf<ChoiceType>): readonly OfferedRow[] | null {
  if (question.list === undefined) return question.options ?? []
  const list = form.lists?.find(l => l.code === question.list)
  return list ? liveRows(list) : null
}

const LIVE = new WeakMap<ChoiceList, readonly Row[]>()
/** The rows of a list that are not retired. */
function liveRows(list: ChoiceList): readonly Row[] {
  const known = LIVE.get(list)
  if (known) return known
  const rows = list.rows.some(r => r.retired === true)
    ? list.rows.filter(row => row.retired !== true)
    : list.rows
  LIVE.set(list, rows)
  return rows
}

const LABELS = new WeakMap<readonly OfferedRow[], ReadonlyMap<string, string>>()
/** The labels of rows by code; made once for each list of rows. */
export function labelsByCode(rows: readonly OfferedRow[]): ReadonlyMap<string, string> {
  const known = LABELS.get(rows)
  if (known) return known
  const labels = new Map(rows.map(r => [r.code, r.label]))
  LABELS.set(rows, labels)
  return labels
}
