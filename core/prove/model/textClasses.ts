import { isNumber } from '../../expressions/decimal'
import { patternOf } from '../../expressions/patterns'
import { childrenOf, type Expr } from '../../expressions/tree'
import { isTooLarge, textPattern, type Letters, type TextPattern } from './regularText'

/** What conditions ask of a text: that it has a piece in it, at its start or end, that it matches a pattern, or how long it is. */
export type TextTest =
  | { kind: 'contains' | 'starts with' | 'ends with' | 'matches'; piece: string }
  | { kind: 'length'; at: number }
const PIECES = ['contains', 'starts with', 'ends with', 'matches'] as const
const isPieceTest = (name: string): name is (typeof PIECES)[number] => PIECES.some(piece => piece === name)

/** The test of one question's text that an expression makes; null where it makes none that is told by classes. */
export function textTestIn(expr: Expr): { code: string; tests: TextTest[] } | null {
  if (expr.kind !== 'call') return lengthTestIn(expr)
  const [text, piece] = expr.args
  if (!isPieceTest(expr.name) || text?.kind !== 'name' || piece?.kind !== 'text') return null
  return { code: text.name, tests: [{ kind: expr.name, piece: piece.value }] }
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

/** The texts that can be answered. */
export interface TextForm {
  /** In characters (code points). */
  least: number
  most: number | undefined
  /** The pattern that the whole text has to match. */
  pattern?: string | undefined
  /** Texts that read well, to stand for their classes. */
  samples?: readonly string[]
}

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

interface Front {
  states: number[]
  text: string
  length: number
}

/** The automata of some tests, those that decide an outcome in front; null where a pattern can't be told by one. */
function automataOf(
  tests: readonly TextTest[],
  equal: readonly string[],
  pattern: string | undefined,
): { asked: Automaton[]; all: Automaton[] } | null {
  const form = pattern === undefined || patternOf(pattern) === null ? null : textPattern(pattern, true)
  if (pattern !== undefined && form === null && patternOf(pattern) !== null) return null
  const made = tests.map(automatonOf)
  const asked = made.filter(a => a !== null)
  if (asked.length < made.length) return null
  asked.push(...equal.map(wholeText))
  return { asked, all: [...asked, NOT_BLANK, ...(form ? [fromPattern(form)] : [])] }
}

function search(
  tests: readonly TextTest[],
  equal: readonly string[],
  { least, most, pattern, samples = [] }: TextForm,
): string[] | null {
  const automata = automataOf(tests, equal, pattern)
  if (automata === null) return null
  const { asked, all } = automata
  // From here on it does not matter how much longer a text gets.
  const cap = Math.max(least, ...tests.map(t => (t.kind === 'length' ? t.at : 0)))
  if (cap > LONGEST) return null
  const found = new Map<string, string>()
  const isForm = ({ states, length }: Front) =>
    length >= least &&
    (most === undefined || length <= most) &&
    all.slice(asked.length).every((a, i) => a.holds(states[asked.length + i] ?? 0, length))
  const take = (at: Front) => {
    if (!isForm(at)) return
    const outcome = asked.map((a, i) => (a.holds(at.states[i] ?? 0, at.length) ? 1 : 0)).join('')
    if (!found.has(outcome)) found.set(outcome, at.text)
  }
  const start: Front = { states: all.map(a => a.start), text: '', length: 0 }
  for (const sample of samples) take(codes(sample).reduce((at, letter) => after(at, letter, all), start))
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

const after = ({ states, text, length }: Front, letter: number, automata: readonly Automaton[]): Front => ({
  states: states.map((s, i) => automata[i]?.step(s, letter) ?? 0),
  text: text + String.fromCodePoint(letter),
  length: length + 1,
})

/** What `trim()` takes for blank (ECMAScript, WhiteSpace and LineTerminator). */
const BLANKS: Letters = [
  [9, 13],
  [0x20, 0x20],
  [0xa0, 0xa0],
  [0x1680, 0x1680],
  [0x2000, 0x200a],
  [0x2028, 0x2029],
  [0x202f, 0x202f],
  [0x205f, 0x205f],
  [0x3000, 0x3000],
  [0xfeff, 0xfeff],
]
const isIn = (letters: Letters, letter: number) =>
  letters.some(([low, high]) => low <= letter && letter <= high)
/** Half of a pair, which is no letter by itself. */
const SURROGATES: Letters = [[0xd800, 0xdfff]]
/** Letters that read well stand for the others of their kind, these first. */
const PREFERRED = [...'xqzjkwvabcdefghilmnoprstuy0123456789XQZABCDEFGHIJKLMNOPRSTUVWY-_. @+/()é中']

/** One letter for every way of lying in the sets or not. */
function lettersOf(sets: readonly Letters[]): number[] {
  const told = [...sets, BLANKS, SURROGATES]
  const cuts = told.flatMap(s => s.flatMap(([low, high]) => [low, high + 1]))
  const found = new Map<string, number>()
  for (const letter of [...PREFERRED.map(l => l.codePointAt(0) ?? 0), 0, ...cuts]) {
    if (letter > 0x10ffff || isIn(SURROGATES, letter)) continue
    const key = told.map(s => (isIn(s, letter) ? 1 : 0)).join('')
    if (!found.has(key)) found.set(key, letter)
  }
  return [...found.values()]
}

interface Automaton {
  start: number
  step: (state: number, letter: number) => number
  holds: (state: number, length: number) => boolean
  sets: readonly Letters[]
}

const DEAD = -1
const NOT_BLANK: Automaton = {
  start: 0,
  step: (s, c) => (s === 1 || !isIn(BLANKS, c) ? 1 : 0),
  holds: s => s === 1,
  sets: [],
}
const fromPattern = (pattern: TextPattern): Automaton => ({
  start: pattern.start,
  step: pattern.step,
  holds: pattern.accepts,
  sets: pattern.sets,
})
const codes = (text: string): number[] => [...text].map(l => l.codePointAt(0) ?? 0)
const setsOf = (letters: readonly number[]): Letters[] => letters.map(l => [[l, l]])

/** The automaton of a test; null for a pattern that can't be read. */
function automatonOf(test: TextTest): Automaton | null {
  if (test.kind === 'length')
    return { start: 0, step: s => s, holds: (_, length) => length >= test.at, sets: [] }
  if (test.kind === 'matches') {
    const pattern = patternOf(test.piece) && textPattern(test.piece, false)
    return pattern && fromPattern(pattern)
  }
  const piece = codes(test.piece)
  const found = piece.length
  const sets = setsOf(piece)
  if (test.kind === 'starts with')
    return {
      start: 0,
      step: (s, c) => {
        if (s === found || s === DEAD) return s
        return piece[s] === c ? s + 1 : DEAD
      },
      holds: s => s === found,
      sets,
    }
  const further = (s: number, c: number): number => {
    // The longest start of the piece that the text ends with (Knuth, Morris and Pratt 1977), found anew: pieces are short.
    const tail = [...piece.slice(0, s), c]
    for (let k = Math.min(found, tail.length); k > 0; k--)
      if (piece.slice(0, k).join() === tail.slice(tail.length - k).join()) return k
    return 0
  }
  if (test.kind === 'ends with')
    return { start: 0, step: (s, c) => further(s, c), holds: s => s === found, sets }
  return { start: 0, step: (s, c) => (s === found ? s : further(s, c)), holds: s => s === found, sets }
}

function wholeText(text: string): Automaton {
  const letters = codes(text)
  return {
    start: 0,
    step: (s, c) => (s !== DEAD && letters[s] === c ? s + 1 : DEAD),
    holds: s => s === letters.length,
    sets: setsOf(letters),
  }
}
