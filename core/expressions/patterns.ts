import type { RE2JS } from 're2js'

/** What compiles a pattern: RE2's linear matching. Large, so that a page without patterns does without it. */
type Engine = typeof RE2JS
let engine: Engine | null = null
/** Gives the engine that patterns are compiled by; `patternEngine.ts` has one. */
export function setPatternEngine(given: Engine): void {
  engine = given
}

/** Patterns compiled before; a form has few, but a designer types many. */
const PATTERNS = new Map<string, RE2JS | null>()
const MOST_PATTERNS = 500

/**
 * A pattern ready to match in time that grows with the text only (RE2); null when it is none.
 * @throws when no engine was given: a page has to load one for a form that `asksForPatterns`
 */
export function patternOf(text: string): RE2JS | null {
  const known = PATTERNS.get(text)
  if (known !== undefined) return known
  if (engine === null) throw new Error('Patterns are asked for and their engine was not loaded.')
  if (PATTERNS.size >= MOST_PATTERNS) PATTERNS.clear()
  let pattern: RE2JS | null = null
  try {
    pattern = engine.compile(text)
  } catch {
    pattern = null // not a pattern: said by whoever asks, at its place
  }
  PATTERNS.set(text, pattern)
  return pattern
}

/** Whether a form (or a part of one) may ask for a pattern: as the form of an answer, or in a rule. */
export const asksForPatterns = (definition: unknown): boolean =>
  /"pattern":|matches\s*\(/.test(JSON.stringify(definition))
