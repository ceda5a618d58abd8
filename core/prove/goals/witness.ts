import { withNotApplicable } from './notApplied'
import type { WitnessGoal } from './goal'
import { sameAnswer, type Answers } from '../../form/answers'
import { valueKey } from '../../lists/listIndex'
import { constantDefault } from '../model/domains'
import { sampleAnswer } from '../model/sampleAnswers'
import { codeAt, parseEntryCode } from '../model/entryCodes'
import { StateSpace } from './stateSpace'
import type { Model } from '../model/model'
import { stateAt } from './stateAt'
import { withOffered } from '../encode/offers'
import type { Literal } from '../solver/literal'

/** How many answers a witness may have for its size to be proved least; beyond, it is only made irreducible. */
const MOST_PROVED = 60
/** Among so many questions that may have to be answered a smallest set is looked for; of a longer way it is only made irreducible. */
const MOST_LOOKED_INTO = 160
/** How many answers it is tried to do without, at most: a form of hundreds of required questions has no small witness anyway. */
const MOST_TRIES = 200

/**
 * A smallest set of answers that fulfils a goal: answers are dropped one by one, then the solver proves that fewer don't do.
 * It is replayed in the real evaluator first; null when no state fulfils the goal, none was found that replays, or the way is too long for it.
 */
export function smallestWitness(model: Model, goal: WitnessGoal, today: string): Answers | null {
  if (isLongWay(model, goal)) return null
  const names = new Set(goal.names)
  for (const q of demandingBefore(model, goal)) {
    names.add(q.place.code)
    const entries = q.place.entryOf ? model.copies.of.get(q.place.entryOf.code) : undefined
    for (let entry = 2; entry <= (entries?.copies ?? 0); entry++) names.add(codeAt(q.place.code, entry))
  }
  const space = new StateSpace(model, goal.section, [...names])
  const asked = space.literalsOf(goal)
  // Today as it is, unless only another day does; entries beyond those told apart like one that is.
  for (const alike of space.encoding.further.alike()) {
    const wanted = [...asked, ...alike]
    const literals = [[...wanted, ...space.encoding.firstDay()], wanted].find(
      all => space.decide(all) === 'satisfiable',
    )
    if (!literals) continue
    const least = shrink(space, literals)
    const day = space.encoding.day() ?? today
    const found = replay(model, goal, withoutDefaults(model, least), day) ?? replay(model, goal, least, day)
    if (!found) continue
    if (day !== today) DAYS.set(found, day)
    return found
  }
  return null
}

/** What may be required on the way belongs to a witness as well; what nobody needs to answer stays blank. */
const demandingBefore = ({ plan }: Model, { section }: WitnessGoal) =>
  plan.questions.filter(q => q.place.section < section && (q.said !== null || q.checks.length > 0))

/** Whether so much may have to be answered on the way to a goal that no smallest set is looked for. */
export const isLongWay = (model: Model, goal: WitnessGoal): boolean =>
  demandingBefore(model, goal).length > MOST_LOOKED_INTO

const DAYS = new WeakMap<Answers, string>()
/** The day on which a witness shows what it shows, when that is not the one on which it was proved. */
export const dayOf = (witness: Answers | null): string | null =>
  witness ? (DAYS.get(witness) ?? null) : null

/** The same example with other answers, on the same day. */
export function onDayOf(witness: Answers, others: Answers): Answers {
  const day = DAYS.get(witness)
  if (day !== undefined) DAYS.set(others, day)
  return others
}

/** The answers, if the evaluator agrees with them. */
export function replay(model: Model, goal: WitnessGoal, answers: Answers, today: string): Answers | null {
  const offered = withOffered(model.plan, code => model.domain(code).classes, answers, today)
  const said = withNotApplicable(model.plan, goal, offered)
  const state = stateAt(model, said, goal, today)
  return state && goal.holds(state) ? said : null
}

