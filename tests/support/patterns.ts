import { bringPatternEngine } from '../../core/expressions/patternEngine'

bringPatternEngine()
