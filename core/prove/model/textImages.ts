import { isNumber } from '../../expressions/decimal'
import type { Expr, ExprOf } from '../../expressions/tree'
import { isIn, type Automaton, type Letters } from './regularText'

/** What is made of a text before something is asked of it: other letters, or a part, counted in characters from 1. */
export type TextStep =
  { make: 'upper case' | 'lower case' } | { make: 'substring'; from: number; length: number | null }

/** A question's text behind functions that make texts of it, those that are run first in front; null where it is no such expression. */
export function textStepsIn(expr: Expr): { code: string; steps: readonly TextStep[] } | null {
  if (expr.kind === 'name') return { code: expr.name, steps: [] }
  if (expr.kind !== 'call') return null
  const [subject, ...others] = expr.args
  const inner = subject && textStepsIn(subject)
  const step = inner ? stepOf(expr, others) : null
  return inner && step ? { code: inner.code, steps: [...inner.steps, step] } : null
}

function stepOf({ name }: ExprOf<'call'>, others: readonly Expr[]): TextStep | null {
  if (name === 'upper case' || name === 'lower case') return { make: name }
  const [from, length] = others.map(wholeNumber)
  if (name !== 'substring' || !from || from < 1) return null
  if (others.length === 1) return { make: 'substring', from, length: null }
  return typeof length === 'number' && length >= 0 ? { make: 'substring', from, length } : null
}

function wholeNumber(expr: Expr): number | null {
  const value = expr.kind === 'number' && isNumber(expr.value) ? Number(expr.value) : null
  return Number.isInteger(value) ? value : null
}

/**
 * The automaton of what is asked of the text that steps make: regular languages are closed under inverse homomorphisms (Hopcroft and Ullman 1979,
 * theorem 3.5), and a part is told by counting up to it.
 * @returns null for small Greek sigma, which stands otherwise at the end of a word
 */
export function throughSteps(asked: Automaton, steps: readonly TextStep[]): Automaton | null {
  return steps.reduceRight<Automaton | null>((of, step) => of && before(of, step), asked)
}

function before(of: Automaton, step: TextStep): Automaton | null {
  if (step.make === 'substring') return ofPart(of, step.from, step.length)
  if (step.make === 'lower case' && of.sets.some(tellsSigmas)) return null
  return withLetters(of, casesOf(step.make))
}

const SIGMAS = [0x3a3, 0x3c2, 0x3c3]
const tellsSigmas = (letters: Letters) => new Set(SIGMAS.map(s => isIn(letters, s))).size > 1

/** Each letter read as those that it becomes. */
function withLetters(of: Automaton, becomes: ReadonlyMap<number, readonly number[]>): Automaton {
  return {
    start: of.start,
    step: (state, letter) => (becomes.get(letter) ?? [letter]).reduce((at, made) => of.step(at, made), state),
    holds: of.holds,
    get sets() {
      return [...of.sets.map(set => lettersInto(set, becomes)), ...expandedIn(becomes)]
    },
  }
}

/** The letters that become one of a set. */
function lettersInto(set: Letters, becomes: ReadonlyMap<number, readonly number[]>): Letters {
  const into: (readonly [number, number])[] = []
  for (const [low, high] of set) {
    let from = low
    for (const letter of lettersWithin(becomes, low, high)) {
      if (from < letter) into.push([from, letter - 1])
      from = letter + 1
    }
    if (from <= high) into.push([from, high])
  }
  for (const [letter, [made, ...more]] of becomes)
    if (made !== undefined && more.length === 0 && isIn(set, made)) into.push([letter, letter])
  return into
}

function lettersWithin(becomes: ReadonlyMap<number, readonly number[]>, low: number, high: number): number[] {
  if (high - low < becomes.size)
    return Array.from({ length: high - low + 1 }, (_, i) => low + i).filter(l => becomes.has(l))
  return [...becomes.keys()].filter(letter => low <= letter && letter <= high)
}

/** Letters that become several are told from all others. */
const expandedIn = (becomes: ReadonlyMap<number, readonly number[]>): Letters[] =>
  [...becomes].filter(([, made]) => made.length > 1).map(([letter]) => [[letter, letter]])

/** Letters that change their case lie below this one (Unicode Character Database, UnicodeData.txt and SpecialCasing.txt). */
const LETTERS_WITH_CASE = 0x20000
const cases = new Map<string, ReadonlyMap<number, readonly number[]>>()

/** The letters that change, in order, each with what it becomes. */
function casesOf(make: 'upper case' | 'lower case'): ReadonlyMap<number, readonly number[]> {
  const known = cases.get(make)
  if (known) return known
  const becomes = new Map<number, readonly number[]>()
  for (let letter = 0; letter < LETTERS_WITH_CASE; letter++) {
    const text = String.fromCodePoint(letter)
    const made = make === 'upper case' ? text.toUpperCase() : text.toLowerCase()
    if (made !== text)
      becomes.set(
        letter,
        [...made].map(l => l.codePointAt(0) ?? 0),
      )
  }
  cases.set(make, becomes)
  return becomes
}

/** What is asked of a part: letters before it are only counted, those behind it don't count. */
function ofPart(of: Automaton, from: number, length: number | null): Automaton {
  const ends = length === null ? Infinity : from - 1 + length
  // A state is how many letters were read, as far as that tells, and the state within the part.
  const last = length === null ? from - 1 : ends
  const states: (readonly [number, number])[] = []
  const numbers = new Map<string, number>()
  const numberOf = (read: number, inner: number): number => {
    const key = `${read}|${inner}`
    const known = numbers.get(key)
    if (known !== undefined) return known
    numbers.set(key, states.length)
    return states.push([read, inner]) - 1
  }
  const innerOf = (state: number) => states[state]?.[1] ?? of.start
  return {
    start: numberOf(0, of.start),
    step: (state, letter) => {
      const [read, inner] = states[state] ?? [0, of.start]
      const isInside = read >= from - 1 && read < ends
      return numberOf(Math.min(last, read + 1), isInside ? of.step(inner, letter) : inner)
    },
    holds: (state, count) => of.holds(innerOf(state), count),
    get sets() {
      return of.sets
    },
  }
}
