import type { RuleKind } from '../../form/rules'
import type { Address } from '../../form/walk'

/** One of the rules (or places) that together bring a finding about. */
export interface ConflictPart {
  /** The code of the section, question, group, note or list. */
  code: string
  address: Address
  /** The kind of rule, or `place` where the thing itself is meant. */
  kind: RuleKind | 'place'
  index: number
}
