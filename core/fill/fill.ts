import { FIRST_SLOT, TODAY_SLOT } from '../expressions/compiled'
import { isNumber, rounded } from '../expressions/decimal'
import type { Context, Value } from '../expressions/types'
import { answerOf } from './answers'
import { isRecord, type Answer, type Answers } from '../form/answers'
import {
  clearInside,
  emptyFrame,
  keepInside,
  restoreInside,
  type Filled,
  type Frame,
  type KeptEntry,
  type OpenFrame,
} from './frame'
import { endOf, entryFrame, once, type Until } from './entryFrame'
import type { Offer, AnswerReading } from './answerReading'
import { isQuestion, isRepeating } from './steps'
import type { Lock, Plan, PlannedGroup, PlannedOffer, PlannedQuestion, PlannedSection, Step } from './planned'
import { isTaken, wayOut } from './wayOut'
import { LIMITS } from '../form/limits'
import { STANDING_NAMES, standingContext, type Standing } from '../form/standing'

export type { Filled, Frame } from './frame'
export { allProblems, problemOf, problemsIn, type AnswerProblem } from './problems'
export { answersInPlay } from './keep'

/**
 * Works out a response from its answers: what is in play, what is required, the values that rules see, the way through the sections.
 * @param today the day on which the response was begun, as ISO date
 * @param standing what its texts may quote besides answers
 */
export function fill(plan: Plan, answers: Answers, today: string, standing: Standing = {}): Filled {
  const filling = new Filling(plan, today, standing)
  for (let index = 0; index < plan.sections.length; index = filling.leave(index))
    filling.enter(index, answers)
  return filling.state
}

/** A response that is filled section by section; `fill` goes through it in one go. */
export class Filling {
  /** The response so far; it changes as sections are entered. */
  readonly state: OpenFrame & Pick<Filled, 'today' | 'standing'> & { path: number[]; closing: string | null }

  constructor(
    readonly plan: Plan,
    today: string,
    standing: Standing = {},
  ) {
    this.state = { ...emptyFrame(plan), path: [], closing: null, today, standing }
    this.state.values[TODAY_SLOT] = today
    const { title, code } = plan.form
    const values: Standing = { form: { title, code }, ...standing }
    STANDING_NAMES.forEach((name, i) => {
      this.state.values[FIRST_SLOT + i] = standingContext(values, name)
    })
  }

  /** Fills a section that the routes lead to; false when its rule does not show it. */
  enter(index: number, answers: Answers): boolean {
    const section = this.plan.sections[index]
    const { state } = this
    if (!section || (section.shown && section.shown.run(state.values) !== true)) return false
    state.inPlay[section.place.order] = true
    state.path.push(index)
    fillSection(section, answers, state)
    return true
  }

  /** Fills the section entered last once more, with other answers. */
  again(answers: Answers) {
    const { state } = this
    const section = this.plan.sections[state.path[state.path.length - 1] ?? -1]
    if (!section) return
    for (const step of section.all) {
      state.inPlay[step.place.order] = false
      state.locked[step.place.order] = false
      state.entries.delete(step.place.order)
      if (!isQuestion(step) && !isRepeating(step)) continue
      state.values[step.slot] = null
      state.required[step.slot] = false
      for (const map of [state.wrong, state.given, state.offered, state.lost]) map.delete(step.slot)
      if (isQuestion(step) && step.otherSlot >= 0) state.values[step.otherSlot] = null
    }
    fillSection(section, answers, state)
  }

  /** Where the way goes on from a section, entered or passed over. */
  leave(index: number): number {
    const section = this.plan.sections[index]
    const { state } = this
    if (!section || state.path[state.path.length - 1] !== index) return index + 1
    const taken = wayOut(section, state)
    if (taken && 'closing' in taken && taken.target >= this.plan.sections.length)
      state.closing = taken.closing
    return taken?.target ?? index + 1
  }
}

function fillSection(section: PlannedSection, answers: Answers, frame: OpenFrame) {
  const entries = new Map<number, KeptEntry[]>()
  const { order } = section.place
  frame.locked[order] = frame.plan.locks && holds(section.readOnly, frame)
  fillSteps(section.steps, answers, frame, order, entries)
  finishSteps(section.steps, { frame, outer: frame, until: once(() => endOf(section)) }, entries)
}

