import type { Form } from '../form/definition'
import { isChoice, type Question } from '../form/questions'
import { optionsOf } from '../form/rows'
import { writeInLabel } from '../form/types'
import { unitOf } from '../form/unitOf'
import type { BoxAnswer } from './goesOn'

/** A box to be crossed, with its words, and where whoever crosses it goes on (“go to 12”; empty for the next). */
export interface Box {
  label: string
  goOn: string
}

/** Where an answer is written: a line, so many lines, boxes of which one or several are crossed or numbered, a table of boxes, a frame to sign in. */
export type Blank =
  | { kind: 'line'; unit: string; hint: string }
  | { kind: 'lines'; count: number }
  | { kind: 'boxes'; boxes: Box[]; hint: string }
  | { kind: 'table'; rows: string[]; steps: string[] }
  | { kind: 'frame'; hint: string }

/** More choices are not printed: the answer is written down. */
const MOST_BOXES = 40
const LINES = 4

/** The hints of types that are written on a line. */
const HINTS: Partial<Record<Question['type'], string>> = {
  date: 'day, month, year',
  time: 'hours and minutes',
  dateTime: 'day, month, year, hours and minutes',
  value: 'worked out when this is entered',
}

/** How a question is answered on paper. @param goOn where an answer leads that a box stands for, in words */
export function blankOf(question: Question, form: Form, goOn: (answer: BoxAnswer) => string): Blank {
  switch (question.type) {
    case 'longText':
      return { kind: 'lines', count: LINES }
    case 'yesNo':
      return { kind: 'boxes', hint: '', boxes: [yesNo('Yes', true, goOn), yesNo('No', false, goOn)] }
    case 'choice':
    case 'choices':
      return choiceBlank(question, form, goOn)
    case 'ranking':
      return { kind: 'boxes', hint: rankingHint(question.most), boxes: question.options.map(plainBox) }
    case 'scale':
      return { kind: 'boxes', hint: endsOf(question), boxes: stepsOf(question.min, question.max) }
    case 'grid':
      return {
        kind: 'table',
        rows: question.rows.map(r => r.label),
        steps: question.options.map(o => o.label),
      }
    case 'signature':
      return { kind: 'frame', hint: 'Signature' }
    case 'file':
      return { kind: 'frame', hint: 'Enclose it with this form, and say here what it is' }
    default:
      return { kind: 'line', unit: unitOf(question) ?? '', hint: HINTS[question.type] ?? '' }
  }
}

const yesNo = (label: string, answer: boolean, goOn: (answer: BoxAnswer) => string): Box => ({
  label,
  goOn: goOn(answer),
})
const plainBox = ({ label }: { label: string }): Box => ({ label, goOn: '' })
const rankingHint = (most: number | undefined) =>
  most === undefined ? 'Number them, 1 first' : `Number the first ${most}, 1 first`
const stepsOf = (min: number, max: number): Box[] =>
  Array.from({ length: max - min + 1 }, (_, i) => ({ label: String(min + i), goOn: '' }))
const endsOf = ({
  low,
  high,
  min,
  max,
}: {
  low?: string | undefined
  high?: string | undefined
  min: number
  max: number
}) => [low && `${min}: ${low}`, high && `${max}: ${high}`].filter(Boolean).join(', ')

function choiceBlank(
  question: Extract<Question, { type: 'choice' | 'choices' }>,
  form: Form,
  goOn: (answer: BoxAnswer) => string,
): Blank {
  const rows = optionsOf(form, question) ?? []
  const isOne = question.type === 'choice'
  if (rows.length > MOST_BOXES || rows.length === 0)
    return { kind: 'line', unit: '', hint: isOne ? 'one of the list' : 'any of the list' }
  // What is told apart by an earlier answer may be called the same.
  const once = [...new Map(rows.map(row => [row.label, row])).values()]
  const own = once.map(row => ({ label: row.label, goOn: isOne ? goOn(row.code) : '' }))
  const written =
    isChoice(question) && question.writeIn ? [{ label: `${writeInLabel(question)}:`, goOn: '' }] : []
  return { kind: 'boxes', boxes: [...own, ...written], hint: isOne ? '' : 'Cross all that apply' }
}
