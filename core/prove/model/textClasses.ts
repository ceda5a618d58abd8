import { isNumber } from '../../expressions/decimal'
import { childrenOf, type Expr } from '../../expressions/tree'
import { isTooLarge, type Automaton } from './regularText'
import {
  after,
  automataOf,
  codesOf,
  formTold,
  lettersOf,
  startOf,
  type PieceTest,
  type Front,
  type TextForm,
  type TextTest,
} from './textAutomata'
import { textStepsIn, type TextStep } from './textImages'

const PIECES = ['contains', 'starts with', 'ends with', 'matches'] as const
const asksForPiece = (name: string): name is PieceTest['kind'] => PIECES.some(piece => piece === name)
export const isPieceTest = (test: TextTest): test is PieceTest => test.kind !== 'length'

/** The test of one question's text that an expression makes; null where it makes none that is told by classes. */
export function textTestIn(expr: Expr): { code: string; tests: TextTest[] } | null {
  if (expr.kind !== 'call') return lengthTestIn(expr) ?? wholeTestIn(expr)
  const [text, piece] = expr.args
  const asked = text && textStepsIn(text)
  if (!asksForPiece(expr.name) || !asked || piece?.kind !== 'text') return null
  return { code: asked.code, tests: [{ kind: expr.name, piece: piece.value, ...madeBy(asked.steps) }] }
}

const madeBy = (steps: readonly TextStep[]): Pick<PieceTest, 'through'> =>
  steps.length > 0 ? { through: steps } : {}

/** `upper case(name) = "WR"`: where what is made of a text is compared with texts. */
function wholeTestIn(expr: Expr): { code: string; tests: TextTest[] } | null {
  const isEquality = expr.kind === 'in' || (expr.kind === 'compare' && (expr.op === '=' || expr.op === '!='))
  if (!isEquality) return null
  const children = childrenOf(expr)
  const texts = children.flatMap(e => (e.kind === 'text' ? [e.value] : []))
  const [subject] = children.filter(e => e.kind !== 'text')
  const asked = subject && textStepsIn(subject)
  if (!asked || asked.steps.length === 0 || texts.length !== children.length - 1) return null
  return { code: asked.code, tests: texts.map(piece => ({ kind: 'is', piece, through: asked.steps })) }
}

/** `string length(name) >= 3`: where the length of a text is compared with constants. */
function lengthTestIn(expr: Expr): { code: string; tests: TextTest[] } | null {
  const [subject, ...others] = sidesOf(expr)
  const code = subject && isLength(subject)
  const limits = others.flatMap(o => (o.kind === 'number' && isNumber(o.value) ? [Number(o.value)] : []))
  if (!code || limits.length < others.length) return null
  const tests = limits.flatMap((at): TextTest[] => [
    { kind: 'length', at: Math.ceil(at) },
    { kind: 'length', at: Math.floor(at) + 1 },
  ])
  return { code, tests }
}

/** What is compared, and with what. */
function sidesOf(expr: Expr): readonly Expr[] {
  if (expr.kind === 'compare') return isLength(expr.left) ? [expr.left, expr.right] : [expr.right, expr.left]
  if (expr.kind === 'between') return [expr.value, expr.low, expr.high]
  return expr.kind === 'in' ? childrenOf(expr) : []
}

const isLength = (expr: Expr): string | null =>
  expr.kind === 'call' && expr.name === 'string length' && expr.args[0]?.kind === 'name'
    ? expr.args[0].name
    : null

/** Whether a condition on one text is told by its classes: nothing else is asked of the text than what they were made for. */
export const isTextTest = (expr: Expr, code: string): boolean => {
  if (textTestIn(expr)?.code === code) return true
  if (expr.kind === 'compare')
    return [expr.left, expr.right].every(
      e => (e.kind === 'name' && e.name === code) || e.kind === 'text' || e.kind === 'null',
    )
  return (
    expr.kind === 'in' &&
    childrenOf(expr).every(
      e => (e.kind === 'name' && e.name === code) || e.kind === 'text' || e.kind === 'null',
    )
  )
}

/** Automata that are run side by side: states so many at most, lengths so long. */
const MOST_STATES = 20_000
const LONGEST = 600
const MOST_CLASSES = 300

/**
 * The classes of texts that tests tell apart, each with a shortest text of it: the reachable states of the product of one automaton for each
 * test, for the form of the answer and for “not only blanks” (Rabin and Scott 1959), searched from the empty text on, so that no class is missed.
 * @param equal texts that are named as a whole
 * @returns null when there are too many, or a pattern can't be read
 */
export function textClasses(
  tests: readonly TextTest[],
  equal: readonly string[],
  form: TextForm,
): readonly string[] | null {
  const asked = JSON.stringify([tests, equal, form])
  let classes = known.get(asked)
  if (classes === undefined) {
    classes = searched(tests, equal, form)
    if (known.size >= MOST_KNOWN) known.clear()
    known.set(asked, classes)
  }
  return classes
}

/** Most texts of a form are asked for alike, and again after every edit. */
const known = new Map<string, readonly string[] | null>()
const MOST_KNOWN = 1000

function searched(tests: readonly TextTest[], equal: readonly string[], form: TextForm): string[] | null {
  try {
    return search(tests, equal, form)
  } catch (error) {
    if (isTooLarge(error)) return null
    throw error
  }
}

function search(tests: readonly TextTest[], equal: readonly string[], form: TextForm): string[] | null {
  const { least, most, pattern, samples = [] } = form
  const automata = automataOf(tests, equal, pattern)
  if (automata === null) return null
  const { asked, all } = automata
  // From here on it does not matter how much longer a text gets.
  const cap = Math.max(least, ...tests.map(t => (t.kind === 'length' ? t.at : 0)))
  if (cap > LONGEST) return null
  const found = new Map<string, string>()
  const isForm = formTold({ asked, all }, form)
  const take = (at: Front) => {
    if (!isForm(at)) return
    const outcome = asked.map((a, i) => (a.holds(at.states[i] ?? 0, at.length) ? 1 : 0)).join('')
    if (!found.has(outcome)) found.set(outcome, at.text)
  }
  const start = startOf(all)
  for (const sample of samples) take(codesOf(sample).reduce((at, letter) => after(at, letter, all), start))
  const letters = lettersOf(all.flatMap(a => a.sets))
  const seen = new Set<string>()
  for (let front = [start]; front.length > 0; front = longer(front, all, letters, cap, seen)) {
    const [first] = front
    if (most !== undefined && first && first.length > most) break
    front.forEach(take)
    if (found.size > MOST_CLASSES || seen.size > MOST_STATES) return null
  }
  return [...found.values()]
}

/** What texts that are a letter longer lead to and was not met yet: the first way there is a shortest. */
function longer(
  front: readonly Front[],
  automata: readonly Automaton[],
  letters: readonly number[],
  cap: number,
  seen: Set<string>,
): Front[] {
  const next: Front[] = []
  for (const at of front) {
    for (const letter of letters) {
      const then = after(at, letter, automata)
      const key = `${Math.min(cap, then.length)}|${then.states.join()}`
      if (seen.has(key)) continue
      seen.add(key)
      next.push(then)
    }
    if (seen.size > MOST_STATES) break
  }
  return next
}
