import { RE2JS } from 're2js'

/** Patterns compiled before; a form has few, but a designer types many. */
const PATTERNS = new Map<string, RE2JS | null>()
const MOST_PATTERNS = 500

/** A pattern ready to match in time that grows with the text only (RE2); null when it is none. */
export function patternOf(text: string): RE2JS | null {
  const known = PATTERNS.get(text)
  if (known !== undefined) return known
  if (PATTERNS.size >= MOST_PATTERNS) PATTERNS.clear()
  let pattern: RE2JS | null = null
  try {
    pattern = RE2JS.compile(text)
  } catch {
    pattern = null // not a pattern: said by whoever asks, at its place
  }
  PATTERNS.set(text, pattern)
  return pattern
}
