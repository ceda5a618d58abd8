import type { ChoiceList } from '../form/choiceLists'
import type { Form } from '../form/definition'
import type { Question, Table } from '../form/questions'
import { ok, wrong, type AnswerReading } from './answerReading'

/** The table that a question's answers are looked up in, if any. */
export const tableOf = (question: Question): Table | undefined =>
  'table' in question ? question.table : undefined

const KEYS = new WeakMap<ChoiceList, ReadonlyMap<string, string>>()
/** As it is looked up: large and small letters, and blanks around it, make no difference. */
const keyOf = (text: string) => text.trim().toLowerCase()
function keysOf(list: ChoiceList): ReadonlyMap<string, string> {
  const known = KEYS.get(list)
  if (known) return known
  const keys = new Map(list.rows.filter(r => r.retired !== true).map(r => [keyOf(r.code), r.code]))
  KEYS.set(list, keys)
  return keys
}

/** The reading of an answer after it was looked up: one of these is kept as the list spells it. A list that there is not takes everything. */
export function lookUp(form: Pick<Form, 'lists'>, table: Table, reading: AnswerReading): AnswerReading {
  const list = form.lists?.find(l => l.code === table.list)
  if (!list || typeof reading.value !== 'string') return reading
  const found = keysOf(list).get(keyOf(reading.value))
  if (table.takes === 'others') return found === undefined ? reading : wrong(table.message)
  return found === undefined ? wrong(table.message) : ok(found, found)
}
