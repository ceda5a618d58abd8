import { RE2JS } from 're2js'
import { setPatternEngine } from './patterns'

/** Has patterns compiled from then on. */
export const bringPatternEngine = (): void => setPatternEngine(RE2JS)
