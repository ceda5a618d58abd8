import { isRecord, sameAnswer, type Answer, type Answers } from '../form/answers'
import type { Filled, Frame } from '../fill/frame'
import type { Plan, PlannedGroup, PlannedQuestion } from '../fill/planned'
import { isQuestion } from '../fill/steps'
import type { Cell } from './answerTable'
import { entryCell, entryHead, listEntryGroups, sheetTitle } from './entryTable'
import { isSameCell, LOST, NOT_READ, readCell, tidied } from './readCell'
import type { RowReading } from './readTable'
import { workbookNames } from './sheetNames'

/** A sheet of entries in a workbook of responses: its name, and the heads of its answers. */
export interface EntrySheet {
  name: string
  heads: readonly string[]
}

/** A row of such a sheet: which entry of the response it is, null for a new one, and its cells. */
export interface EntryRow {
  entry: number | null
  cells: readonly Cell[]
}

/** What a sheet holds: the entries of a group, and in its columns the answers to some questions, by their codes; null for none. */
export interface MatchedSheet {
  name: string
  group: string | null
  columns: readonly { head: string; code: string | null }[]
}

/** Which entries stand in the sheets of a workbook, by the names and heads with which it is taken out; a sheet that is called otherwise is known by its heads. */
export function matchSheets(plan: Plan, sheets: readonly EntrySheet[]): MatchedSheet[] {
  const groups = listEntryGroups(plan)
  const names = workbookNames(groups.map(group => ({ title: sheetTitle(group) }))).slice(1)
  return sheets.map(({ name, heads }) => {
    const named = groups[names.indexOf(name)]
    const group =
      named ?? groups.find(g => heads.length > 0 && columnsOf(g, heads).every(c => c.code !== null))
    return {
      name,
      group: group?.place.code ?? null,
      columns: group ? columnsOf(group, heads) : heads.map(head => ({ head, code: null })),
    }
  })
}

/** Heads that stand several times are those of the questions with that label, in order. */
function columnsOf(group: PlannedGroup, heads: readonly string[]): MatchedSheet['columns'] {
  const left = group.steps.filter(isQuestion)
  return heads.map(head => {
    const at = left.findIndex(question => question.place.code === head || entryHead(question) === head)
    const [question] = at < 0 ? [] : left.splice(at, 1)
    return { head, code: question?.place.code ?? null }
  })
}

/** The same as another version of the form has them. @param codeOf what a code is called there */
export const sheetsCalledIn = (
  sheets: readonly MatchedSheet[],
  codeOf: (code: string) => string,
): MatchedSheet[] =>
  sheets.map(({ name, group, columns }) => ({
    name,
    group: group === null ? null : codeOf(group),
    columns: columns.map(({ head, code }) => ({ head, code: code === null ? null : codeOf(code) })),
  }))

/**
 * Reads the entries of a response from the sheets of a workbook, each group whose entries become others as a whole. An entry keeps what no cell
 * tells: what is given as a file, drawn, or repeats inside of it.
 * @param rows of each sheet those of the response
 * @param stored the response with its answers as they are kept; null for a new one
 */
export function readEntries(
  plan: Plan,
  sheets: readonly MatchedSheet[],
  rows: readonly (readonly EntryRow[])[],
  stored: { filled: Filled; answers: Answers } | null,
): RowReading {
  const answers: Record<string, Answer> = {}
  const problems: RowReading['problems'] = []
  for (const [i, sheet] of sheets.entries()) {
    const group = plan.groups.get(sheet.group ?? '')
    if (!group) continue
    const reader = new EntryReader(plan, group, sheet, stored)
    const before = stored?.answers[group.place.code] ?? null
    const entries = (rows[i] ?? []).map(row => reader.read(row))
    problems.push(...reader.problems)
    const after = entries.length > 0 ? entries : null
    if (!sameAnswer(after, before)) answers[group.place.code] = after
  }
  return { answers, problems }
}

class EntryReader {
  readonly problems: RowReading['problems'] = []
  private readonly taken = new Set<number>()
  private readonly questions: ReadonlyMap<string, PlannedQuestion>
  private readonly frames: readonly Frame[]
  private readonly kept: readonly Answer[]

  constructor(
    private readonly plan: Plan,
    group: PlannedGroup,
    private readonly sheet: MatchedSheet,
    stored: { filled: Filled; answers: Answers } | null,
  ) {
    this.questions = new Map(group.steps.filter(isQuestion).map(q => [q.place.code, q]))
    this.frames = stored?.filled.entries.get(group.place.order) ?? []
    const kept = stored?.answers[group.place.code]
    this.kept = Array.isArray(kept) ? kept : []
  }

  read({ entry, cells }: EntryRow): Answer {
    const at = entry === null ? -1 : entry - 1
    if (this.taken.has(at)) this.say('Entry', `Entry ${entry} stands there twice.`)
    if (at >= 0) this.taken.add(at)
    const [frame, kept] = [this.frames[at], this.kept[at]]
    const answers: Record<string, Answer> = kept !== undefined && isRecord(kept) ? { ...kept } : {}
    for (const [i, { head, code }] of this.sheet.columns.entries()) {
      const question = this.questions.get(code ?? '')
      const cell = tidied(cells[i] ?? null)
      const before = frame && question ? entryCell(question, frame) : null
      if (!question || question.value !== null || isSameCell(cell, tidied(before))) continue
      const answer = this.readAnswer(head, question, cell)
      if (answer === null) Reflect.deleteProperty(answers, question.place.code)
      else answers[question.place.code] = answer
    }
    return answers
  }

  private readAnswer(head: string, { place: { node } }: PlannedQuestion, cell: Cell): Answer {
    if (NOT_READ.has(node.type)) {
      this.say(head, LOST)
      return null
    }
    const read = readCell(this.plan, node, cell)
    if (read.sentence !== null) this.say(head, read.sentence)
    return read.answer
  }

  private say(head: string, sentence: string) {
    this.problems.push({ path: `${this.sheet.name}: ${head}`, sentence })
  }
}
