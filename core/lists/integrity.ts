import type { ChoiceList, Row } from '../form/choiceLists'
import { columnsOf } from '../form/types'

/** Something wrong with rows of a list: which, in which column, and a mend where it is mechanical. */
export interface RowProblem {
  kind: 'duplicate-row' | 'similar-codes' | 'double-label' | 'orphan-row' | 'childless-parent'
  list: string
  /** The column that holds what is wrong: `code`, `label` or one of the list’s own. */
  column: string
  /** Positions of the rows concerned, at most `MOST_SHOWN`; `count` says how many there are. */
  rows: number[]
  count: number
  sentence: string
  mend: { words: string; rows: { at: number; row: Row | null }[] } | null
}

/** A column of one list that holds codes of another. */
export interface Link {
  list: string
  column: string
  parent: string
}

const MOST_SHOWN = 200
/** Plain letters with single blanks need no more than small letters. */
const PLAIN = /^[!-~]+(?: [!-~]+)*$/
const fold = (text: string) =>
  PLAIN.test(text) ? text.toLowerCase() : text.normalize('NFKC').replaceAll(/\s+/g, ' ').trim().toLowerCase()
/** Rows that are still offered. */
const isLive = (row: Row) => row.retired !== true
const few = (words: readonly string[]) =>
  words.length <= 3
    ? words.map(w => `“${w}”`).join(', ')
    : `${words
        .slice(0, 3)
        .map(w => `“${w}”`)
        .join(', ')} and ${words.length - 3} more`

/**
 * The columns that hold codes of another list: most of what they hold is one of its codes, or the column is called as that list is.
 * Each column is linked with at most one list, the one that fits best.
 */
export function linksOf(lists: readonly ChoiceList[]): Link[] {
  const codes = lists.map(l => new Set(l.rows.map(r => r.code)))
  return lists.flatMap((list, own) =>
    columnsOf(list).flatMap((column): Link[] => {
      if (column.type !== 'text') return []
      const values = new Set(
        list.rows.flatMap(r =>
          typeof r[column.code] === 'string' && r[column.code] !== '' ? [String(r[column.code])] : [],
        ),
      )
      if (values.size === 0) return []
      const fits = lists
        .flatMap((other, i) => {
          const held = codes[i]
          if (i === own || !held || held.size === 0) return []
          const share = [...values].filter(v => held.has(v)).length / values.size
          const named = sameName(column.code, other.code)
          return share >= (named ? 0.3 : 0.6) ? [{ parent: other.code, score: share + (named ? 1 : 0) }] : []
        })
        .sort((a, b) => b.score - a.score)
      return fits[0] ? [{ list: list.code, column: column.code, parent: fits[0].parent }] : []
    }),
  )
}

/** `harbour` and `harbours`, `harbour_code` and `harbours`. */
const sameName = (column: string, list: string): boolean => {
  const stem = (code: string) =>
    code
      .replace(/_(?:code|id|key)$/, '')
      .replace(/(?:ies|es|s)$/, '')
      .replace(/y$/, '')
  return stem(column) === stem(list)
}

/** The rows of a problem together with those that they are mistaken for: all that have the same in the column concerned, by position. */
export function rowsAlike(rows: readonly Row[], { rows: meant, column }: RowProblem): number[] {
  const valueOf = (at: number) => fold(String(rows[at]?.[column] ?? ''))
  const values = new Set(meant.map(valueOf))
  return rows.flatMap((_, at) => (values.has(valueOf(at)) ? [at] : []))
}

/** What is wrong with a list by itself. */
export function rowProblems(list: ChoiceList, links: readonly Link[] = []): RowProblem[] {
  return [
    ...duplicates(list),
    ...similar(list),
    ...doubleLabels(
      list,
      links.filter(l => l.list === list.code),
    ),
  ]
}

const problem = (
  kind: RowProblem['kind'],
  list: ChoiceList,
  column: string,
  rows: readonly number[],
  sentence: string,
  mend: RowProblem['mend'] = null,
): RowProblem => ({
  kind,
  list: list.code,
  column,
  rows: rows.slice(0, MOST_SHOWN),
  count: rows.length,
  sentence,
  mend,
})

function duplicates(list: ChoiceList): RowProblem[] {
  const first = new Set<string>()
  const again = list.rows.flatMap((r, i) => (first.has(r.code) ? [i] : (first.add(r.code), [])))
  if (again.length === 0) return []
  return [
    problem(
      'duplicate-row',
      list,
      'code',
      again,
      `${few([...new Set(again.map(i => list.rows[i]?.code ?? ''))])} ${again.length === 1 ? 'is a code' : 'are codes'} that more than one row has.`,
      { words: 'Take the later rows out', rows: again.map(at => ({ at, row: null })) },
    ),
  ]
}

