import { TODAY_SLOT } from '../expressions/compile'
import type { Value } from '../expressions/types'
import { answerOf, readAnswer, type Answer, type Answers } from './answers'
import { isQuestion, type Plan, type PlannedQuestion, type PlannedSection } from './plan'

/** What is wrong with an answer, or missing. */
export interface AnswerProblem { question: PlannedQuestion, kind: 'missing' | 'wrong' | 'invalid', sentence: string }

/** A response at one moment: everything that follows from its answers. */
export interface Filled {
  plan: Plan
  /** The values that rules see, by slot; not in play is blank. */
  values: readonly Value[]
  /** By place order: reached, and shown by its own rule and by every rule around it. */
  inPlay: readonly boolean[]
  /** By slot: an answer is required now. */
  required: readonly boolean[]
  /** By slot: what is wrong with an answer's type or limits. */
  wrong: ReadonlyMap<number, string>
  /** The sections that are reached and shown, in order. */
  path: readonly number[]
}

/**
 * Works out a response from its answers: what is in play, what is required, the values that rules see, the way through the sections.
 * @param today the day on which the response was begun, as ISO date
 */
export function fill(plan: Plan, answers: Answers, today: string): Filled {
  const filling = new Filling(plan, today)
  for (let index = 0; index < plan.sections.length; index = filling.leave(index)) filling.enter(index, answers)
  return filling.state
}

interface Open { values: Value[], inPlay: boolean[], required: boolean[], wrong: Map<number, string> }

/** A response that is filled section by section; `fill` goes through it in one go. */
export class Filling {
  private readonly open: Open
  private readonly path: number[] = []
  /** The response so far; it changes as sections are entered. */
  readonly state: Filled

  constructor(readonly plan: Plan, today: string) {
    const values = new Array<Value>(plan.size).fill(null)
    values[TODAY_SLOT] = today
    this.open = { values, inPlay: new Array<boolean>(plan.places.length).fill(false), required: new Array<boolean>(plan.size).fill(false), wrong: new Map() }
    this.state = { plan, ...this.open, path: this.path }
  }

  /** Fills a section that the routes lead to; false when its rule does not show it. */
  enter(index: number, answers: Answers): boolean {
    const section = this.plan.sections[index]
    if (!section || (section.shown && section.shown.run(this.open.values) !== true)) return false
    this.open.inPlay[section.place.order] = true
    this.path.push(index)
    fillSection(this.plan, section, answers, this.open)
    return true
  }

  /** Fills the section entered last once more, with other answers. */
  again(answers: Answers) {
    const section = this.plan.sections[this.path[this.path.length - 1] ?? -1]
    if (!section) return
    const { values, inPlay, required, wrong } = this.open
    for (const step of section.steps) {
      inPlay[step.place.order] = false
      if (!isQuestion(step)) continue
      values[step.slot] = null
      required[step.slot] = false
      wrong.delete(step.slot)
    }
    fillSection(this.plan, section, answers, this.open)
  }

  /** Where the way goes on from a section, entered or passed over. */
  leave(index: number): number {
    const section = this.plan.sections[index]
    return section && this.path[this.path.length - 1] === index ? nextSection(this.state, section) : index + 1
  }
}

function fillSection(plan: Plan, section: PlannedSection, answers: Answers, { values, inPlay, required, wrong }: Open) {
  for (const step of section.steps) {
    const around = step.parent < 0 || inPlay[step.parent] === true
    if (!around || (step.shown && step.shown.run(values) !== true)) continue
    inPlay[step.place.order] = true
    if (!isQuestion(step)) continue
    const answer = answers[step.place.code]
    if (answer === undefined || answer === null) continue
    const reading = readAnswer(answer, step.place.node, plan.form)
    values[step.slot] = reading.value
    if (reading.wrong !== null) wrong.set(step.slot, reading.wrong)
  }
  for (const question of section.questions) {
    if (question.required === null || inPlay[question.place.order] !== true) continue
    required[question.slot] = question.required === true || question.required.run(values) === true
  }
}

/** Where a section leads with these values: the index of a later section, or the number of sections for the finish. */
export function nextSection(filled: Filled, section: PlannedSection): number {
  const taken = section.routes.find(route => route.when === null || route.when.run(filled.values) === true)
  return taken?.target ?? section.place.section + 1
}

/** What keeps a section from being complete, in the order of the form. */
export function problemsIn(filled: Filled, section: PlannedSection): AnswerProblem[] {
  return section.questions.flatMap(question => problemOf(filled, question) ?? [])
}

/** What is wrong with a question's answer now; null when nothing is, or when it is not in play. */
export function problemOf(filled: Filled, question: PlannedQuestion): AnswerProblem | null {
  if (filled.inPlay[question.place.order] !== true) return null
  const wrong = filled.wrong.get(question.slot)
  if (wrong !== undefined) return { question, kind: 'wrong', sentence: wrong }
  if (filled.values[question.slot] === null && filled.required[question.slot] === true) return { question, kind: 'missing', sentence: 'This needs an answer.' }
  const broken = question.checks.find(c => c.run(filled.values) === false)
  return broken ? { question, kind: 'invalid', sentence: broken.message || 'This answer does not fit.' } : null
}

/** Everything that keeps a response from being sent. */
export const allProblems = (filled: Filled): AnswerProblem[] =>
  filled.path.flatMap(index => filled.plan.sections[index] ? problemsIn(filled, filled.plan.sections[index]) : [])

/** The answers that count: those in play and not blank, in the order of the form. What is not in play is left out. */
export function answersInPlay(filled: Filled): Record<string, Exclude<Answer, null>> {
  const kept: Record<string, Exclude<Answer, null>> = {}
  for (const question of filled.plan.questions) {
    const answer = answerOf(filled.values[question.slot] ?? null)
    if (answer !== null && filled.plan.byCode.get(question.place.code) === question) kept[question.place.code] = answer
  }
  return kept
}
