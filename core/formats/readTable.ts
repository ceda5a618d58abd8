import { isRecord, type Answer, type Answers } from '../form/answers'
import { WRITE_IN } from '../form/rows'
import type { Filled } from '../fill/frame'
import type { Plan, PlannedQuestion } from '../fill/planned'
import { listAnswerColumns, type AnswerColumn, type Cell, type TableStyle } from './answerTable'
import { isSameCell, LOST, NOT_READ, readCell, tidied, YES_NO } from './readCell'

/** A column of a table that answers are read from: its head, and the column of answers that it is by its key, as it may have been written: by label, or by code. Null where it is none. */
export interface TableColumn {
  head: string
  key: string | null
  written: readonly AnswerColumn[]
  question: PlannedQuestion | null
}

const STYLES: readonly TableStyle[] = [
  { values: 'both', isSpread: false },
  { values: 'labels', isSpread: true },
  { values: 'codes', isSpread: true },
  { values: 'codes', isSpread: false },
]

/**
 * Which answers stand in the columns of a table, by their heads as they are taken out: labels, or codes. Heads that stand several times are
 * those of the questions with that label, in order.
 * @param own the question of a response’s own version that stands under a code here
 */
export function matchColumns(
  plan: Plan,
  heads: readonly string[],
  own: Parameters<typeof listAnswerColumns>[2],
): TableColumn[] {
  const known = STYLES.flatMap(style => listAnswerColumns(plan, style, own))
  const taken = new Set<string>()
  return heads.map(head => {
    const key = known.find(c => !taken.has(c.key) && (c.head === head || c.key === head))?.key ?? null
    if (key !== null) taken.add(key)
    const code = key?.split('.')[0] ?? ''
    const question = plan.byCode.get(code) ?? null
    return { head, key, written: known.filter(c => c.key === key), question }
  })
}

/** The columns as another version of the form has them. @param codeOf what a code is called there */
export const asCalledIn = (
  plan: Plan,
  columns: readonly TableColumn[],
  codeOf: (code: string) => string,
): TableColumn[] =>
  columns.map(column => {
    const [code, ...rest] = column.key?.split('.') ?? []
    if (code === undefined) return column
    const own = codeOf(code)
    return { ...column, key: [own, ...rest].join('.'), question: plan.byCode.get(own) ?? null }
  })

/** What a row of a table says that a response is to hold, by code, null for nothing; and what of it can’t be read, by the head of its column. */
export interface RowReading {
  answers: Answers
  problems: { path: string; sentence: string }[]
}

/**
 * Reads a row of a table. Cells that say what the response holds already are passed over, so that nothing is lost that no cell tells.
 * @param stored the response that the row is about, worked out; null for a new one
 * @param elsewhere the groups whose entries are read from sheets of their own: what a cell tells of them is passed over
 */
export function readTableRow(
  plan: Plan,
  columns: readonly TableColumn[],
  cells: readonly Cell[],
  stored: Filled | null,
  elsewhere: ReadonlySet<string> = new Set(),
): RowReading {
  const answers: Record<string, Answer> = {}
  const problems: RowReading['problems'] = []
  const changed = columns.flatMap(({ head, key, written, question }, i) => {
    const cell = tidied(cells[i] ?? null)
    const isKept = stored
      ? written.some(column => isSameCell(cell, tidied(column.read(stored))))
      : cell === null
    const isRead = key !== null && question !== null && question.value === null
    const isElsewhere = elsewhere.has(question?.place.entryOf?.code ?? '')
    return !isRead || isElsewhere || isKept ? [] : [{ head, key, question, cell }]
  })
  const spread = new Set<string>()
  for (const { head, key, question, cell } of changed) {
    const { code, node, entryOf } = question.place
    const [, option] = key.split('.')
    if (entryOf !== null || NOT_READ.has(node.type)) problems.push({ path: head, sentence: LOST })
    else if (node.type === 'choices' && option !== undefined && option !== 'code') spread.add(code)
    else if (!Object.hasOwn(answers, code) || (option === 'code' && !isWrittenIn(cell))) {
      const read = readCell(plan, node, cell)
      if (read.sentence === null) answers[code] = read.answer
      else problems.push({ path: head, sentence: read.sentence })
    }
  }
  for (const code of spread) {
    const words = changed.find(c => c.key === `${code}.${WRITE_IN}`)
    const own = words ? ownWordsOf(words.cell) : ownWordsIn(plan, stored, code)
    const all = [...readSpread(columns, cells, code), ...own]
    answers[code] = all.length > 0 ? all : null
  }
  return { answers, problems }
}

/** Whether a cell of codes says that something was written in, which it does not tell. */
const isWrittenIn = (cell: Cell): boolean => String(cell).split(' ').includes(WRITE_IN)

/** What stands behind the code of a question in the key of a column, and is none of its choices. */
const NO_CHOICE: ReadonlySet<string> = new Set(['code', WRITE_IN])

/** Several chosen, from a column for each choice. */
function readSpread(columns: readonly TableColumn[], cells: readonly Cell[], code: string): Answer[] {
  return columns.flatMap(({ key }, i) => {
    const [of, option] = key?.split('.') ?? []
    const cell = cells[i]
    const isChosen = cell === true || (typeof cell === 'string' && YES_NO.get(cell.toLowerCase()) === true)
    return of === code && option !== undefined && !NO_CHOICE.has(option) && isChosen ? [option] : []
  })
}

/** What a cell says that was written in. */
const ownWordsOf = (cell: Cell): Answer[] => (cell === null ? [] : [{ [WRITE_IN]: String(cell) }])

/** What of a stored answer was written in: no column of a choice tells it. */
function ownWordsIn(plan: Plan, stored: Filled | null, code: string): Answer[] {
  const question = plan.byCode.get(code)
  const given = question && stored ? stored.given.get(question.slot) : undefined
  return [given ?? []].flat().filter(isOwnWords)
}

/** Whether an answer is a choice in one’s own words. */
const isOwnWords = (answer: Answer): boolean => isRecord(answer) && WRITE_IN in answer
