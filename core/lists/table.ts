import { dayNumber } from '../expressions/dates'
import { codeFromLabel, freeCode } from '../form/codes'
import { LIMITS } from '../form/limits'
import { ROW_KEYS, type ColumnKind, type Row } from '../form/choiceLists'

/** A table as it was read or pasted: cells as text, the first line the heads. */
export type Table = readonly (readonly string[])[]
/** What a head of a table stands for: the code or label of rows, a column by its code, or nothing. */
export type Role = 'code' | 'label' | 'retired' | 'remark' | 'skip' | { column: string }
export interface TableProblem {
  row: number
  sentence: string
}
export interface ReadRows {
  rows: Row[]
  columns: string[]
  problems: TableProblem[]
}

const plain = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replaceAll(/[\s_-]+/g, ' ')
const KNOWN: Readonly<Record<string, Role>> = {
  code: 'code',
  key: 'code',
  id: 'code',
  label: 'label',
  name: 'label',
  title: 'label',
  retired: 'retired',
  remark: 'remark',
  remarks: 'remark',
}

const LONGEST_HEAD = 60

/**
 * Whether the first line of a table most likely heads its columns: it names something that is known, or holds words over cells of another
 * kind, or says nothing that the lines below say again.
 */
export function isHeaded(lines: Table, known: readonly string[] = []): boolean {
  const [first = [], ...rest] = lines
  const heads = first.map(plain)
  const words = heads.filter(h => h !== '')
  if (words.length === 0 || rest.length === 0) return rest.length === 0
  if (words.some(h => KNOWN[h] !== undefined || known.some(c => plain(c) === h))) return true
  if (new Set(words).size < words.length || words.some(h => h.length > LONGEST_HEAD)) return false
  if (heads.some((_, i) => guessColumnKind([first[i] ?? '']) !== 'text')) return false
  const kinds = heads.map((_, i) => guessColumnKind(rest.map(line => line[i] ?? '')))
  return kinds.some(kind => kind !== 'text')
}

/** Heads for a table that has none. */
export const headsFor = (lines: Table): string[] =>
  Array.from({ length: Math.max(0, ...lines.map(l => l.length)) }, (_, i) => `Column ${i + 1}`)

const CODE_LIKE = /^[\p{L}\p{N}][\p{L}\p{N}_.:/-]{0,15}$/u

/** Whether the cells of a column look like codes: short, without blanks, no two alike, and not what one reads. */
function looksLikeCodes(cells: readonly string[]): boolean {
  const said = cells.map(c => c.trim()).filter(c => c !== '')
  const isShort = said.length > 0 && said.every(c => CODE_LIKE.test(c))
  const isNamed = said.some(c => /\d/.test(c) || c === c.toLowerCase() || c === c.toUpperCase())
  return isShort && isNamed && new Set(said).size === said.length
}

/** What each head most likely stands for; where no head says it, a first column of codes before one that is read is the code. */
export function guessTableRoles(heads: readonly string[], lines: Table, known: readonly string[]): Role[] {
  const roles = guessRoles(heads, known)
  const cellsOf = (i: number) => lines.map(line => line[i] ?? '')
  const next = heads[1] ?? ''
  const isPlain = !roles.includes('code') && KNOWN[plain(heads[0] ?? '')] === undefined && heads.length > 1
  if (!isPlain || !looksLikeCodes(cellsOf(0)) || looksLikeCodes(cellsOf(1))) return roles
  const [, second, ...others] = guessRoles(['code', next, ...heads.slice(2)], known)
  return ['code', second ?? 'label', ...others]
}

/** What each head most likely stands for. Without a head that says label, the first column that is no code is it. */
export function guessRoles(heads: readonly string[], known: readonly string[]): Role[] {
  const taken = new Set<string>(ROW_KEYS)
  const roles = heads.map((head, i): Role => {
    const role = KNOWN[plain(head)]
    if (role !== undefined) return role
    if (head.trim() === '') return 'skip'
    const own = known.find(c => plain(c) === plain(head))
    const code = own ?? freeCode(codeFromLabel(head, `column_${i + 1}`), taken)
    taken.add(code)
    return { column: code }
  })
  if (!roles.includes('label')) {
    const at = roles.findIndex(r => typeof r === 'object')
    if (at >= 0) roles[at] = 'label'
    else if (roles.includes('code')) roles[roles.indexOf('code')] = 'label'
  }
  return roles.map((role, i) =>
    typeof role === 'string' && role !== 'skip' && roles.indexOf(role) < i ? 'skip' : role,
  )
}

const YES: ReadonlySet<string> = new Set(['true', 'yes', 'y', '1', 'x', 'retired'])
const NO: ReadonlySet<string> = new Set(['false', 'no', 'n', '0', ''])

