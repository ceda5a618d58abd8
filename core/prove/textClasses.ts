import { isNumber } from '../expressions/decimal'
import { childrenOf, type Expr } from '../expressions/tree'

/** What conditions ask of a text: that it has a piece in it, at its start or end, or how long it is. */
export type TextTest = { kind: 'contains' | 'starts with' | 'ends with', piece: string } | { kind: 'length', at: number }
const PIECES: ReadonlySet<string> = new Set(['contains', 'starts with', 'ends with'])

/** The test of one question's text that an expression makes; null where it makes none that is told by classes. */
export function textTestIn(expr: Expr): { code: string, tests: TextTest[] } | null {
  if (expr.kind === 'call' && PIECES.has(expr.name)) {
    const [text, piece] = expr.args
    return text?.kind === 'name' && piece?.kind === 'text' ? { code: text.name, tests: [{ kind: expr.name as 'contains', piece: piece.value }] } : null
  }
  const [subject, ...others] = expr.kind === 'compare' ? (isLength(expr.left) ? [expr.left, expr.right] : [expr.right, expr.left]) : expr.kind === 'between' ? [expr.value, expr.low, expr.high] : expr.kind === 'in' ? childrenOf(expr) : []
  const code = subject && isLength(subject)
  const limits = others.flatMap(o => o.kind === 'number' && isNumber(o.value) ? [Number(o.value)] : [])
  return code && limits.length === others.length ? { code, tests: limits.flatMap(at => [{ kind: 'length' as const, at: Math.ceil(at) }, { kind: 'length' as const, at: Math.floor(at) + 1 }]) } : null
}

const isLength = (expr: Expr): string | null => expr.kind === 'call' && expr.name === 'string length' && expr.args[0]?.kind === 'name' ? expr.args[0].name : null

/** Whether a condition on one text is told by its classes: nothing else is asked of the text than what they were made for. */
export const isTextTest = (expr: Expr, code: string): boolean => {
  if (textTestIn(expr)?.code === code) return true
  if (expr.kind === 'compare') return [expr.left, expr.right].every(e => (e.kind === 'name' && e.name === code) || e.kind === 'text' || e.kind === 'null')
  return expr.kind === 'in' && childrenOf(expr).every(e => (e.kind === 'name' && e.name === code) || e.kind === 'text' || e.kind === 'null')
}

/** Automata that are run side by side: states so many at most, lengths so long. */
const MOST_STATES = 20_000
const LONGEST = 300
const MOST_CLASSES = 300

/**
 * The classes of texts that tests tell apart, each with a shortest text of it: the reachable states of the product of one automaton for each
 * test (Rabin and Scott 1959), searched from the empty text on, so that no class is missed.
 * @param equal texts that are named as a whole
 * @param isPossible whether a text can be answered
 * @returns null when there are too many
 */
export function textClasses(tests: readonly TextTest[], equal: readonly string[], least: number, most: number | undefined, isPossible: (text: string) => boolean): string[] | null {
  const automata = [...tests.map(automatonOf), ...equal.map(wholeText)]
  const letters = [...new Set([...tests.flatMap(t => t.kind === 'length' ? [] : [...t.piece]), ...equal.flatMap(e => [...e])])]
  const other = [...'xqzjkwv0123456789XQZ'].find(c => !letters.includes(c)) ?? '\u2042'
  const cap = Math.max(least, most ?? 0, ...tests.map(t => t.kind === 'length' ? t.at : 0)) + 1
  if (cap > LONGEST) return null
  const seen = new Set<string>()
  const found = new Map<string, string>()
  let front: { states: number[], text: string, length: number }[] = [{ states: automata.map(a => a.start), text: '', length: 0 }]
  while (front.length > 0) {
    const next: typeof front = []
    for (const { states, text, length } of front) {
      const told = states.map((s, i) => automata[i]?.holds(s, length) ? 1 : 0).join('')
      if (length >= least && (most === undefined || length <= most) && !found.has(told) && isPossible(text)) found.set(told, text)
      if (found.size > MOST_CLASSES) return null
      for (const letter of [other, ...letters]) {
        const longer = Math.min(cap, length + 1)
        const then = states.map((s, i) => automata[i]?.step(s, letter) ?? 0)
        const key = `${longer}|${then.join()}`
        if (seen.has(key) || (most !== undefined && longer > most)) continue
        seen.add(key)
        if (seen.size > MOST_STATES) return null
        next.push({ states: then, text: text + letter, length: longer })
      }
    }
    front = next
  }
  return [...found.values()]
}

interface Automaton { start: number, step: (state: number, letter: string) => number, holds: (state: number, length: number) => boolean }

const DEAD = -1

function automatonOf(test: TextTest): Automaton {
  if (test.kind === 'length') return { start: 0, step: s => s, holds: (_, length) => length >= test.at }
  const piece = [...test.piece]
  const found = piece.length
  if (test.kind === 'starts with') return { start: 0, step: (s, c) => s === found || s === DEAD ? s : piece[s] === c ? s + 1 : DEAD, holds: s => s === found }
  const further = (s: number, c: string): number => {
    // The longest start of the piece that the text ends with (Knuth, Morris and Pratt 1977), found anew: pieces are short.
    const tail = [...piece.slice(0, s), c]
    for (let k = Math.min(found, tail.length); k > 0; k--) if (piece.slice(0, k).join('') === tail.slice(tail.length - k).join('')) return k
    return 0
  }
  if (test.kind === 'ends with') return { start: 0, step: (s, c) => further(s, c), holds: s => s === found }
  return { start: 0, step: (s, c) => s === found ? s : further(s, c), holds: s => s === found }
}

function wholeText(text: string): Automaton {
  const letters = [...text]
  return { start: 0, step: (s, c) => s !== DEAD && letters[s] === c ? s + 1 : DEAD, holds: s => s === letters.length }
}
