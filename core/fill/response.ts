import type { Question } from '../form/definition'
import { isRecord, type Answer, type Answers } from './answers'
import { fill } from './fill'
import type { Frame } from './frame'
import { isQuestion, isRepeating, type Plan, type Step } from './plan'
import { entryHeading, quotedText } from './quote'
import { isFile, type FileAnswer } from './readers'
import { tellValue } from './tell'

/** One question of a response as it is read: answered, left blank, or never asked. `entry` heads the first line of an entry. */
export interface ToldLine {
  code: string
  path: string
  label: string
  state: 'answered' | 'blank' | 'unasked'
  text: string
  section: number
  heading: string | null
  entry: string | null
  type: Question['type']
  files: readonly FileAnswer[]
  drawn: string | null
}

/** A response question by question, in the order of the form; the first line of each section carries its title. */
export function tellResponse(plan: Plan, answers: Answers, today: string): ToldLine[] {
  const filled = fill(plan, answers, today)
  return plan.sections.flatMap(section => {
    const lines = tellSteps(section.steps, filled, '', null)
    const [first] = lines
    return first
      ? [
          { ...first, heading: quotedText(filled, section.place.node.title, section.place) },
          ...lines.slice(1),
        ]
      : lines
  })
}

/** What one question or repeating group of a response says, as it stands in a frame. */
export const tellStep = (step: Step, frame: Frame): ToldLine[] => tellSteps([step], frame, '', null)

const attached = (given: Answer | undefined): Pick<ToldLine, 'files' | 'drawn'> => ({
  files: Array.isArray(given) ? given.filter(isFile) : [],
  drawn: isRecord(given) && typeof given.drawn === 'string' ? given.drawn : null,
})

function tellSteps(steps: readonly Step[], frame: Frame, prefix: string, entry: string | null): ToldLine[] {
  let heading = entry
  return [...steps]
    .sort((a, b) => a.place.order - b.place.order)
    .flatMap((step): ToldLine[] => {
      if (isRepeating(step)) {
        const frames = frame.entries.get(step.place.order) ?? []
        if (frames.length === 0)
          return [
            {
              code: step.place.code,
              path: prefix + step.place.code,
              label: step.place.node.title,
              state: frame.inPlay[step.place.order] ? 'blank' : 'unasked',
              text: '',
              section: step.place.section,
              heading: null,
              entry: null,
              type: 'text',
              files: [],
              drawn: null,
            },
          ]
        return frames.flatMap((inner, i) =>
          tellSteps(
            step.steps,
            inner,
            `${prefix}${step.place.code}[${i}].`,
            entryHeading(inner, step.place, i),
          ),
        )
      }
      if (!isQuestion(step)) return []
      const { place, slot } = step
      const value = frame.values[slot] ?? null
      const state = value !== null ? 'answered' : frame.inPlay[place.order] === true ? 'blank' : 'unasked'
      const line: ToldLine = {
        code: place.code,
        path: prefix + place.code,
        label: quotedText(frame, place.node.label, place) || place.code,
        state,
        text: tellValue(value, place.node, frame.plan.form, frame.given.get(slot)),
        section: place.section,
        heading: null,
        entry: heading,
        type: place.node.type,
        ...attached(frame.given.get(slot)),
      }
      heading = null
      return [line]
    })
}
