import { Filling, offeredNow, type Filled } from '../../fill/fill'
import { drawOffered, drawSteps, seededRandom, type Drawing } from '../../fill/draw'
import type { PlannedQuestion, PlannedSection, Step } from '../../fill/planned'
import { isQuestion, isRepeating } from '../../fill/steps'
import { isRecord, type Answer, type Answers } from '../../form/answers'
import { valueKey } from '../../lists/listIndex'
import type { Model } from '../model/model'
import type { WitnessGoal } from './goal'
import type { KnownState } from './knownState'
import { ShownBy } from './knownStates'
import { poolOf } from './randomRuns'
import { sampleAnswer } from '../model/sampleAnswers'
import { problemsOf } from './turnChain'

/** How often what is missing in a section is drawn anew before the way counts as not found. */
const MOST_DRAWS = 20

/** What is known of a state: some answers, and the questions that have just these, or stay blank. */
export interface Slice {
  answers: Answers
  decided: ReadonlySet<string>
  today: string
  /** By position, the turns that fill; null in a form without turns. */
  turns: readonly number[] | null
}

/**
 * Goes through the form as a respondent would with the answers of a slice, and fills what else has to be answered on the way with any answers
 * that fit: the evaluator says at every step what is missing.
 * @param last the index of the section to go to; the number of sections means the finish
 * @param visit is shown the state whenever another section has become the current one, before what is missing there is filled
 * @returns the state in which it, or the section that could not be completed, is the current one
 */
export function goThrough(
  model: Model,
  slice: Slice,
  last: number,
  visit: (known: KnownState) => void = () => {},
): KnownState {
  const { sections } = model.plan
  const way = new Way(model, slice)
  const passed = new Set<number>()
  const known: KnownState & { current: number } = {
    state: way.state,
    current: 0,
    passed,
    answers: way.answers,
  }
  let index = 0
  while (index <= last && index < sections.length) {
    known.current = index
    const isShown = way.enter(index)
    if (!isShown) passed.add(index)
    visit(known)
    if (isShown && index < last && !way.complete(index)) return known
    const next = way.leave(index)
    // Whoever has left a section that is complete has come to the next, though it may lie beyond the last.
    if (index < last) known.current = next
    index = next
  }
  if (last >= sections.length) known.current = last
  return known
}

/** The state that shows a goal, if the answers of a slice lead to one; null when that was not found. */
export function reachState(model: Model, goal: WitnessGoal, slice: Slice): KnownState | null {
  // Whoever leaves a section has completed it.
  const known = goThrough(model, slice, goal.section)
  return new ShownBy(model, known).shows(goal) ? known : null
}

class Way {
  private readonly filling: Filling
  readonly answers: Record<string, Answer>
  private readonly drawing: Drawing

  constructor(
    private readonly model: Model,
    private readonly slice: Slice,
  ) {
    this.filling = new Filling(model.plan, slice.today)
    this.answers = { ...slice.answers }
    this.drawing = { next: seededRandom(1), blanks: 1, pool: question => poolOf(model, question) }
  }

  get state(): Filled {
    return this.filling.state
  }

  leave = (index: number): number => this.filling.leave(index)

  /** Enters a section; a choice that stands for several rows becomes one that is on offer there. */
  enter(index: number): boolean {
    if (!this.filling.enter(index, this.answers)) return false
    const { lost, wrong } = this.filling.state
    const replaced = this.sectionAt(index).steps.filter(
      s => isQuestion(s) && (lost.has(s.slot) || wrong.has(s.slot)) && this.chooseAlike(s),
    )
    if (replaced.length > 0) this.filling.again(this.answers)
    return true
  }

  private sectionAt(index: number): PlannedSection {
    const section = this.model.plan.sections[index]
    if (!section) throw new Error(`There is no section ${index}.`)
    return section
  }

  private chooseAlike(question: PlannedQuestion): boolean {
    const { code } = question.place
    const [representative = null, ...others] = this.model.domain(code).classes
    const offered = offeredNow(this.filling.state, question)
    const given = this.answers[code] ?? null
    const isOther = (a: Answer) => typeof a === 'string' && valueKey(a) === valueKey(representative)
    const named = new Set<unknown>(others)
    const free = [...(offered ?? [])].find(row => !named.has(row))
    if (free === undefined) return false
    if (Array.isArray(given)) this.answers[code] = given.map((a: Answer) => (isOther(a) ? free : a))
    else if (isOther(given)) this.answers[code] = free
    return this.answers[code] !== given
  }

  /** Answers what is missing in the section entered last; false when that is not found. */
  complete(index: number): boolean {
    const section = this.sectionAt(index)
    const turns = this.slice.turns?.flatMap(t => this.model.turns[t] ?? []) ?? null
    for (let draws = 0; draws < MOST_DRAWS; draws++) {
      const open = problemsOf(this.state, index, turns)
      if (open.length === 0) return true
      const places = new Set(open.map(p => p.step))
      const drawn = section.steps.filter(step => this.draw(step, places))
      if (drawn.length === 0) return false
      this.filling.again(this.answers)
    }
    return false
  }

  /** Draws an answer for what is open and not decided. */
  private draw(step: Step, open: ReadonlySet<Step | PlannedSection>): boolean {
    const { code } = step.place
    if (isQuestion(step)) {
      if (!open.has(step) || this.slice.decided.has(code)) return false
      const passing = this.model.passing.get(step)
      this.answers[code] =
        passing === undefined
          ? drawOffered(step, this.state, { ...this.drawing, blanks: 0 })
          : sampleAnswer(step, passing)
      return true
    }
    if (!isRepeating(step)) return false
    if (!open.has(step) && !step.inner.some(inner => open.has(inner))) return false
    const drawn = drawSteps([step], { ...this.drawing, blanks: 0.5 })[code] ?? null
    this.answers[code] = this.withDecided(code, drawn)
    return true
  }

  /** Entries that are drawn: as many as the slice has where it decides that, and with what it says of them. */
  private withDecided(code: string, drawn: Answer): Answer {
    const decided = this.slice.answers[code]
    if (!Array.isArray(decided) || !Array.isArray(drawn) || drawn.length === 0) return drawn
    return decided.map((entry: Answer, i) => {
      const other = drawn[i % drawn.length] ?? null
      return isRecord(entry) && isRecord(other) ? { ...other, ...entry } : entry
    })
  }
}
