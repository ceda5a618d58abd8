import type { Answer, Answers } from '../form/answers'
import { offeredNow, type Filling } from './fill'
import type { Frame } from './frame'
import { isQuestion, isRepeating } from './steps'
import type { PlannedGroup, PlannedQuestion, PlannedSection, Step } from './planned'
import { problemsIn } from './problems'

/** How answers are drawn at random: the dice, what a question may be given, and how often one that may be blank is. */
export interface Drawing {
  next: () => number
  pool: (question: PlannedQuestion) => readonly Answer[]
  blanks: number
}

/** A small generator of random numbers (mulberry32), so that the same seed gives the same answers. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const MOST_EXTRA = 2

/** Random answers for what stands in a section or entry. */
export function drawSteps(steps: readonly Step[], drawing: Drawing): Record<string, Answer> {
  const answers: Record<string, Answer> = {}
  for (const step of steps) {
    if (isQuestion(step)) answers[step.place.code] = drawAnswer(step, drawing)
    else if (isRepeating(step)) {
      const count = Math.min(step.max, step.min + Math.floor(drawing.next() * (MOST_EXTRA + 1)))
      answers[step.place.code] = Array.from({ length: count }, () => drawSteps(step.steps, drawing))
    }
  }
  return answers
}

function drawAnswer(question: PlannedQuestion, { next, pool, blanks }: Drawing): Answer {
  const skip = question.said !== true && next() < blanks
  const answers = pool(question)
  return skip ? null : (answers[Math.floor(next() * answers.length)] ?? null)
}

/**
 * Goes on from a section that was entered with random answers: what does not fit is drawn again, some times. Changes the answers.
 * @returns whether the section is complete
 */
export function repairAnswers(
  filling: Filling,
  section: PlannedSection,
  answers: Record<string, Answer>,
  drawing: Drawing,
  tries: number,
  each: () => void,
): boolean {
  const { state } = filling
  for (let attempt = 0; ; attempt++) {
    each()
    const open = problemsIn(state, section).map(p => p.step)
    const lost = section.steps.filter(s => isQuestion(s) && state.lost.has(s.slot))
    if (open.length === 0 && lost.length === 0) return true
    if (attempt >= tries) return open.length === 0
    redraw(section.steps, new Set([...open, ...lost]), state, answers, drawing)
    filling.again(answers)
  }
}

function redraw(
  steps: readonly Step[],
  open: ReadonlySet<Step | PlannedSection>,
  frame: Frame,
  answers: Record<string, Answer>,
  drawing: Drawing,
) {
  const own = steps.some(s => open.has(s))
  for (const step of steps) {
    if (isRepeating(step)) {
      if (open.has(step) || step.inner.some(s => open.has(s)))
        Object.assign(answers, drawSteps([step], drawing))
      continue
    }
    // A check of a group or section speaks of several answers: any of them may be the one to change.
    const again = open.has(step) || (!own && open.size > 0 && drawing.next() < 0.5)
    if (isQuestion(step) && again) answers[step.place.code] = drawOffered(step, frame, drawing)
  }
}

/** A new answer; for a choice, one that is on offer now. */
export function drawOffered(question: PlannedQuestion, frame: Frame, drawing: Drawing): Answer {
  const offered = question.offer && frame.inPlay[question.place.order] ? offeredNow(frame, question) : null
  if (offered === null || offered.size === 0) return drawAnswer(question, drawing)
  const code = [...offered][Math.floor(drawing.next() * offered.size)] ?? null
  return question.place.node.type === 'choices' && code !== null ? [code] : code
}

/**
 * Answers of inner questions given flat, as entries: one for each repeating group that they name, as often as it needs at least.
 * @param entriesOf the answers of each entry of a group, where they are known one by one
 */
export function nestAnswers(
  sections: readonly PlannedSection[],
  flat: Answers,
  entriesOf: (group: PlannedGroup) => readonly Answers[] | null = () => null,
): Record<string, Answer> {
  const within = (steps: readonly Step[], given: Answers): Record<string, Answer> => {
    const answers: Record<string, Answer> = {}
    for (const step of steps) {
      const { code } = step.place
      if (isQuestion(step) && code in given) answers[code] = given[code] ?? null
      if (!isRepeating(step)) continue
      const entries = entriesOf(step)
      if (entries) {
        if (entries.length > 0) answers[code] = entries.map(e => within(step.steps, e))
        continue
      }
      const entry = within(step.steps, given)
      if (Object.keys(entry).length > 0)
        answers[code] = Array.from({ length: Math.max(1, step.min) }, () => entry)
    }
    return answers
  }
  return Object.assign({}, ...sections.map(s => within(s.steps, flat)))
}

/** The frames in which a step lives: the response itself, or each entry of the repeating group around it. */
export function framesOf(frame: Frame, step: Step): readonly Frame[] {
  const around = step.place.groups.filter(g => g.node.repeat !== undefined)
  return around.reduce<readonly Frame[]>(
    (frames, group) => frames.flatMap(f => f.entries.get(group.order) ?? []),
    [frame],
  )
}
