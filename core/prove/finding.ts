import type { Span } from '../expressions/tree'
import type { RuleKind } from '../form/rules'
import { sameAnswer, type Answers } from '../form/answers'
import type { Edit } from '../form/edits'
import type { Address } from '../form/walk'

export type Severity = 'fault' | 'risk' | 'advice'

/** One of the rules (or places) that together bring a finding about. */
export interface ConflictPart {
  /** The code of the section, question, group, note or list. */
  code: string
  address: Address
  /** The kind of rule; `place` where the thing itself is meant, `limits` where its least, most, length or pattern is. */
  kind: RuleKind | 'place' | 'limits'
  index: number
}

/** A text as it is written and the place in it that is meant. */
export interface Marked extends Span {
  text: string
}

/** A section, group, question or note that a finding speaks of as well. */
export interface FoldedPlace {
  code: string
  address: Address
}

/** What the prover says about a form. */
export interface Finding {
  /** Stable kind of finding, e.g. `never-shown`. */
  code: string
  severity: Severity
  /** The code of the question, section or list; null for the whole form. */
  at: string | null
  address: Address | null
  /** The rule concerned, as `rulesOf` names it; null when there is none. */
  rule: string | null
  sentence: string
  /** A smallest set of rules that collide: none can be left out. */
  conflict: ConflictPart[]
  /** The code of the turn that it speaks of, where no rule of it is among the parts; null for all else. */
  turn: string | null
  /** A rule or a text as it is written, and the words in it that are wrong; null where no single words are. */
  marked: Marked | null
  /** What of the list at `address` is meant: rows by their position (a sample), and the column; null for all else. */
  inList: { rows: readonly number[]; column: string } | null
  /**
   * A smallest set of answers that leads to where the finding shows; null where no answers lead there. For what can never
   * be shown it is the nearest miss: it leads to its place, as many parts of its rule as can be are true together, and the
   * part that then fails is `marked`.
   */
  witness: Answers | null
  /** What can't come into play for the same reason, and has no finding of its own; in the order of the form. */
  folded: readonly FoldedPlace[]
  /** The day that `today()` is for the witness, as ISO date, where it is not the one on which was proved. */
  today: string | null
  /** The edits that mend it, where that is mechanical, and the words for the button. */
  mend: { words: string; edits: Edit[] } | null
}

/** What was decided, and how; `undecided` are findings as well. */
export interface Tally {
  rules: number
  /** Goals settled by an example that the evaluator replayed. */
  byExample: number
  /** Goals settled by a proof that no answers do it. */
  byProof: number
  undecided: number
}

export interface Verdict {
  findings: Finding[]
  tally: Tally
}

const ORDER: Record<Severity, number> = { fault: 0, risk: 1, advice: 2 }
export const bySeverity = (a: Finding, b: Finding): number => ORDER[a.severity] - ORDER[b.severity]

const COLLISIONS: ReadonlySet<string> = new Set([
  'never-shown',
  'contradicts-outer',
  'unreachable-section',
  'unreachable-finish',
  'never-taken',
  'shadowed-route',
  'never-required',
  'unmeetable-valid',
  'dead-end',
])
/** Whether the rules of a finding can't be true together; else they only have to do with it. */
export const collides = (finding: Finding): boolean => COLLISIONS.has(finding.code)
/** Whether the witness is the nearest miss: what it is about never shows, so it only leads to its place. */
export const isMiss = ({ code }: Finding): boolean => code === 'never-shown' || code === 'contradicts-outer'

/** How much is folded into a finding, in words that follow its sentence; empty when nothing is. */
export function foldedWords({ folded }: Finding): string {
  if (folded.length === 0) return ''
  return folded.length === 1 ? 'and 1 thing behind it' : `and ${folded.length} things behind it`
}

/** Whether two findings say the same, of the same place, for the same reasons. */
export const isSameFinding = (a: Finding, b: Finding): boolean =>
  a.code === b.code &&
  a.severity === b.severity &&
  a.address === b.address &&
  a.rule === b.rule &&
  a.sentence === b.sentence &&
  a.today === b.today &&
  a.mend?.words === b.mend?.words &&
  isSameBeside(a, b) &&
  sameAnswer(a.witness, b.witness) &&
  a.folded.length === b.folded.length &&
  a.conflict.length === b.conflict.length &&
  a.conflict.every((part, i) => isSamePart(part, b.conflict[i]))

/** What is shown beside them: the turn, the words that are wrong, the rows of a list. */
const isSameBeside = (a: Finding, b: Finding): boolean =>
  a.turn === b.turn && isSameMarked(a.marked, b.marked) && isSameInList(a.inList, b.inList)

const isSameMarked = (a: Marked | null, b: Marked | null): boolean =>
  a?.text === b?.text && a?.from === b?.from && a?.to === b?.to

const isSameInList = (a: Finding['inList'], b: Finding['inList']): boolean =>
  a?.column === b?.column && a?.rows.join() === b?.rows.join()

const isSamePart = (a: ConflictPart, b: ConflictPart | undefined): boolean =>
  a.address === b?.address && a.kind === b.kind && a.index === b.index
