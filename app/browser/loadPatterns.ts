import { asksForPatterns } from '#core/expressions/patterns'

/** Loads what compiles patterns, if a form asks for any. */
export async function loadPatternsFor(definition: unknown): Promise<void> {
  if (!asksForPatterns(definition)) return
  const { bringPatternEngine } = await import('#core/expressions/patternEngine')
  bringPatternEngine()
}