/** Digits in groups of three, told apart by blanks or apostrophes. */
const GROUPED = /^-?\d{1,3}(?:[ ’'\u00a0]\d{3})+(?:[.,]\d+)?$/

/** Reads one cell as a column holds it; null where it does not fit. */
export function readCell(text: string, kind: ColumnKind): string | number | boolean | null {
  const cell = text.trim()
  if (kind === 'text') return cell
  if (kind === 'yesNo') return readYesNo(cell)
  if (kind === 'date') return dayNumber(cell) === null ? null : cell
  const digits = GROUPED.test(cell) ? cell.replaceAll(/[ ’'\u00a0]/g, '') : cell
  const number = Number(digits.replace(',', '.'))
  return cell !== '' && Number.isFinite(number) ? number : null
}

function readYesNo(cell: string): boolean | null {
  const word = cell.toLowerCase()
  if (YES.has(word)) return true
  return NO.has(word) ? false : null
}

const NUMBER = /^-?(?:0|[1-9]\d{0,14})(?:[.,]\d{1,10})?$/

/** What all cells of a column look like. A number with a leading zero is a code, and stays text. */
export function guessColumnKind(cells: Iterable<string>): ColumnKind {
  let [number, date, yesNo, any] = [true, true, true, false]
  for (const raw of cells) {
    const cell = raw.trim()
    if (cell === '') continue
    any = true
    number &&= NUMBER.test(cell)
    date &&= dayNumber(cell) !== null
    yesNo &&= /^(?:true|false|yes|no)$/i.test(cell)
    if (!number && !date && !yesNo) return 'text'
  }
  if (!any) return 'text'
  if (date) return 'date'
  if (yesNo) return 'yesNo'
  return number ? 'number' : 'text'
}

/**
 * Makes rows of a table's lines. Codes are proposed from labels where the table brings none; what does not fit is said with its row
 * (counted as the file counts, the heads being 1) and left out.
 */
export function readRows(
  lines: Table,
  roles: readonly Role[],
  kinds: Readonly<Record<string, ColumnKind>>,
  taken: ReadonlySet<string> = new Set(),
): ReadRows {
  const problems: TableProblem[] = []
  const used = new Set<string>()
  const proposed = new Set(taken)
  const columns = roles.flatMap(r => (typeof r === 'object' ? [r.column] : []))
  const rows: Row[] = []
  for (const [i, line] of lines.entries()) {
    if (line.every(cell => cell.trim() === '')) continue
    const say = (sentence: string) => {
      if (problems.length < MOST_PROBLEMS) problems.push({ row: i + 2, sentence })
    }
    const names = namesIn(line, roles, proposed)
    const problem = problemOf(names, used)
    if (problem !== null) {
      say(problem)
      continue
    }
    if (rows.length === LIMITS.rows) {
      problems.push({ row: i + 2, sentence: `A list has at most ${LIMITS.rows} rows; the rest is left out.` })
      break
    }
    used.add(names.code)
    proposed.add(names.code)
    rows.push(rowFrom(line, names, roles, kinds, say))
  }
  return { rows, columns, problems }
}

/** How a row is called, as its line says; the code is proposed where there is none. */
interface RowNames {
  code: string
  label: string
}

function namesIn(line: readonly string[], roles: readonly Role[], proposed: ReadonlySet<string>): RowNames {
  const label = cellOf(line, roles, 'label')
  const code = cellOf(line, roles, 'code')
  if (code !== '' || label === '') return { code, label }
  return { code: freeCode(codeFromLabel(label, 'row'), proposed), label }
}

/** The cell of a line that has a role, blanks around it cut off. */
const cellOf = (line: readonly string[], roles: readonly Role[], role: Role): string =>
  (line[roles.indexOf(role)] ?? '').trim()

/** Why a row can't be taken in; null when it can. */
function problemOf({ code, label }: RowNames, used: ReadonlySet<string>): string | null {
  if (code === '') return 'The row has neither a code nor a label.'
  if (code.length > LIMITS.code) return `The code is longer than ${LIMITS.code} characters.`
  if (label.length > LIMITS.label) return `The label is longer than ${LIMITS.label} characters.`
  return used.has(code) ? `The code “${code}” stands in the table twice; the first is taken.` : null
}

function rowFrom(
  line: readonly string[],
  { code, label }: RowNames,
  roles: readonly Role[],
  kinds: Readonly<Record<string, ColumnKind>>,
  say: (sentence: string) => void,
): Row {
  const row: Row = { code, label: label || code }
  for (const [i, role] of roles.entries()) {
    const text = (line[i] ?? '').trim()
    if (typeof role !== 'object' || text === '') continue
    const kind = kinds[role.column] ?? 'text'
    const cell = readCell(text, kind)
    if (cell === null)
      say(`“${text.slice(0, 40)}” is no ${KIND_WORDS[kind]} (column ${role.column}); the cell is left blank.`)
    else row[role.column] = cell
  }
  if (readCell(cellOf(line, roles, 'retired'), 'yesNo') === true) row.retired = true
  const remark = cellOf(line, roles, 'remark')
  if (remark) row.remark = remark
  return row
}

const MOST_PROBLEMS = 200
const KIND_WORDS: Record<ColumnKind, string> = {
  text: 'text',
  number: 'number',
  yesNo: 'yes or no',
  date: 'date (2026-05-01)',
}

/** What speaks against reading a table as it is: no heads, heads twice, heads over merged cells. */
export function headProblems(heads: readonly string[], lines: Table): string[] {
  const said: string[] = []
  const names = heads.map(plain)
  const twice = names.find((n, i) => n !== '' && names.indexOf(n) < i)
  if (twice !== undefined) said.push(`Two columns are headed “${twice}”.`)
  const blank = heads.flatMap((h, i) =>
    h.trim() === '' && lines.some(l => (l[i] ?? '').trim() !== '') ? [i + 1] : [],
  )
  if (blank.length > 0)
    said.push(
      `Column ${blank.slice(0, 5).join(', ')} holds cells but has no head: perhaps the head above was merged over several columns. Such columns are left out unless you name them.`,
    )
  if (heads.every(h => h.trim() === '')) said.push('The first line has no heads.')
  return said
}
