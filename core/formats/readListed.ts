import type { Answer } from '../form/answers'
import { gridSteps } from '../form/notApplicable'
import type { QuestionOf } from '../form/questions'

interface Named {
  code: string
  label: string
}

/** The rows of a grid with what was answered, as a cell tells them: `Hull: good; Keel: poor`. Null where the text reads otherwise. */
export function readGrid(grid: QuestionOf<'grid'>, text: string): Answer | null {
  const answered: Record<string, string> = {}
  let rest = text.trim()
  while (rest !== '') {
    const found = beginningOf(rest, '; ', pairsOf(grid, answered))
    if (!found) return null
    const [row, step] = found.of
    answered[row.code] = step.code
    rest = found.rest
  }
  return answered
}

/** Every row that is still to be answered with every step, as they may be told: by labels, or by codes. */
const pairsOf = (grid: QuestionOf<'grid'>, answered: object) =>
  grid.rows
    .filter(row => !Object.hasOwn(answered, row.code))
    .flatMap(row =>
      gridSteps(grid).flatMap(step => {
        const of: [Named, Named] = [row, step]
        return [
          { of, text: `${row.label}: ${step.label}` },
          { of, text: `${row.code}: ${step.code}` },
        ]
      }),
    )

/** What was put in order, as a cell tells it: `1. Price, 2. Place`. Null where the text reads otherwise. */
export function readRanking({ options }: QuestionOf<'ranking'>, text: string): Answer | null {
  const ranked: string[] = []
  let rest = text.trim()
  while (rest !== '') {
    const number = ranked.length + 1
    const next = options
      .filter(o => !ranked.includes(o.code))
      .flatMap(o => [o.label, o.code].map(name => ({ of: o, text: `${number}. ${name}` })))
    const found = beginningOf(rest, ', ', next)
    if (!found) return null
    ranked.push(found.of.code)
    rest = found.rest
  }
  return ranked
}

/** The longest of some texts with which another begins, up to the sign between two or its end; and what comes behind. */
function beginningOf<T>(
  whole: string,
  between: string,
  texts: readonly { of: T; text: string }[],
): { of: T; rest: string } | null {
  const fitting = texts.filter(({ text }) => whole === text || whole.startsWith(text + between))
  const [longest] = fitting.sort((a, b) => b.text.length - a.text.length)
  return longest ? { of: longest.of, rest: whole.slice(longest.text.length + between.length) } : null
}