const holds = (lock: Lock, frame: Frame): boolean =>
  lock === true || (lock !== null && lock.run(frame.values) === true)

/** First pass: what is in play and what its values are, in an order in which everything named is known already. */
function fillSteps(
  steps: readonly Step[],
  answers: Answers,
  frame: OpenFrame,
  outer: number,
  entries: Map<number, KeptEntry[]>,
) {
  const { values, inPlay, locked, plan } = frame
  for (const step of steps) {
    if (step.parent >= 0 && !inPlay[step.parent]) continue
    if (step.shown !== null && step.shown.run(values) !== true) continue
    if (step.skips.length > 0 && step.skips.some(skip => isTaken(skip, frame))) continue
    const { order, code } = step.place
    inPlay[order] = true
    if (plan.locks)
      locked[order] = locked[step.parent < 0 ? outer : step.parent] === true || holds(step.readOnly, frame)
    if (isQuestion(step)) fillQuestion(step, answers[code], frame)
    else if (isRepeating(step)) fillEntries(step, answers[code], frame, entries)
  }
}

const ALL: Offer['rows'] = new Map()

function fillQuestion(question: PlannedQuestion, given: Answer | undefined, frame: OpenFrame) {
  const { values } = frame
  if (question.value !== null) {
    values[question.slot] = calculated(question, values)
    return
  }
  const answer = answerThatStands(question, given, frame)
  if (answer === undefined || answer === null || answer === '') return
  const offered = question.offer === null ? null : offeredBy(question.offer, values)
  if (offered !== null) frame.offered.set(question.slot, offered)
  keepReading(question, readAnswer(question, answer, offered), frame)
}

/** The answer that was given, unless it is locked; else the default, or the only choice there is. */
function answerThatStands(
  question: PlannedQuestion,
  given: Answer | undefined,
  frame: OpenFrame,
): Answer | undefined {
  const { values } = frame
  if (given !== undefined && !frame.locked[question.place.order]) return given
  if (question.default !== null) return answerOf(question.default.run(values))
  if (!question.offer?.onlyOne) return undefined
  return onlyOneOf(question.offer, values, question.place.node.type === 'choices')
}

/** Reads an answer; the reading of the last one is kept. */
function readAnswer(question: PlannedQuestion, answer: Answer, offered: Offer['offered']): AnswerReading {
  const { last } = question
  if (last.answer === answer && last.offered === offered) return last.reading
  const rows = question.offer === null ? ALL : question.offer.rows
  last.reading = question.read(answer, { offered, rows })
  last.answer = answer
  last.offered = offered
  return last.reading
}

function keepReading({ slot, otherSlot }: PlannedQuestion, reading: AnswerReading, frame: OpenFrame) {
  frame.values[slot] = reading.value
  if (otherSlot >= 0) frame.values[otherSlot] = reading.other
  if (reading.answer !== reading.value) frame.given.set(slot, reading.answer)
  if (reading.wrong !== null) frame.wrong.set(slot, reading.wrong)
  if (reading.lost.length > 0) frame.lost.set(slot, reading.lost)
}

/** The only row that is on offer, where there is just one. */
function onlyOneOf(offer: PlannedOffer, values: readonly Value[], many: boolean): Answer | undefined {
  const codes = offeredBy(offer, values) ?? new Set(offer.rows.keys())
  const [only] = codes
  if (codes.size !== 1 || only === undefined) return undefined
  return many ? [only] : only
}

/** A calculated value, rounded to its places: money to cents. */
function calculated(question: PlannedQuestion, values: readonly Value[]): Value {
  const value = question.value?.run(values) ?? null
  const { node } = question.place
  const places =
    node.type !== 'value' ? undefined : (node.decimals ?? (node.currency === undefined ? undefined : 2))
  return isNumber(value) && places !== undefined ? rounded(value, places, 'up') : value
}

/** The codes that a choice offers with these values; null when all of them. */
export function offeredBy(
  { rows, rules, narrowed }: PlannedOffer,
  values: readonly Value[],
): ReadonlySet<string> | null {
  const left = narrowed === null ? null : narrowed(values)
  if (rules === null) return left
  const offered = new Set<string>()
  let i = 0
  for (const code of rows.keys()) {
    const rule = rules[i]
    i += 1
    if (rule && rule.run(values) !== true) continue
    if (left === null || left.has(code)) offered.add(code)
  }
  return offered
}