function similar(list: ChoiceList): RowProblem[] {
  const seen = new Map<string, string>()
  const alike: number[] = []
  list.rows.forEach((row, i) => {
    const key = fold(row.code)
    const other = seen.get(key)
    if (other === undefined) seen.set(key, row.code)
    else if (other !== row.code) alike.push(i)
  })
  const blanks = list.rows.flatMap((r, i) => (r.code !== r.code.trim() ? [i] : []))
  const rows = [...new Set([...alike, ...blanks])]
  if (rows.length === 0) return []
  const codes = new Set(list.rows.map(r => r.code))
  const trimmed = blanks.flatMap((at): { at: number; row: Row | null }[] => {
    const row = list.rows[at]
    return row && !codes.has(row.code.trim()) ? [{ at, row: { ...row, code: row.code.trim() } }] : []
  })
  return [
    problem(
      'similar-codes',
      list,
      'code',
      rows,
      `${few(rows.map(i => list.rows[i]?.code ?? ''))} ${rows.length === 1 ? 'differs' : 'differ'} from another code, or from its own words, only by case or blanks.`,
      trimmed.length > 0 ? { words: 'Take the blanks off', rows: trimmed } : null,
    ),
  ]
}

function doubleLabels(list: ChoiceList, parents: readonly Link[]): RowProblem[] {
  const seen = new Map<string, number>()
  const again: number[] = []
  list.rows.forEach((row, i) => {
    if (!isLive(row)) return
    const key = [fold(row.label), ...parents.map(p => String(row[p.column] ?? ''))].join('\u0001')
    if (seen.has(key)) again.push(i)
    else seen.set(key, i)
  })
  return again.length === 0
    ? []
    : [
        problem(
          'double-label',
          list,
          'label',
          again,
          `${few([...new Set(again.map(i => list.rows[i]?.label ?? ''))])} ${again.length === 1 ? 'is a label' : 'are labels'} that two rows${parents.length > 0 ? ' under one parent' : ''} have; respondents can’t tell them apart.`,
        ),
      ]
}

/** Rows whose parent does not exist, and parents without any row below. */
export function linkProblems(child: ChoiceList, column: string, parent: ChoiceList): RowProblem[] {
  const parents = new Map(parent.rows.map(r => [r.code, r]))
  const folded = new Map(parent.rows.map(r => [fold(r.code), r.code]))
  const below = new Set<string>()
  const orphans: number[] = []
  const mends: { at: number; row: Row | null }[] = []
  child.rows.forEach((row, at) => {
    const held = row[column]
    if (!isLive(row) || held === null || held === undefined || held === '') return
    const code = String(held)
    if (parents.has(code)) return void below.add(code)
    orphans.push(at)
    const near = folded.get(fold(code)) ?? parent.rows.find(r => fold(r.label) === fold(code))?.code
    if (near !== undefined) mends.push({ at, row: { ...row, [column]: near } })
  })
  const childless = parent.rows.flatMap((r, i) => (isLive(r) && !below.has(r.code) ? [i] : []))
  const said: RowProblem[] = []
  if (orphans.length > 0)
    said.push(
      problem(
        'orphan-row',
        child,
        column,
        orphans,
        `The ${column} of ${orphans.length === 1 ? 'a row' : `${orphans.length} rows`} is not among ${parent.title ?? parent.code}: ${few([...new Set(orphans.map(i => String(child.rows[i]?.[column])))])}.`,
        mends.length > 0
          ? {
              words: `Write ${mends.length === 1 ? 'it' : `${mends.length} of them`} as the list has it`,
              rows: mends,
            }
          : null,
      ),
    )
  if (childless.length > 0)
    said.push(
      problem(
        'childless-parent',
        parent,
        'label',
        childless,
        `${few(childless.map(i => parent.rows[i]?.label ?? ''))} ${childless.length === 1 ? 'has' : 'have'} no row in ${child.title ?? child.code}.`,
      ),
    )
  return said
}

/** Everything wrong with some lists, by themselves and between them. */
export function checkIntegrity(lists: readonly ChoiceList[]): RowProblem[] {
  const links = linksOf(lists)
  return [
    ...lists.flatMap(l => rowProblems(l, links)),
    ...links.flatMap(link => {
      const [child, parent] = [lists.find(l => l.code === link.list), lists.find(l => l.code === link.parent)]
      return child && parent ? linkProblems(child, link.column, parent) : []
    }),
  ]
}
