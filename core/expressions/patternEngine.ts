import { RE2JS } from 're2js'
import { setPatternEngine } from './patterns'

// Whoever imports this has patterns from then on.
setPatternEngine(RE2JS)
