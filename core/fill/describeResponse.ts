import type { Question } from '../form/questions'
import { isRecord, type Answer, type Answers } from '../form/answers'
import { saysNotApplicable } from '../form/notApplicable'
import type { Standing } from '../form/standing'
import { fill } from './fill'
import type { Filled, Frame } from './frame'
import { isQuestion, isRepeating } from './steps'
import type { Plan, Step, PlannedGroup, PlannedQuestion } from './planned'
import { entryHeading, quotedText } from './quote'
import { isFile, type FileAnswer } from './readers'
import { describeValue } from './describeValue'

/** One question of a response as it is read: answered, left blank, or never asked. `entry` heads the first line of an entry. */
export interface ResponseLine {
  code: string
  path: string
  label: string
  state: 'answered' | 'blank' | 'unasked'
  text: string
  /** The text is lightly formatted, as CommonMark. */
  isRich: boolean
  section: number
  heading: string | null
  entry: string | null
  type: Question['type']
  files: readonly FileAnswer[]
  drawn: string | null
}

/** A response question by question, in the order of the form; the first line of each section carries its title. */
export const describeResponse = (
  plan: Plan,
  answers: Answers,
  today: string,
  standing?: Standing,
): ResponseLine[] => describeFilled(fill(plan, answers, today, standing))

/** The same of a response that was worked out already. */
export function describeFilled(filled: Filled): ResponseLine[] {
  return filled.plan.sections.flatMap(section => {
    const lines = describeSteps(section.steps, filled, '', null)
    const [first] = lines
    if (!first) return lines
    const heading = quotedText(filled, section.place.node.title, section.place)
    return [{ ...first, heading }, ...lines.slice(1)]
  })
}

/** What one question or repeating group of a response says, as it stands in a frame. */
export const describeStep = (step: Step, frame: Frame): ResponseLine[] =>
  describeSteps([step], frame, '', null)

const attached = (given: Answer | undefined): Pick<ResponseLine, 'files' | 'drawn'> => ({
  files: Array.isArray(given) ? given.filter(isFile) : [],
  drawn: isRecord(given) && typeof given.drawn === 'string' ? given.drawn : null,
})

function describeSteps(
  steps: readonly Step[],
  frame: Frame,
  prefix: string,
  entry: string | null,
): ResponseLine[] {
  let heading = entry
  return [...steps]
    .sort((a, b) => a.place.order - b.place.order)
    .flatMap((step): ResponseLine[] => {
      if (isRepeating(step)) return describeEntries(step, frame, prefix)
      if (!isQuestion(step)) return []
      const line = { ...describeQuestion(step, frame, prefix), entry: heading }
      heading = null
      return [line]
    })
}

function describeEntries(group: PlannedGroup, frame: Frame, prefix: string): ResponseLine[] {
  const { code, node, order, section } = group.place
  const frames = frame.entries.get(order) ?? []
  if (frames.length > 0)
    return frames.flatMap((inner, i) =>
      describeSteps(group.steps, inner, `${prefix}${code}[${i}].`, entryHeading(inner, group.place, i)),
    )
  return [
    {
      code,
      path: prefix + code,
      label: node.title,
      state: frame.inPlay[order] ? 'blank' : 'unasked',
      text: '',
      isRich: false,
      section,
      heading: null,
      entry: null,
      type: 'text',
      files: [],
      drawn: null,
    },
  ]
}

function describeQuestion({ place, slot }: PlannedQuestion, frame: Frame, prefix: string): ResponseLine {
  const value = frame.values[slot] ?? null
  const given = frame.given.get(slot)
  return {
    code: place.code,
    path: prefix + place.code,
    label: quotedText(frame, place.node.label, place) || place.code,
    state: stateOf(value !== null || saysNotApplicable(given), frame.inPlay[place.order] === true),
    text: describeValue(value, place.node, frame.plan.form, given),
    isRich: place.node.type === 'longText' && place.node.rich === true,
    section: place.section,
    heading: null,
    entry: null,
    type: place.node.type,
    ...attached(given),
  }
}

function stateOf(isAnswered: boolean, isInPlay: boolean): ResponseLine['state'] {
  if (isAnswered) return 'answered'
  return isInPlay ? 'blank' : 'unasked'
}
