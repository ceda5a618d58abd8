import { isNumber, numberText } from '../expressions/decimal'
import type { Value } from '../expressions/types'
import { describeFilled } from '../fill/describeResponse'
import { describeValue } from '../fill/describeValue'
import type { Filled, Frame } from '../fill/frame'
import type { Plan, PlannedQuestion } from '../fill/planned'
import { isRecord } from '../form/answers'
import { isChoice, type Question } from '../form/questions'
import { withoutQuotes } from '../form/quotes'
import { optionsOf, WRITE_IN } from '../form/rows'
import { unitOf } from '../form/unitOf'

/** What stands in a cell: null where nothing was answered, or asked. */
export type Cell = string | number | boolean | null

/** A column of answers: its key (the code of its question, with what it holds of it), its head, and its cell of a response. */
export interface AnswerColumn {
  key: string
  head: string
  /** Whether people typed what stands in it, so that it may begin like a formula. */
  isText: boolean
  /** Whether it holds days (ISO 8601). */
  isDay: boolean
  read: (filled: Filled) => Cell
}

/** How choices are told: by label, by code, or both in columns of their own; several chosen ones in one column, or in one for each choice. */
export interface TableStyle {
  values: 'labels' | 'codes' | 'both'
  isSpread: boolean
}

/** A number that a spreadsheet holds exactly. */
const SAFE_DIGITS = 15
/** More choices don’t get a column each. */
const MOST_SPREAD = 60

/**
 * The columns of a version’s answers, in the order of the form; entries of what repeats stand in one cell, entry by entry.
 * @param own the question of a response’s own version that stands under a code here; undefined where that has none
 */
export function listAnswerColumns(
  plan: Plan,
  style: TableStyle,
  own: (filled: Filled, code: string) => PlannedQuestion | undefined,
): AnswerColumn[] {
  return plan.questions.flatMap(({ place }) => {
    const about = { code: place.code, head: headOf(place.node, place.code), node: place.node }
    if (place.entryOf) return [entryColumn(about, own)]
    const read = (cell: (value: Value, q: PlannedQuestion, filled: Filled) => Cell) => (filled: Filled) => {
      const question = own(filled, place.code)
      const value = question ? (filled.values[question.slot] ?? null) : null
      return question && value !== null ? cell(value, question, filled) : null
    }
    return columnsOf(plan, about, style, read)
  })
}

type Reading = (
  cell: (value: Value, question: PlannedQuestion, filled: Filled) => Cell,
) => AnswerColumn['read']
interface About {
  code: string
  head: string
  node: Question
}

const headOf = (node: Question, code: string): string => {
  const label = withoutQuotes(node.label) || code
  const unit = unitOf(node)
  return unit ? `${label} (${unit})` : label
}

function columnsOf(
  plan: Plan,
  { code, head, node }: About,
  style: TableStyle,
  read: Reading,
): AnswerColumn[] {
  if (!isChoice(node))
    return [
      { key: code, head, isText: TYPED.has(node.type), isDay: node.type === 'date', read: read(plainCell) },
    ]
  const byLabel = { key: code, head, isText: true, isDay: false, read: read(labelCell) }
  const byCode = {
    key: `${code}.code`,
    head: `${head}: code`,
    isText: true,
    isDay: false,
    read: read(codeCell),
  }
  const rows = optionsOf(plan.form, node) ?? []
  if (node.type === 'choices' && style.isSpread && rows.length <= MOST_SPREAD)
    return [
      ...rows.map(row => ({
        key: `${code}.${row.code}`,
        head: `${head}: ${style.values === 'codes' ? row.code : row.label}`,
        isText: false,
        isDay: false,
        read: read(value => Array.isArray(value) && value.includes(row.code)),
      })),
      ...(node.writeIn ? [ownWordsColumn({ code, head, node }, read)] : []),
    ]
  if (style.values === 'both') return [byLabel, byCode]
  return style.values === 'codes' ? [{ ...byCode, key: code, head }] : [byLabel]
}

/** What was written in, beside a column for each choice. */
const ownWordsColumn = ({ code, head }: About, read: Reading): AnswerColumn => ({
  key: `${code}.${WRITE_IN}`,
  head: `${head}: in own words`,
  isText: true,
  isDay: false,
  read: read((_value, { slot }, filled) => {
    const given = [filled.given.get(slot) ?? []].flat()
    const words = given.flatMap(g => (isRecord(g) ? [String(g[WRITE_IN])] : []))
    return words.length > 0 ? words.join(', ') : null
  }),
})

/** The types whose answers are what somebody typed. */
const TYPED: ReadonlySet<Question['type']> = new Set([
  ...(['text', 'longText', 'email', 'phone', 'url', 'hidden', 'value'] as const),
  ...(['grid', 'ranking', 'file', 'signature', 'money'] as const),
])

/** An answer as a spreadsheet has it: numbers, yes or no, days and times as such, else as people read it. */
export function plainCell(value: Value, { place, slot }: PlannedQuestion, filled: Frame): Cell {
  if (typeof value === 'boolean') return value
  const { node } = place
  const isAmountOfMany = node.type === 'money' && node.currencies !== undefined
  if (isNumber(value) && !isAmountOfMany) return numberCell(numberText(value))
  // Days and times stand as ISO 8601 has them.
  const isPlain = typeof value === 'string' && node.type !== 'file' && node.type !== 'signature'
  return isPlain ? value : describeValue(value, node, filled.plan.form, filled.given.get(slot))
}

/** A number as such, where no digit is lost. */
function numberCell(text: string): Cell {
  const digits = text.replaceAll(/[^\d]/g, '').replace(/^0+/, '')
  return digits.length <= SAFE_DIGITS ? Number(text) : text
}

/** An answer as people read it. */
export const labelCell = (value: Value, { place, slot }: PlannedQuestion, filled: Frame): Cell =>
  describeValue(value, place.node, filled.plan.form, filled.given.get(slot))

const codeCell = (value: Value): Cell => (Array.isArray(value) ? value.map(String).join(' ') : String(value))

const LINES = new WeakMap<Filled, Map<string, string>>()
function entryColumn({ code, head }: About, own: Parameters<typeof listAnswerColumns>[2]): AnswerColumn {
  const read = (filled: Filled): Cell => {
    const question = own(filled, code)
    return question ? (entryTexts(filled).get(question.place.code) ?? null) : null
  }
  return { key: code, head, isText: true, isDay: false, read }
}

/** The answers in entries by code, entry by entry. */
function entryTexts(filled: Filled): Map<string, string> {
  const known = LINES.get(filled)
  if (known) return known
  const texts = new Map<string, string>()
  for (const { code, path, state, text } of describeFilled(filled)) {
    if (!path.includes('[') || state !== 'answered') continue
    const before = texts.get(code)
    texts.set(code, before === undefined ? text : `${before} | ${text}`)
  }
  LINES.set(filled, texts)
  return texts
}
