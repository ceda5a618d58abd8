import { DOES_NOT_APPLY, gridSteps, mayNotApply } from '../../form/notApplicable'
import { namesIn } from '../../expressions/tree'
import type { Value } from '../../expressions/types'
import { isoFromDay, dayNumber } from '../../expressions/dates'
import type { Answer } from '../../form/answers'
import { drawSteps, framesOf, seededRandom, repairAnswers, type Drawing } from '../../fill/draw'
import { Filling, problemsIn, type Filled } from '../../fill/fill'
import type { PlannedQuestion } from '../../fill/planned'
import { isPossible, sampleAnswer } from '../model/sampleAnswers'
import { SOMETHING } from '../model/domain'
import type { Model } from '../model/model'
import type { KnownState } from './knownState'

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
  /** How each run ended. */
  ends: KnownState[]
}

const TRIES = 8
/** After so many runs in a row that showed nothing new, the rest is the solver's. */
const FRUITLESS = 8

/** Fills the form at random, section by section as a respondent would, and notes what showed. */
export function randomRuns(model: Model, count: number, today: string, seed = 20261124): Evidence {
  const evidence: Evidence = {
    shown: new Set(),
    notShown: new Set(),
    refused: new Set(),
    reached: new Set(),
    ends: [],
  }
  const next = seededRandom(seed)
  const size = () =>
    evidence.shown.size + evidence.notShown.size + evidence.refused.size + evidence.reached.size
  let fruitless = 0
  for (let run = 0; run < count && fruitless < FRUITLESS; run++) {
    const before = size()
    oneRun(model, next, today, evidence, run % 3 === 2 ? 0.5 : 0.1)
    fruitless = size() > before ? 0 : fruitless + 1
  }
  return evidence
}

function oneRun(model: Model, next: () => number, today: string, evidence: Evidence, blanks: number) {
  const answers: Record<string, Answer> = {}
  const drawing: Drawing = { next, blanks, pool: question => poolOf(model, question) }
  const filling = new Filling(model.plan, today)
  const { state } = filling
  const passed = new Set<number>()
  const end: KnownState = { state, current: 0, passed, answers }
  evidence.ends.push(end)
  for (let index = 0; index < model.plan.sections.length; index = filling.leave(index)) {
    end.current = index
    const section = model.plan.sections[index]
    if (!section) return
    Object.assign(answers, drawSteps(section.steps, drawing))
    if (!filling.enter(index, answers)) {
      passed.add(index)
      evidence.reached.add(index)
      evidence.notShown.add(section.place.order)
      continue
    }
    noteReached(model, state, index, evidence)
    const complete = repairAnswers(filling, section, answers, drawing, TRIES, () =>
      noteShown(model, state, index, evidence),
    )
    if (!problemsIn(state, section).some(p => p.kind !== 'invalid'))
      noteNotShown(model, state, index, evidence)
    if (!complete) return
  }
  end.current = model.plan.sections.length
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

const POOLS = new WeakMap<Model, Map<PlannedQuestion, readonly Answer[]>>()
/** Answers worth trying for a question. */
export function poolOf(model: Model, step: PlannedQuestion): readonly Answer[] {
  const pools = POOLS.get(model) ?? new Map<PlannedQuestion, readonly Answer[]>()
  POOLS.set(model, pools)
  const known = pools.get(step)
  if (known) return known
  const pool = makePool(model, step)
  pools.set(step, pool)
  return pool
}

/** Answers worth trying: one per class, and what text functions and comparisons with other days look for. */
function makePool(model: Model, step: PlannedQuestion): Answer[] {
  const { code, node } = step.place
  const { classes, many } = model.domain(code)
  const values: Value[] = classes.filter(c => c !== SOMETHING)
  if (typeof values[0] === 'string' && step.offer === null) {
    const pieces = model.asked.pieces.get(code) ?? []
    values.push(...pieces, ...pieces.map(p => `${p} and more`), pieces.join(' '))
  }
  if (node.type === 'date') values.push(...nearbyDays(values))
  if (node.type === 'grid')
    for (const option of gridSteps(node))
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
  const pool = values.filter(v => isPossible(v, step)).map(v => sampleAnswer(step, v))
  return mayNotApply(node) ? [...pool, DOES_NOT_APPLY] : pool
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
