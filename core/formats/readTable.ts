import { isRecord, type Answer, type Answers } from '../form/answers'
import { isChoice, type Question } from '../form/questions'
import { optionsOf, WRITE_IN, type OfferedRow } from '../form/rows'
import type { Filled } from '../fill/frame'
import type { Plan, PlannedQuestion } from '../fill/planned'
import { listAnswerColumns, type AnswerColumn, type Cell, type TableStyle } from './answerTable'

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

/** The types whose answers no cell tells whole. */
const NOT_READ: ReadonlySet<Question['type']> = new Set(['file', 'signature', 'grid', 'ranking'])
const LOST: RowReading['problems'][number]['sentence'] =
  'This can’t be read from a table: leave the cell as it was taken out.'

/**
 * Reads a row of a table. Cells that say what the response holds already are passed over, so that nothing is lost that no cell tells.
 * @param stored the response that the row is about, worked out; null for a new one
 */
export function readTableRow(
  plan: Plan,
  columns: readonly TableColumn[],
  cells: readonly Cell[],
  stored: Filled | null,
): RowReading {
  const answers: Record<string, Answer> = {}
  const problems: RowReading['problems'] = []
  const changed = columns.flatMap(({ head, key, written, question }, i) => {
    const cell = tidied(cells[i] ?? null)
    const isKept = stored
      ? written.some(column => isSameCell(cell, tidied(column.read(stored))))
      : cell === null
    const isPassedOver = key === null || question === null || question.value !== null || isKept
    return isPassedOver ? [] : [{ head, key, question, cell }]
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

/** A cell without what spreadsheets add to it; an empty one is none. */
function tidied(cell: Cell): Cell {
  if (typeof cell !== 'string') return cell
  const text = cell.replaceAll('\r\n', '\n')
  return text.trim() === '' ? null : text
}

function isSameCell(a: Cell, b: Cell): boolean {
  if (a === b) return true
  if (typeof b === 'boolean') return typeof a === 'string' && YES_NO.get(a.toLowerCase()) === b
  return a !== null && b !== null && String(a) === String(b)
}

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

type CellReading = { answer: Answer; sentence: null } | { answer: null; sentence: string }
const is = (answer: Answer): CellReading => ({ answer, sentence: null })
const isNot = (sentence: string): CellReading => ({ answer: null, sentence })

const YES_NO: ReadonlyMap<string, boolean> = new Map([
  ['yes', true],
  ['true', true],
  ['1', true],
  ['no', false],
  ['false', false],
  ['0', false],
])
const AMOUNT = /^(?<minus>[-−]?)(?<amount>[\d\s\u00a0]+(?:\.\d+)?)\s*(?<currency>[A-Z]{3})$/

/** One cell as an answer; whether it fits the question is decided where it is filled in. */
function readCell(plan: Plan, node: Question, cell: Cell): CellReading {
  if (cell === null) return is(null)
  if (isChoice(node)) return readChosen(node, optionsOf(plan.form, node) ?? [], String(cell))
  switch (node.type) {
    case 'yesNo': {
      const said = typeof cell === 'boolean' ? cell : YES_NO.get(String(cell).trim().toLowerCase())
      return said === undefined ? isNot(`“${cell}” is neither yes nor no.`) : is(said)
    }
    case 'integer':
    case 'decimal':
    case 'scale':
      return is(typeof cell === 'boolean' ? String(cell) : cell)
    case 'money':
      return node.currencies ? readAmount(String(cell)) : is(typeof cell === 'boolean' ? String(cell) : cell)
    case 'hidden':
      return is(cell)
    default:
      return is(String(cell))
  }
}

/** An amount with its currency, `480.00 EUR`. */
function readAmount(text: string): CellReading {
  const { minus, amount, currency } = AMOUNT.exec(text.trim())?.groups ?? {}
  if (amount === undefined || currency === undefined)
    return isNot(`“${text}” is no amount with its currency, such as 480.00 EUR.`)
  return is({ amount: `${minus ? '-' : ''}${amount.replaceAll(/\s/g, '')}`, currency })
}

function readChosen(
  node: Extract<Question, { type: 'choice' | 'choices' }>,
  rows: readonly OfferedRow[],
  text: string,
): CellReading {
  const own = (words: string): CellReading =>
    node.writeIn ? is({ [WRITE_IN]: words }) : isNot(`“${words}” is none of the choices.`)
  const codes = text.trim().split(' ')
  const isCodes = codes.every(code => code === WRITE_IN || rows.some(row => row.code === code))
  if (node.writeIn && isCodes && codes.includes(WRITE_IN))
    return isNot('Something was written in: the code alone does not tell what.')
  if (node.type === 'choice') {
    const code = codeOf(rows, text.trim())
    return code === null ? own(text) : is(code)
  }
  if (isCodes) return is(codes)
  const chosen = splitLabels(rows, text)
  const answers: Answer[] = []
  for (const part of chosen) {
    const code = codeOf(rows, part)
    const reading = code === null ? own(part) : is(code)
    if (reading.sentence !== null) return reading
    answers.push(reading.answer)
  }
  return is(answers)
}

/** By its label, else by its code; null for neither, and where several have that label. */
function codeOf(rows: readonly OfferedRow[], text: string): string | null {
  const labelled = rows.filter(row => row.label === text)
  const [first] = labelled
  if (first && labelled.length === 1) return first.code
  return rows.find(row => row.code === text)?.code ?? null
}

/** Labels that stand one after another with commas between them, though a label may hold a comma itself. */
function splitLabels(rows: readonly OfferedRow[], text: string): string[] {
  const longest = [...rows].sort((a, b) => b.label.length - a.label.length)
  const parts: string[] = []
  let rest = text
  while (rest !== '') {
    const row = longest.find(({ label }) => rest === label || rest.startsWith(`${label}, `))
    const comma = rest.indexOf(', ')
    const next = comma < 0 ? rest : rest.slice(0, comma)
    const part = row?.label ?? next
    parts.push(part)
    rest = rest.slice(part.length).replace(/^, /, '')
    if (part === '') break
  }
  return parts
}