/** Answers of a state that shows a goal, with as few as can be left out one by one: where the solver has no smallest set that replays. */
export function reducedWitness(
  model: Model,
  goal: WitnessGoal,
  shown: Answers,
  today: string,
): Answers | null {
  let answers = replay(model, goal, shown, today)
  // What has to be answered wherever it is asked can't be left out.
  const optional = Object.keys(shown).filter(code => model.stepOf(code)?.said !== true)
  for (const code of optional.slice(0, MOST_TRIES)) {
    if (!answers || answers[code] === undefined) continue
    const { [code]: _, ...others } = answers
    answers = replay(model, goal, others, today) ?? answers
  }
  return answers
}

/** The literal “this has to be said of a question”: it is answered, or with something else than it begins with. */
function saidLiteral({ model, encoding }: StateSpace, code: string): Literal {
  const { blank, classes } = encoding.variable(code)
  const step = model.stepOf(code)
  const begins = step ? constantDefault(step) : undefined
  if (begins === undefined) return -blank
  const beginning = classes.find(c => valueKey(c.value) === valueKey(begins))?.literal
  return beginning === undefined ? -blank : -beginning
}

/** An amount and its currency are one answer. */
function isPartOfAmount(model: Model, code: string): boolean {
  const { grid } = parseEntryCode(code)
  return grid !== null && model.stepOf(grid)?.place.node.type === 'money'
}

function shrink(space: StateSpace, literals: readonly Literal[]): Answers {
  const { encoding } = space
  const codes = encoding.askedCodes().filter(code => !isPartOfAmount(space.model, code))
  const said = new Map(codes.map(code => [code, saidLiteral(space, code)] as const))
  const saidNow = () => new Set([...said].filter(([, l]) => encoding.solver.isTrue(l)).map(([code]) => code))
  let given = saidNow()
  const dropped: Literal[] = []
  let tries = 0
  for (const [code, literal] of said) {
    if (!given.has(code)) {
      dropped.push(-literal)
      continue
    }
    // What is always asked and required can't be done without; of a very long way not every answer is tried.
    const isNeeded = space.isNeeded(code) && space.model.stepOf(code)?.default === null
    if (isNeeded || tries >= MOST_TRIES) continue
    tries += 1
    if (space.decide([...literals, ...dropped, -literal]) !== 'satisfiable') continue
    dropped.push(-literal)
    given = saidNow()
  }
  // The last call may have failed: the model of the answers that are left is found once more.
  space.decide([...literals, ...dropped])
  return proveLeast(space, literals, [...said.values()])
}

/** Asks for fewer answers until there is a proof that there are none. */
function proveLeast(space: StateSpace, literals: readonly Literal[], said: readonly Literal[]): Answers {
  const { solver } = space.encoding
  const count = () => said.filter(l => solver.isTrue(l)).length
  let best = space.answers()
  for (let size = count(); size > 0 && size <= MOST_PROVED; size = count()) {
    const fewer = atMost(space, said, size - 1)
    if (space.decide([...literals, fewer]) !== 'satisfiable') return best
    best = space.answers()
  }
  return best
}

/** Without the answers that stand anyway, since their questions begin with them. */
function withoutDefaults({ plan }: Model, answers: Answers): Answers {
  const isSaid = (code: string) => {
    const step = plan.byCode.get(code)
    const begins = step && step.place.entryOf === null ? constantDefault(step) : undefined
    return !step || begins === undefined || !sameAnswer(answers[code] ?? null, sampleAnswer(step, begins))
  }
  return Object.fromEntries(Object.entries(answers).filter(([code]) => isSaid(code)))
}

/** A literal that brings “at most k of these hold” with it (sequential counter, Sinz 2005). */
function atMost(space: StateSpace, literals: readonly Literal[], k: number): Literal {
  const { solver } = space.encoding
  const on = solver.newVariable()
  if (k === 0) {
    for (const literal of literals) solver.addClause([-on, -literal])
    return on
  }
  let before: Literal[] = []
  for (const literal of literals) {
    const counts = Array.from({ length: k }, () => solver.newVariable())
    solver.addClause([-on, -literal, counts[0] ?? 0])
    for (let j = 0; j < k; j++) {
      const previous = before[j]
      if (previous === undefined) continue
      solver.addClause([-on, -previous, counts[j] ?? 0])
      const next = counts[j + 1]
      if (next !== undefined) solver.addClause([-on, -literal, -previous, next])
      else solver.addClause([-on, -literal, -previous])
    }
    before = counts
  }
  return on
}
