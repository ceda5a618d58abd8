import { patternOf } from '../../expressions/patterns'
import { isIn, isTooLarge, textPattern, type Automaton, type Letters, type TextPattern } from './regularText'
import { throughSteps, type TextStep } from './textImages'

/** What conditions ask of a text: that it has a piece in it, at its start or end, that it matches a pattern, is another text, or how long it is. */
export type TextTest = PieceTest | { kind: 'length'; at: number }
export interface PieceTest {
  kind: 'contains' | 'starts with' | 'ends with' | 'matches' | 'is'
  piece: string
  /** What is made of the answer before; it is asked of the answer itself where nothing stands here. */
  through?: readonly TextStep[]
}

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

export interface Front {
  states: number[]
  text: string
  length: number
}

export const startOf = (automata: readonly Automaton[]): Front => ({
  states: automata.map(a => a.start),
  text: '',
  length: 0,
})

export const after = (
  { states, text, length }: Front,
  letter: number,
  automata: readonly Automaton[],
): Front => ({
  states: states.map((s, i) => automata[i]?.step(s, letter) ?? 0),
  text: text + String.fromCodePoint(letter),
  length: length + 1,
})

/** The automata of what is asked, and with them those of the form of the answer. */
export interface Automata {
  asked: readonly Automaton[]
  all: readonly Automaton[]
}

/** The automata of some tests, those that decide an outcome in front; null where a pattern can't be told by one. */
export function automataOf(
  tests: readonly TextTest[],
  equal: readonly string[],
  pattern: string | undefined,
): Automata | null {
  const form = pattern === undefined || patternOf(pattern) === null ? null : textPattern(pattern, true)
  if (pattern !== undefined && form === null && patternOf(pattern) !== null) return null
  const made = tests.map(automatonOf)
  const asked = made.filter(a => a !== null)
  if (asked.length < made.length) return null
  asked.push(...equal.map(wholeText))
  return { asked, all: [...asked, NOT_BLANK, ...(form ? [fromPattern(form)] : [])] }
}

/** Whether a text that was read by automata has the form of an answer. */
export const formTold =
  ({ asked, all }: Automata, { least, most }: TextForm) =>
  ({ states, length }: Front): boolean =>
    length >= least &&
    (most === undefined || length <= most) &&
    all.slice(asked.length).every((a, i) => a.holds(states[asked.length + i] ?? 0, length))

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
/** Half of a pair, which is no letter by itself. */
const SURROGATES: Letters = [[0xd800, 0xdfff]]
/** Letters that read well stand for the others of their kind, these first. */
const PREFERRED = [...'xqzjkwvabcdefghilmnoprstuy0123456789XQZABCDEFGHIJKLMNOPRSTUVWY-_. @+/()é中']

/** One letter for every way of lying in the sets or not. */
export function lettersOf(sets: readonly Letters[]): number[] {
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
export const codesOf = (text: string): number[] => [...text].map(l => l.codePointAt(0) ?? 0)
const setsOf = (letters: readonly number[]): Letters[] => letters.map(l => [[l, l]])

/** The automaton of a test; null where none tells it. */
function automatonOf(test: TextTest): Automaton | null {
  if (test.kind === 'length')
    return { start: 0, step: s => s, holds: (_, length) => length >= test.at, sets: [] }
  const asked = automatonOfPiece(test)
  return asked && throughSteps(asked, test.through ?? [])
}

function automatonOfPiece(test: PieceTest): Automaton | null {
  if (test.kind === 'is') return wholeText(test.piece)
  if (test.kind === 'matches') {
    const pattern = patternOf(test.piece) && textPattern(test.piece, false)
    return pattern && fromPattern(pattern)
  }
  const piece = codesOf(test.piece)
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
    // The longest start of the piece that the text ends with (Knuth, Morris and Pratt 1977).
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
  const letters = codesOf(text)
  return {
    start: 0,
    step: (s, c) => (s !== DEAD && letters[s] === c ? s + 1 : DEAD),
    holds: s => s === letters.length,
    sets: setsOf(letters),
  }
}

/** How a test of a text turns out; null where no automaton tells it. */
export function outcomeOf(test: TextTest, text: string): boolean | null {
  const automaton = automatonOf(test)
  if (automaton === null) return null
  try {
    const { states, length } = codesOf(text).reduce(
      (at, letter) => after(at, letter, [automaton]),
      startOf([automaton]),
    )
    return automaton.holds(states[0] ?? 0, length)
  } catch (error) {
    if (isTooLarge(error)) return null
    throw error
  }
}
