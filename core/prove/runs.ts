import { namesIn } from '../expressions/tree'
import type { Value } from '../expressions/types'
import { isoFromDay, dayNumber } from '../expressions/dates'
import { answerOf, readAnswer, type Answer, type Answers } from '../fill/answers'
import { fill, Filling, problemsIn, type Filled } from '../fill/fill'
import type { PlannedQuestion } from '../fill/plan'
import type { Model } from './model'

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

/** A small generator of random numbers (mulberry32), so that the same form gets the same runs. */
export function random(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6D2B79F5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const TRIES = 8
/** After so many runs in a row that showed nothing new, the rest is the solver's. */
const FRUITLESS = 8

/** Fills the form at random, section by section as a respondent would, and notes what showed. */
export function randomRuns(model: Model, count: number, today: string, seed = 20261124): Evidence {
  const evidence: Evidence = { shown: new Set(), notShown: new Set(), refused: new Set(), reached: new Set() }
  const next = random(seed)
  const pools = new Map(model.plan.questions.map(q => [q.place.code, poolOf(model, q)] as const))
  const size = () => evidence.shown.size + evidence.notShown.size + evidence.refused.size + evidence.reached.size
  let fruitless = 0
  for (let run = 0; run < count && fruitless < FRUITLESS; run++) {
    const before = size()
    oneRun(model, next, pools, today, evidence, run % 3 === 2 ? 0.5 : 0.1)
    fruitless = size() > before ? 0 : fruitless + 1
  }
  return evidence
}

function oneRun(model: Model, next: () => number, pools: ReadonlyMap<string, readonly Answer[]>, today: string, evidence: Evidence, blanks: number) {
  const answers: Record<string, Answer> = {}
  const draw = (question: PlannedQuestion) => {
    const pool = pools.get(question.place.code) ?? []
    const skip = question.required !== true && next() < blanks
    answers[question.place.code] = skip ? null : pool[Math.floor(next() * pool.length)] ?? null
  }
  const filling = new Filling(model.plan, today)
  const { state } = filling
  for (let index = 0; index < model.plan.sections.length; index = filling.leave(index)) {
    const section = model.plan.sections[index]
    if (!section) return
    for (const question of section.questions) draw(question)
    if (!filling.enter(index, answers)) {
      evidence.reached.add(index)
      evidence.notShown.add(section.place.order)
      continue
    }
    noteReached(model, state, index, evidence)
    let problems = problemsIn(state, section)
    for (let attempt = 0; attempt < TRIES && problems.length > 0; attempt++) {
      noteShown(model, state, index, evidence)
      for (const { question } of problems) draw(question)
      filling.again(answers)
      problems = problemsIn(state, section)
    }
    noteShown(model, state, index, evidence)
    if (!problems.some(p => p.kind !== 'invalid')) noteNotShown(model, state, index, evidence)
    if (problems.length > 0) return
  }
}

function noteReached(model: Model, state: Filled, index: number, evidence: Evidence) {
  evidence.reached.add(index)
  const section = model.plan.sections[index]
  if (section && state.inPlay[section.place.order]) evidence.shown.add(section.place.order)
}

function noteShown(model: Model, state: Filled, index: number, evidence: Evidence) {
  for (const step of model.plan.sections[index]?.steps ?? []) if (state.inPlay[step.place.order]) evidence.shown.add(step.place.order)
}

function noteNotShown(model: Model, state: Filled, index: number, evidence: Evidence) {
  for (const step of model.plan.sections[index]?.steps ?? []) {
    if (!step.shown || step.shown.run(state.values) === true) continue
    evidence.notShown.add(step.place.order)
    const names = step.shown.expr ? namesIn(step.shown.expr) : []
    if (names.every(name => state.values[model.stepOf(name)?.slot ?? -1] !== null)) evidence.refused.add(step.place.order)
  }
}

/** Answers worth trying: one per class, and what text functions and comparisons with other days look for. */
function poolOf(model: Model, question: PlannedQuestion): Answer[] {
  const { code, node } = question.place
  const values: Value[] = [...model.domain(code).classes]
  if (node.type === 'text') {
    const pieces = model.asked.pieces.get(code) ?? []
    values.push(...pieces, ...pieces.map(p => `${p} and more`), pieces.join(' '))
  }
  if (node.type === 'date') values.push(...nearbyDays(values))
  return values.map(answerOf).filter(a => a !== null && a !== '' && readAnswer(a, node, model.form).wrong === null)
}

const nearbyDays = (values: readonly Value[]) => values.flatMap((v) => {
  const day = typeof v === 'string' ? dayNumber(v) : null
  return day === null ? [] : [isoFromDay(Math.min(day + 400, 2_900_000)), isoFromDay(Math.max(day - 400, -700_000))]
})

/** Whether a set of answers is a state whose current section is the given one: everything before it is complete. */
export function isStateAt(model: Model, answers: Answers, section: number, today: string): Filled | null {
  const state = fill(model.plan, answers, today)
  if (!state.path.includes(section)) return null
  for (const index of state.path) {
    if (index === section) return state
    const before = model.plan.sections[index]
    if (before && problemsIn(state, before).some(p => !isDeadEnd(model, p.question, p.kind))) return null
  }
  return null
}

/** A required question that has nothing to offer: it stays blank, and a finding of its own speaks of that. */
const isDeadEnd = (model: Model, question: PlannedQuestion, kind: string) => kind === 'missing' && model.domain(question.place.code).classes.length === 0
