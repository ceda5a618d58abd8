import type { Rule } from '../../form/rules'
import type { RuleReading } from '../../form/scope'

/** A rule with what was read of it; `expr` is null when it can't be used. */
export type ReadRule = Rule & RuleReading