/** What a choice question offers now, as a set of codes; null when all of its rows. */
export const offeredNow = (frame: Frame, question: PlannedQuestion): ReadonlySet<string> | null =>
  frame.offered.get(question.slot) ??
  (question.offer === null ? null : offeredBy(question.offer, frame.values))

/** How many entries a repeating group has with these answers: those given, at least its least, at most what is read. */
export const countOf = (group: PlannedGroup, answer: Answer | undefined): number =>
  Math.min(LIMITS.entries, Math.max(group.min, Array.isArray(answer) ? answer.length : 0))

function fillEntries(
  group: PlannedGroup,
  answer: Answer | undefined,
  frame: OpenFrame,
  entries: Map<number, KeptEntry[]>,
) {
  const given: readonly Answer[] = Array.isArray(answer) ? answer : []
  if (answer !== undefined && answer !== null && (!Array.isArray(answer) || answer.some(e => !isRecord(e))))
    frame.wrong.set(group.slot, 'A list of entries is expected here.')
  else if (given.length > group.max)
    frame.wrong.set(group.slot, `There are ${given.length} entries; at most ${group.max} fit.`)
  const outside = { wrong: frame.wrong, given: frame.given, offered: frame.offered, lost: frame.lost }
  const kept: KeptEntry[] = []
  const contexts: Context[] = []
  const anywhere = new Array<boolean>(group.orders.to - group.orders.from).fill(false)
  for (let i = 0, count = countOf(group, answer); i < count; i++) {
    const entry = given[i]
    const within = new Map<number, KeptEntry[]>()
    Object.assign(frame, { wrong: new Map(), given: new Map(), offered: new Map(), lost: new Map() })
    fillSteps(group.steps, isRecord(entry) ? entry : {}, frame, group.place.order, within)
    contexts.push(contextOf(group, frame))
    kept.push(keepInside(frame, group, within))
    for (let o = group.orders.from; o < group.orders.to; o++)
      if (frame.inPlay[o]) anywhere[o - group.orders.from] = true
    clearInside(frame, group)
  }
  Object.assign(frame, outside)
  anywhere.forEach((shown, i) => {
    frame.inPlay[group.orders.from + i] = shown
  })
  frame.values[group.slot] = contexts
  entries.set(group.place.order, kept)
}

function contextOf(group: PlannedGroup, { values }: Frame): Context {
  const context: Record<string, Value> = {}
  for (const step of group.steps)
    if (isQuestion(step) || isRepeating(step)) context[step.place.code] = values[step.slot] ?? null
  return context
}

/** Where the second pass is: the slots that are worked in, and what stands around entries there. */
interface Finishing {
  frame: OpenFrame
  outer: Frame
  until: () => Until
}

/** Second pass: what is required, which may rest on anything in the section; entries become frames of their own. */
function finishSteps(steps: readonly Step[], where: Finishing, entries: ReadonlyMap<number, KeptEntry[]>) {
  const { frame } = where
  for (const step of steps) {
    if (!frame.inPlay[step.place.order]) continue
    if (isQuestion(step)) frame.required[step.slot] = holds(step.said, frame)
    else if (isRepeating(step))
      frame.entries.set(step.place.order, framesOf(step, where, entries.get(step.place.order) ?? []))
  }
}

function framesOf(group: PlannedGroup, where: Finishing, kept: readonly KeptEntry[]): Frame[] {
  const { frame, outer, until } = where
  const { slots, orders } = group
  const anywhere = frame.inPlay.slice(orders.from, orders.to)
  const frames = kept.map((entry): Frame => {
    restoreInside(frame, group, entry)
    const { wrong, given, offered, lost } = entry
    const inner: OpenFrame = { ...frame, wrong, given, offered, lost, entries: new Map() }
    const required: boolean[] = []
    const own = entryFrame(outer, { group, kept: entry, required, entries: inner.entries }, until())
    finishSteps(group.steps, { frame: inner, outer: own, until }, entry.kept)
    required.push(...frame.required.slice(slots.from, slots.to))
    return own
  })
  clearInside(frame, group)
  anywhere.forEach((shown, i) => {
    frame.inPlay[orders.from + i] = shown
  })
  return frames
}
