import { newProblems, listUncorrectable, withChanges } from '../fill/correcting'
import { describeFilled, type ResponseLine } from '../fill/describeResponse'
import { fill } from '../fill/fill'
import type { Filled } from '../fill/frame'
import type { Plan } from '../fill/planned'
import { sameAnswer, type Answers } from '../form/answers'
import { firstTurn, withTurn } from '../parties/turns'
import { tellProblems } from '../parties/tellProblems'
import type { Cell } from './answerTable'
import { readEntries, type EntryRow, type MatchedSheet } from './readEntries'
import { readTableRow, type RowReading, type TableColumn } from './readTable'

/** A row that is brought in: cells of a table, with the rows of its entries for each sheet of them; or answers as they are stored. */
export type RowGiven =
  { cells: readonly Cell[]; entries?: readonly (readonly EntryRow[])[] | undefined } | { answers: Answers }

/** What the columns of a table hold, and the sheets of its entries. */
export interface GivenTable {
  columns: readonly TableColumn[]
  sheets: readonly MatchedSheet[]
}

/**
 * What a row would do: begin a response, change one, or nothing; or why it does neither. `answers`: of a new response all of them, else those
 * that become others, null for none; `changes`: the same in words.
 */
export interface WeighedRow {
  is: 'new' | 'changed' | 'same' | 'refused'
  answers: Answers
  changes: { label: string; before: string; after: string }[]
  problems: { path: string; sentence: string }[]
}

/** Says what a row would make of a response: the rules are decided over it. @param stored the response that it is about; null for a new one */
export function weighRow(
  plan: Plan,
  table: GivenTable,
  given: RowGiven,
  stored: { answers: Answers; begunOn: string } | null,
  today: string,
): WeighedRow {
  const before = stored && fill(plan, stored.answers, stored.begunOn)
  const { answers, problems } =
    'cells' in given
      ? readCells(plan, table, given, stored && before && { filled: before, answers: stored.answers })
      : { answers: stored ? differing(given.answers, stored.answers) : given.answers, problems: [] }
  if (problems.length > 0) return refused(problems)
  return before && stored
    ? weighChange(plan, before, stored.answers, answers)
    : weighNew(plan, answers, today)
}

function readCells(
  plan: Plan,
  { columns, sheets }: GivenTable,
  { cells, entries }: Extract<RowGiven, { cells: unknown }>,
  stored: { filled: Filled; answers: Answers } | null,
): RowReading {
  // A row that says nothing of its entries leaves them as they are.
  if (!entries) return readTableRow(plan, columns, cells, stored?.filled ?? null)
  const groups = new Set(sheets.flatMap(sheet => sheet.group ?? []))
  const row = readTableRow(plan, columns, cells, stored?.filled ?? null, groups)
  const inside = readEntries(plan, sheets, entries, stored)
  return {
    answers: { ...row.answers, ...inside.answers },
    problems: [...row.problems, ...inside.problems],
  }
}

const refused = (problems: RowReading['problems']): WeighedRow => ({
  ...{ is: 'refused', answers: {}, changes: [] },
  problems: problems.map(({ path, sentence }) => ({ path, sentence })),
})

/** The answers that are others than those that are stored; null for those that are gone. */
function differing(given: Answers, stored: Answers): Answers {
  const codes = [...new Set([...Object.keys(given), ...Object.keys(stored)])]
  const others = codes.filter(code => !sameAnswer(given[code] ?? null, stored[code] ?? null))
  return Object.fromEntries(others.map(code => [code, given[code] ?? null]))
}

function weighNew(plan: Plan, given: Answers, today: string): WeighedRow {
  const turn = firstTurn(plan.form)
  const own = Object.fromEntries(Object.entries(given).filter(([, answer]) => answer !== null))
  const { answers, foreign } = withTurn(plan, turn, {}, own)
  if (foreign.length > 0)
    return refused(
      foreign.map(code => ({
        path: code,
        sentence: `A new response is not asked for “${code}” at its beginning.`,
      })),
    )
  const filled = fill(plan, answers, today)
  const problems = tellProblems(filled, turn, answers)
  if (problems.length > 0) return refused(problems)
  return { is: 'new', answers, changes: comparedLines([], describeFilled(filled)), problems: [] }
}

function weighChange(plan: Plan, before: Filled, stored: Answers, changes: Answers): WeighedRow {
  if (Object.keys(changes).length === 0) return { is: 'same', answers: {}, changes: [], problems: [] }
  const fixed = listUncorrectable(plan, changes)
  if (fixed.length > 0)
    return refused(fixed.map(code => ({ path: code, sentence: `“${code}” can’t be changed by a table.` })))
  const after = fill(plan, withChanges(stored, changes), before.today)
  const problems = newProblems(before, after)
  if (problems.length > 0) return refused(problems)
  const compared = comparedLines(describeFilled(before), describeFilled(after))
  return { is: compared.length > 0 ? 'changed' : 'same', answers: changes, changes: compared, problems: [] }
}

function comparedLines(
  before: readonly ResponseLine[],
  after: readonly ResponseLine[],
): WeighedRow['changes'] {
  const textOf = (lines: readonly ResponseLine[]) =>
    new Map(lines.map(line => [line.path, line.state === 'answered' ? line.text : '']))
  const [old, now] = [textOf(before), textOf(after)]
  const labels = new Map([...before, ...after].map(line => [line.path, line.label]))
  return [...labels].flatMap(([path, label]) => {
    const texts = { before: old.get(path) ?? '', after: now.get(path) ?? '' }
    return texts.before === texts.after ? [] : [{ label, ...texts }]
  })
}
