import type { Filled, Frame } from '../fill/frame'
import type { Plan, PlannedGroup, PlannedQuestion } from '../fill/planned'
import { isQuestion, isRepeating } from '../fill/steps'
import { isChoice } from '../form/questions'
import { withoutQuotes } from '../form/quotes'
import { optionsOf } from '../form/rows'
import { plainCell, labelCell, type Cell } from './answerTable'

/** The entries of a repeating group as a table of their own: its code, title, heads, and the rows of a response. */
export interface EntryTable {
  code: string
  title: string
  heads: string[]
  rowsOf: (filled: Filled) => Cell[][]
}

/** The repeating groups that stand outside of others, each with the questions of one entry. @param own the group of a response’s own version */
export function listEntryTables(
  plan: Plan,
  own: (filled: Filled, code: string) => PlannedGroup | undefined,
): EntryTable[] {
  return listEntryGroups(plan).map(group => {
    const asked = group.steps.filter(isQuestion)
    return {
      code: group.place.code,
      title: sheetTitle(group),
      heads: asked.map(entryHead),
      rowsOf: filled => rowsOf(filled, own(filled, group.place.code), asked),
    }
  })
}

/** The repeating groups that stand outside of others. */
export const listEntryGroups = (plan: Plan): PlannedGroup[] =>
  [...plan.groups.values()].filter(group => isRepeating(group) && group.place.entryOf === null)

/** What the table of a group is called, and the head of the column of a question in it. */
export const sheetTitle = ({ place }: PlannedGroup): string => withoutQuotes(place.node.title) || place.code
export const entryHead = ({ place }: PlannedQuestion): string => withoutQuotes(place.node.label) || place.code

/** What stands of an answer in the table of its group. */
export function entryCell(question: PlannedQuestion, frame: Frame): Cell {
  const value = frame.values[question.slot] ?? null
  if (value === null) return null
  return isChoice(question.place.node) ? labelCell(value, question, frame) : plainCell(value, question, frame)
}

function rowsOf(
  filled: Filled,
  group: PlannedGroup | undefined,
  asked: readonly PlannedQuestion[],
): Cell[][] {
  if (!group) return []
  const ownByCode = new Map(group.steps.filter(isQuestion).map(q => [q.place.code, q]))
  return (filled.entries.get(group.place.order) ?? []).map(frame =>
    asked.map(({ place }) => {
      const question = ownByCode.get(place.code)
      return question ? entryCell(question, frame) : null
    }),
  )
}

/** The codes of choices with their labels: question code, its label, code, label. */
export const listCodes = ({ form, questions }: Plan): string[][] =>
  questions.flatMap(({ place: { node, code } }) => {
    if (!isChoice(node)) return []
    return (optionsOf(form, node) ?? []).map(row => [code, withoutQuotes(node.label), row.code, row.label])
  })
