import { namesIn } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { isoFromDay, dayNumber } from '../../expressions/dates'
import type { Answer, Answers } from '../../form/answers'
import { drawSteps, framesOf, random, repair, type Drawing } from '../../fill/draw'
import {
  allProblems,
  fill,
  Filling,
  offeredNow,
  problemsIn,
  type AnswerProblem,
  type Filled,
} from '../../fill/fill'
import type { PlannedQuestion } from '../../fill/planned'
import { filledBy, turnOf, turnProblems } from '../../parties/turns'
import { turnsTaken } from '../walks'
import { isPossible, sampleAnswer } from '../model/sampleAnswers'
import { SOMETHING } from '../model/domain'
import type { Model } from '../model/model'

/** What random runs of the evaluator have shown, by place order. Each entry is an example, so it settles a goal. */
export interface Evidence {
  /** Was in play in a state where its section was the current one. */
  shown: Set<number>
  /** Its own rule was not true in such a state, with what is required there answered. */
  notShown: Set<number>
  /** The same with every question answered that its rule names. */
  refused: Set<number>
  /** The sections that were the current one. */
  reached: Set<number>
}

const TRIES = 8
/** After so many runs in a row that showed nothing new, the rest is the solver's. */
const FRUITLESS = 8

/** Fills the form at random, section by section as a respondent would, and notes what showed. */
export function randomRuns(model: Model, count: number, today: string, seed = 20261124): Evidence {
  const evidence: Evidence = { shown: new Set(), notShown: new Set(), refused: new Set(), reached: new Set() }
  const next = random(seed)
  const pools = new Map(model.plan.questions.map(q => [q, poolOf(model, q)] as const))
  const size = () =>
    evidence.shown.size + evidence.notShown.size + evidence.refused.size + evidence.reached.size
  let fruitless = 0
  for (let run = 0; run < count && fruitless < FRUITLESS; run++) {
    const before = size()
    oneRun(model, next, pools, today, evidence, run % 3 === 2 ? 0.5 : 0.1)
    fruitless = size() > before ? 0 : fruitless + 1
  }
  return evidence
}

function oneRun(
  model: Model,
  next: () => number,
  pools: ReadonlyMap<PlannedQuestion, readonly Answer[]>,
  today: string,
  evidence: Evidence,
  blanks: number,
) {
  const answers: Record<string, Answer> = {}
  const drawing: Drawing = { next, blanks, pool: question => pools.get(question) ?? [] }
  const filling = new Filling(model.plan, today)
  const { state } = filling
  for (let index = 0; index < model.plan.sections.length; index = filling.leave(index)) {
    const section = model.plan.sections[index]
    if (!section) return
    Object.assign(answers, drawSteps(section.steps, drawing))
    if (!filling.enter(index, answers)) {
      evidence.reached.add(index)
      evidence.notShown.add(section.place.order)
      continue
    }
    noteReached(model, state, index, evidence)
    const complete = repair(filling, section, answers, drawing, TRIES, () =>
      noteShown(model, state, index, evidence),
    )
    if (!problemsIn(state, section).some(p => p.kind !== 'invalid'))
      noteNotShown(model, state, index, evidence)
    if (!complete) return
  }
}

function noteReached(model: Model, state: Filled, index: number, evidence: Evidence) {
  evidence.reached.add(index)
  const section = model.plan.sections[index]
  if (section && state.inPlay[section.place.order]) evidence.shown.add(section.place.order)
}

function noteShown(model: Model, state: Filled, index: number, evidence: Evidence) {
  for (const step of model.plan.sections[index]?.all ?? [])
    if (state.inPlay[step.place.order]) evidence.shown.add(step.place.order)
}

function noteNotShown(model: Model, state: Filled, index: number, evidence: Evidence) {
  for (const step of model.plan.sections[index]?.all ?? []) {
    const { shown } = step
    if (!shown) continue
    for (const frame of framesOf(state, step)) {
      if (shown.run(frame.values) === true) continue
      evidence.notShown.add(step.place.order)
      const names = shown.expr ? namesIn(shown.expr) : []
      if (names.every(name => (frame.values[model.plan.environment.slotOf(name) ?? -1] ?? null) !== null))
        evidence.refused.add(step.place.order)
    }
  }
}

