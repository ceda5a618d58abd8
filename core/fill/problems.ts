import { saysNotApplicable } from '../form/notApplicable'
import type { QuestionType } from '../form/questions'
import type { Filled, Frame } from './frame'
import { isQuestion, isRepeating } from './steps'
import type { PlannedCheck, PlannedGroup, PlannedQuestion, PlannedSection, Step } from './planned'
import { quotedText } from './quote'

/** What is wrong with an answer, or missing. `path` names the place: `loa`, `engines[1].power`; a section by its code. */
export interface AnswerProblem {
  step: Step | PlannedSection
  path: string
  kind: 'missing' | 'wrong' | 'invalid'
  sentence: string
}

/** What keeps a section from being complete, in the order of the form; its own checks last. */
export function problemsIn(filled: Filled, section: PlannedSection): AnswerProblem[] {
  const problems = stepProblems(section.steps, filled, '')
  const broken = filled.inPlay[section.place.order] ? brokenCheck(section.checks, filled) : null
  if (broken)
    problems.push({
      step: section,
      path: section.place.code,
      kind: 'invalid',
      sentence: messageOf(broken, section, filled),
    })
  return problems
}

const ORDERED = new WeakMap<readonly Step[], readonly Step[]>()
/** Steps stand in the order in which they are worked out; problems are told in that of the form. */
function inFormOrder(steps: readonly Step[]): readonly Step[] {
  const known = ORDERED.get(steps)
  if (known) return known
  const ordered = [...steps].sort((a, b) => a.place.order - b.place.order)
  ORDERED.set(steps, ordered)
  return ordered
}

function stepProblems(steps: readonly Step[], frame: Frame, prefix: string): AnswerProblem[] {
  const problems: AnswerProblem[] = []
  for (const step of inFormOrder(steps)) {
    if (!frame.inPlay[step.place.order]) continue
    const path = prefix + step.place.code
    if (isQuestion(step)) {
      const problem = problemOf(frame, step, path)
      if (problem) problems.push(problem)
      continue
    }
    if (isRepeating(step)) problems.push(...entryProblems(step, frame, path))
    const broken = brokenCheck(step.checks, frame)
    if (broken) problems.push({ step, path, kind: 'invalid', sentence: messageOf(broken, step, frame) })
  }
  return problems
}

function entryProblems(group: PlannedGroup, frame: Frame, path: string): AnswerProblem[] {
  const wrong = frame.wrong.get(group.slot)
  const own: AnswerProblem[] =
    wrong === undefined ? [] : [{ step: group, path, kind: 'wrong', sentence: wrong }]
  return [
    ...own,
    ...(frame.entries.get(group.place.order) ?? []).flatMap((entry, i) =>
      stepProblems(group.steps, entry, `${path}[${i}].`),
    ),
  ]
}

const brokenCheck = (checks: readonly PlannedCheck[], frame: Frame) =>
  checks.find(c => c.run(frame.values) === false)
const messageOf = ({ message, quotes }: PlannedCheck, { place }: Step | PlannedSection, frame: Frame) =>
  (quotes ? quotedText(frame, message, place) : message) || 'This does not fit.'

/** What is wrong with a question's answer now; null when nothing is, or when it is not in play. */
export function problemOf(
  frame: Frame,
  question: PlannedQuestion,
  path: string = question.place.code,
): AnswerProblem | null {
  if (frame.inPlay[question.place.order] !== true) return null
  const problem = (kind: AnswerProblem['kind'], sentence: string): AnswerProblem => ({
    step: question,
    path,
    kind,
    sentence,
  })
  const wrong = frame.wrong.get(question.slot)
  if (wrong !== undefined) return problem('wrong', saidWrong(frame, question, wrong))
  if (frame.required[question.slot] === true) {
    const missing = missingIn(question, frame)
    if (missing !== null) return problem('missing', missing)
  }
  if (question.checks.length === 0) return null
  const broken = brokenCheck(question.checks, frame)
  return broken ? problem('invalid', messageOf(broken, question, frame)) : null
}

/** The form's own words for a wrong answer may quote; what is said by itself may hold what was typed, and quotes nothing. */
function saidWrong(frame: Frame, { place }: PlannedQuestion, wrong: string): string {
  const own = 'patternMessage' in place.node ? place.node.patternMessage : undefined
  return wrong === own ? quotedText(frame, own, place) : wrong
}

const NEEDED = 'This needs an answer.'
/** What is said of a missing answer of each type. */
const MISSING: Readonly<Record<QuestionType, string>> = {
  text: NEEDED,
  longText: NEEDED,
  integer: NEEDED,
  decimal: NEEDED,
  money: NEEDED,
  yesNo: NEEDED,
  choice: NEEDED,
  choices: NEEDED,
  date: NEEDED,
  time: NEEDED,
  dateTime: NEEDED,
  email: NEEDED,
  phone: NEEDED,
  url: NEEDED,
  scale: NEEDED,
  grid: NEEDED,
  ranking: NEEDED,
  file: 'A file is needed here.',
  signature: 'A signature is needed here.',
  value: NEEDED,
  hidden: NEEDED,
}

function missingIn(question: PlannedQuestion, frame: Frame): string | null {
  const { node } = question.place
  const value = frame.values[question.slot] ?? null
  if (value === null && saysNotApplicable(frame.given.get(question.slot))) return null
  if (value === null) {
    const own = 'requiredMessage' in node ? node.requiredMessage : undefined
    return own
      ? quotedText(frame, own, question.place)
      : (frame.plan.form.messages?.missing ?? MISSING[node.type])
  }
  if (node.type !== 'grid' || typeof value !== 'object' || Array.isArray(value)) return null
  const open = Object.values(value).filter(v => v === null).length
  return open === 0 ? null : `${open} ${open === 1 ? 'row needs' : 'rows need'} an answer.`
}

/** Everything that keeps a response from being sent. */
export const allProblems = (filled: Filled): AnswerProblem[] =>
  filled.path.flatMap(index =>
    filled.plan.sections[index] ? problemsIn(filled, filled.plan.sections[index]) : [],
  )
