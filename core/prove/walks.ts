import { turnOf, turnProblems, turnsTaken } from '../parties/turns'
import { sameAnswer, type Answers } from '../form/answers'
import { allProblems, fill, type AnswerProblem, type Filled } from '../fill/fill'
import { keptAnswer } from '../fill/keep'
import type { Plan } from '../fill/planned'
import type { Walk } from '../form/definition'

/** How a walk ended: with nothing missed it is as expected. */
export interface WalkOutcome {
  walk: Walk
  misses: string[]
}

/** Goes a walk and compares what comes of it with what it expects. */
export function runWalk(plan: Plan, walk: Walk, today: string): WalkOutcome {
  const filled = fill(plan, walk.answers, today)
  const { expect } = walk
  const misses: string[] = []
  const orders = (code: string) => plan.places.filter(p => p.code === code).map(p => p.order)
  const isInPlay = (code: string) => orders(code).some(o => filled.inPlay[o] === true)
  const expected = (
    codes: readonly string[] | undefined,
    holds: (code: string) => boolean,
    words: string,
  ) => {
    for (const code of codes ?? []) {
      if (orders(code).length === 0) misses.push(`There is no “${code}” in the form.`)
      else if (!holds(code)) misses.push(`“${code}” ${words}.`)
    }
  }
  expected(expect.inPlay, isInPlay, 'is not in play')
  expected(expect.notInPlay, code => !isInPlay(code), 'is in play')
  expected(
    expect.required,
    code => filled.required[plan.byCode.get(code)?.slot ?? -1] === true,
    'is not required',
  )
  const problems = problemsOf(filled)
  const wrong = new Set(problems.map(p => p.step.place.code))
  expected(expect.wrong, code => wrong.has(code), 'is not complained about')
  misses.push(...valueMisses(filled, expect.values ?? {}))
  if (expect.finishes === true && problems[0])
    misses.push(`It does not finish: ${problems[0].path}: ${problems[0].sentence}`)
  if (expect.finishes === false && problems.length === 0) misses.push('It finishes.')
  if (expect.turns) {
    const turns = turnsTaken(filled)
    if (turns.join() !== expect.turns.join())
      misses.push(`The turns are ${turns.join(', ') || 'none'}, not ${expect.turns.join(', ') || 'none'}.`)
  }
  return { walk, misses }
}

/** What keeps the response from being finished; in a form with turns, by those that these answers lead through. */
function problemsOf(filled: Filled): AnswerProblem[] {
  const turns = turnsTaken(filled).flatMap(code => turnOf(filled.plan.form, code) ?? [])
  if (turns.length === 0) return allProblems(filled)
  return [...new Set(turns.flatMap(turn => turnProblems(filled, turn)))]
}

function valueMisses(filled: Filled, values: Answers): string[] {
  return Object.entries(values).flatMap(([code, wanted]) => {
    const question = filled.plan.byCode.get(code)
    if (!question) return [`There is no question “${code}” in the form.`]
    const found = keptAnswer(filled, question.slot)
    return sameAnswer(found, wanted)
      ? []
      : [`“${code}” is ${JSON.stringify(found)}, not ${JSON.stringify(wanted)}.`]
  })
}