/** Answers worth trying: one per class, and what text functions and comparisons with other days look for. */
function poolOf(model: Model, step: PlannedQuestion): Answer[] {
  const { code, node } = step.place
  const { classes, many } = model.domain(code)
  const values: Value[] = classes.filter(c => c !== SOMETHING)
  if (typeof values[0] === 'string' && step.offer === null) {
    const pieces = model.asked.pieces.get(code) ?? []
    values.push(...pieces, ...pieces.map(p => `${p} and more`), pieces.join(' '))
  }
  if (node.type === 'date') values.push(...nearbyDays(values))
  if (node.type === 'grid')
    for (const option of node.options)
      values.push(Object.fromEntries(node.rows.map(r => [r.code, option.code])))
  if (node.type === 'ranking')
    values.push(
      node.options
        .map(o => o.code)
        .reverse()
        .slice(0, node.most),
    )
  if (many)
    return manyOf(values)
      .filter(v => isPossible(v, step))
      .map(v => sampleAnswer(step, v))
  if (step.offer && model.domain(code).open) values.push(...[...step.offer.rows.keys()].slice(0, MOST_ROWS))
  return values.filter(v => isPossible(v, step)).map(v => sampleAnswer(step, v))
}

const MOST_ROWS = 200
/** Choices of a multiple choice worth trying: each alone, each with its neighbour, all but one, all. */
const manyOf = (values: readonly Value[]): Value[] => [
  ...values.map(v => [v]),
  ...values.slice(1).map((v, i) => [values[i] ?? null, v]),
  [...values],
  ...(values.length > 2 ? values.map(v => values.filter(other => other !== v)) : []),
]

const nearbyDays = (values: readonly Value[]) =>
  values.flatMap(v => {
    const day = typeof v === 'string' ? dayNumber(v) : null
    return day === null
      ? []
      : [isoFromDay(Math.min(day + 400, 2_900_000)), isoFromDay(Math.max(day - 400, -700_000))]
  })

/**
 * Whether a set of answers is a state whose current section is the given one: everything before it is complete. The number of sections means
 * the finish. `leaving`: the section before is complete and being left, wherever its routes lead; `reaching`: the routes lead there, shown or not.
 */
export function isStateAt(
  model: Model,
  answers: Answers,
  section: number,
  today: string,
  { leaving = false, reaching = false } = {},
): Filled | null {
  const state = fill(model.plan, answers, today)
  if (section >= model.plan.sections.length && !leaving) return isComplete(model, state) ? state : null
  if (!state.path.includes(leaving ? section - 1 : section) && !(reaching && leadsTo(state, section)))
    return null
  for (const index of state.path) {
    if (index >= section) return state
    const before = model.plan.sections[index]
    if (before && problemsIn(state, before).some(p => !isDeadEnd(model, state, p))) return null
  }
  return leaving || reaching ? state : null
}

/** Whether the way of a response comes to a section, to enter it or to pass it over. */
function leadsTo(state: Filled, section: number): boolean {
  const before = state.path.findLast(index => index < section)
  const taken =
    before === undefined
      ? undefined
      : state.plan.sections[before]?.routes.find(r => r.when === null || r.when.run(state.values) === true)
  return before === undefined || (taken?.target ?? before + 1) <= section
}

/** Whether nothing is missing or wrong; with turns, in those that are taken, and nothing is answered that none of them fills. */
function isComplete(model: Model, state: Filled): boolean {
  const { plan } = model
  const turns = turnsTaken(state).flatMap(code => turnOf(plan.form, code) ?? [])
  const problems = turns.length > 0 ? turns.flatMap(turn => turnProblems(state, turn)) : allProblems(state)
  if (problems.some(p => !isDeadEnd(model, state, p))) return false
  if (turns.length === 0) return true
  const filled = new Set(turns.flatMap(turn => [...filledBy(plan, turn)]))
  return plan.questions.every(
    q =>
      q.place.entryOf !== null ||
      q.value !== null ||
      filled.has(q.place.code) ||
      (state.values[q.slot] ?? null) === null,
  )
}

/** A required question that has nothing to offer stays blank, and a finding of its own speaks of that. */
const isDeadEnd = (model: Model, state: Filled, { step, kind }: AnswerProblem): boolean =>
  kind === 'missing' &&
  'read' in step &&
  (model.domain(step.place.code).classes.length === 0 ||
    framesOf(state, step).some(
      f => f.offered.get(step.slot)?.size === 0 || (step.offer !== null && offeredNow(f, step)?.size === 0),
    ))
