import { standpointAtEnd } from '../form/scope'
import { BOOLEAN } from '../expressions/types'
import { compile } from '../expressions/compile'
import type { Answers } from '../form/answers'
import { allProblems, answersInPlay, fill, type AnswerProblem, type Filled } from '../fill/fill'
import type { Plan } from '../fill/planned'
import type { Form } from '../form/definition'
import { DONE, type HandOff, type Party, type Turn } from '../form/turns'
import { mayFill, accessViewOf } from './access'
import { handOffsAfter, leaderOf, openedWith } from '../form/alongside'
import { laterNamesOf } from './handOffNames'

/** The turn with a code; null when the form has none such. */
export const turnOf = (form: Form, code: string): Turn | null =>
  form.turns?.find(t => t.code === code) ?? null
export const firstTurn = (form: Form): Turn | null => form.turns?.[0] ?? null
export const partyOf = (form: Form, turn: Turn): Party | undefined =>
  form.parties?.find(p => p.code === turn.party)
/** How a turn is called for people: its title, or its party's name. */
export const turnName = (form: Form, turn: Turn): string =>
  turn.title || partyOf(form, turn)?.name || turn.code

/** How a turn is called by its code; the code itself where the form has none such. */
export function turnNameOf(form: Form | null, code: string): string {
  const turn = form && turnOf(form, code)
  return turn ? turnName(form, turn) : code
}

/** Where a response is, by the code of the turn that it waits for: the name of that, with those that are open at once with it. */
export function openNamesOf(form: Form | null, code: string): string {
  const turn = form && turnOf(form, code)
  if (!turn) return code
  return openedWith(form, turn)
    .map(t => turnName(form, t))
    .join(' and ')
}

/** The condition of a hand-off: it sees all answers. */
function handOffRule(plan: Plan, when: string) {
  return plan.names.read(when, standpointAtEnd(plan.form), BOOLEAN)
}

/** The hand-off of a turn that applies: the first whose rule is true (one that leads nowhere is passed over); undefined when none does. */
export function handOffTaken({ plan, values }: Filled, turn: Turn): HandOff | undefined {
  const { form } = plan
  return handOffsAfter(form, turn).find(h => {
    if (h.to !== DONE && !turnOf(form, h.to)) return false
    if (h.when === undefined) return true
    const { expr } = handOffRule(plan, h.when)
    return expr !== null && compile(expr, plan.environment)(values) === true
  })
}

/**
 * Whose turn is next when this one is handed off: that of the hand-off that applies, else the turn that follows in the order of the form. Of
 * turns that are open at once it is asked of the last one.
 * @returns the turn, or null when the response is done
 */
export function nextTurn(filled: Filled, turn: Turn): Turn | null {
  const { form } = filled.plan
  const taken = handOffTaken(filled, turn)
  if (taken) {
    const to = turnOf(form, taken.to)
    return to && leaderOf(form, to)
  }
  return form.turns?.[form.turns.indexOf(turn) + 1] ?? null
}

/** What keeps a turn from being handed off: what is wrong or missing in what it fills. `turn` null: the one respondent, of what that one sees. */
export function turnProblems(filled: Filled, turn: Turn | null): AnswerProblem[] {
  const view = accessViewOf(filled.plan.form, filled.plan.places, turn)
  return allProblems(filled).filter(p => mayFill(view, p.step.place))
}

/** The codes of questions and repeating groups whose answers a turn may give. */
export function filledBy(plan: Plan, turn: Turn | null): Set<string> {
  const view = accessViewOf(plan.form, plan.places, turn)
  return new Set(
    plan.places.filter(p => p.kind !== 'section' && p.entryOf === null && mayFill(view, p)).map(p => p.code),
  )
}

/** A response's answers with those that a turn gives in place of its earlier ones; what others gave stays. Answers that it may not give are named. */
export function withTurn(
  plan: Plan,
  turn: Turn | null,
  stored: Answers,
  given: Answers,
): { answers: Answers; foreign: string[] } {
  const own = filledBy(plan, turn)
  return {
    answers: {
      ...Object.fromEntries(Object.entries(stored).filter(([code]) => !own.has(code))),
      ...Object.fromEntries(Object.entries(given).filter(([code]) => own.has(code))),
    },
    foreign: Object.keys(given).filter(code => !own.has(code)),
  }
}

/** How many turns are followed before it says that they go round. */
const MOST_TURNS = 100

/** The turns that these answers lead through, in order: each is handed off when only it and those before it have answered. */
export function turnsTaken(filled: Filled): string[] {
  const taken: Turn[] = []
  for (
    let turn = firstTurn(filled.plan.form);
    turn && taken.length < MOST_TURNS;
    turn = nextTurn(looksAhead(filled.plan, turn) ? atHandOff(filled, taken) : filled, turn)
  )
    taken.push(turn)
  return taken.map(turn => turn.code)
}

/** The response as it was when some turns had answered. */
function atHandOff(filled: Filled, turns: readonly Turn[]): Filled {
  const { plan, today, standing } = filled
  const theirs = new Set(turns.flatMap(turn => [...filledBy(plan, turn)]))
  const answers = Object.entries(answersInPlay(filled)).filter(([code]) => theirs.has(code))
  return fill(plan, Object.fromEntries(answers), today, standing)
}

const AHEAD = new WeakMap<Plan, Map<Turn, boolean>>()
/** Whether a hand-off of a turn asks for what later turns fill: then what they answer may not change what it was. */
function looksAhead(plan: Plan, turn: Turn): boolean {
  const known = AHEAD.get(plan) ?? new Map<Turn, boolean>()
  AHEAD.set(plan, known)
  const found = known.get(turn)
  if (found !== undefined) return found
  const index = plan.form.turns?.indexOf(turn) ?? -1
  const looks = handOffsAfter(plan.form, turn).some(({ when }) => {
    const expr = when === undefined ? null : handOffRule(plan, when).expr
    if (!expr) return false
    const { blank, open } = laterNamesOf(plan, index, expr)
    return blank.size > 0 || open.size > 0
  })
  known.set(turn, looks)
  return looks
}
