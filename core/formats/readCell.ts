import type { Answer } from '../form/answers'
import { isChoice, type Question } from '../form/questions'
import { optionsOf, WRITE_IN, type OfferedRow } from '../form/rows'
import type { Plan } from '../fill/planned'
import type { Cell } from './answerTable'
import { readGrid, readRanking } from './readListed'

/** A cell without what spreadsheets add to it; an empty one is none. */
export function tidied(cell: Cell): Cell {
  if (typeof cell !== 'string') return cell
  const text = cell.replaceAll('\r\n', '\n')
  return text.trim() === '' ? null : text
}

/** Whether two cells say the same, as spreadsheets write it. */
export function isSameCell(a: Cell, b: Cell): boolean {
  if (a === b) return true
  if (typeof b === 'boolean') return typeof a === 'string' && YES_NO.get(a.toLowerCase()) === b
  return a !== null && b !== null && String(a) === String(b)
}

/** The types whose answers no cell tells whole. */
export const NOT_READ: ReadonlySet<Question['type']> = new Set(['file', 'signature'])
export const LOST = 'This can’t be read from a table: leave the cell as it was taken out.'

/** What a cell is read as: an answer, or why it is none. */
export type CellReading = { answer: Answer; sentence: null } | { answer: null; sentence: string }
const is = (answer: Answer): CellReading => ({ answer, sentence: null })
const isNot = (sentence: string): CellReading => ({ answer: null, sentence })

/** How yes and no are written. */
export const YES_NO: ReadonlyMap<string, boolean> = new Map([
  ['yes', true],
  ['true', true],
  ['1', true],
  ['no', false],
  ['false', false],
  ['0', false],
])
const AMOUNT = /^(?<minus>[-−]?)(?<amount>[\d\s\u00a0]+(?:\.\d+)?)\s*(?<currency>[A-Z]{3})$/

/** One cell as an answer; whether it fits the question is decided where it is filled in. */
export function readCell(plan: Plan, node: Question, cell: Cell): CellReading {
  if (cell === null) return is(null)
  if (isChoice(node)) return readChosen(node, optionsOf(plan.form, node) ?? [], String(cell))
  if (node.type === 'grid')
    return readWhole(readGrid(node, String(cell)), cell, 'a grid, such as “Hull: good; Keel: poor”')
  if (node.type === 'ranking')
    return readWhole(readRanking(node, String(cell)), cell, 'an order, such as “1. Price, 2. Place”')
  return readPlain(node, cell)
}

function readPlain(node: Question, cell: Exclude<Cell, null>): CellReading {
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

const readWhole = (answer: Answer | null, cell: Cell, of: string): CellReading =>
  answer === null ? isNot(`“${cell}” is no answer to ${of}.`) : is(answer)

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
