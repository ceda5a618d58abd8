import type { Compiled, Environment } from '../expressions/compiled'
import type { Expr } from '../expressions/tree'
import type { Answer } from '../form/answers'
import type { Closing, Form } from '../form/definition'
import type { OfferedRow } from '../form/rows'
import type { FormNames, RuleReading } from '../form/scope'
import type { AnswerReading, Offer } from './answerReading'
import type { GroupPlace, Place, PlaceOf } from '../form/walk'
import type { ListIndex } from '../lists/listIndex'
import type { Narrowing } from '../lists/narrow'

/** A condition or calculation ready to run. One with an error is never true and never false: it is unknown. */
export interface PlannedRule {
  run: Compiled
  expr: Expr | null
  reading: RuleReading
}
/** A check, or a limit that is worked out; `kind` and `index` are those of its rule. `message` may quote, unless it is the form's own word for a built-in one. */
export interface PlannedCheck extends PlannedRule {
  kind: 'validWhen' | 'bound'
  index: number
  message: string
  quotes: boolean
}
export type Lock = true | PlannedRule | null

/** A skip that leads somewhere: while it is taken, what it passes over is out of play. */
export interface PlannedSkip {
  /** The question that it leads on from; in an entry, of that entry. */
  from: Place
  /** Its place among the question's skips as written. */
  index: number
  when: PlannedRule | null
  /** The section where it goes on; the number of sections stands for the finish. */
  target: number
  /** What is passed over: the places between the question and this one. */
  before: number
  /** The skips of the same question that come first. */
  above: readonly PlannedSkip[]
}

/** Steps are written out field by field, not spread: objects of one shape keep the engine's loop fast. */
export interface PlannedPlace {
  is: 'plain' | 'question' | 'entries'
  place: Place
  shown: PlannedRule | null
  /** The skips that can pass over it, where they don't pass over what stands around it as well. */
  skips: readonly PlannedSkip[]
  readOnly: Lock
  checks: readonly PlannedCheck[]
  /** The place of the group around it, or -1; in a repeating group's entry, of the group around it there. */
  parent: number
}

/** Which rows a choice offers: all of them, unless rules of options or a narrowing take some away. */
export interface PlannedOffer {
  index: ListIndex
  rows: ReadonlyMap<string, OfferedRow>
  narrow: PlannedRule | null
  /** The codes that the narrowing leaves. */
  narrowed: Narrowing | null
  /** By row, in the order of `rows`: the option's own rule. */
  rules: readonly (PlannedRule | null)[] | null
  /** The only row left is chosen unasked. */
  onlyOne: boolean
}

export interface PlannedQuestion extends PlannedPlace {
  is: 'question'
  place: PlaceOf<'question'>
  slot: number
  /** The slot of the text written in; -1 where there is none. */
  otherSlot: number
  /** When a value is demanded; `said`: when something has to be said, if only that the question does not apply. */
  required: Lock
  said: Lock
  default: PlannedRule | null
  value: PlannedRule | null
  offer: PlannedOffer | null
  read: (answer: Answer, offer: Offer) => AnswerReading
  /** The answer read last: while one question is typed in, all others are read for nothing. */
  last: { answer: Answer; offered: Offer['offered']; reading: AnswerReading }
}

/** A repeating group: its entries are filled one by one with the same slots, and stand as a list in its own. */
export interface PlannedGroup extends PlannedPlace {
  is: 'entries'
  place: GroupPlace
  slot: number
  min: number
  max: number
  steps: readonly Step[]
  /** Everything inside, at any depth. */
  inner: readonly Step[]
  /** The slots and places inside: `from` to `to`, `to` exclusive. */
  slots: { from: number; to: number }
  orders: { from: number; to: number }
}
export type Step = PlannedPlace | PlannedQuestion | PlannedGroup

/** A route that leads somewhere; `index` is its place among the section's routes as written. */
export interface PlannedRoute {
  when: PlannedRule | null
  target: number
  index: number
  closing: string | null
}
export interface PlannedSection {
  place: PlaceOf<'section'>
  shown: PlannedRule | null
  readOnly: Lock
  checks: readonly PlannedCheck[]
  /** What stands in it outside of repeating groups, ordered so that everything comes after what its rules name. */
  steps: readonly Step[]
  /** Everything in it, the insides of repeating groups too. */
  all: readonly Step[]
  questions: readonly PlannedQuestion[]
  routes: readonly PlannedRoute[]
  /** The skips that lead out of it, in the order of the form: they come before its routes. */
  exits: readonly PlannedSkip[]
}
export interface PlannedClosing {
  closing: Closing
  when: PlannedRule | null
}

/** A form made ready for filling: every rule compiled, every question with its slot. */
export interface Plan {
  form: Form
  places: readonly Place[]
  sections: readonly PlannedSection[]
  /** Every skip that leads somewhere, in the order of the form. */
  skips: readonly PlannedSkip[]
  /** Every question, those asked once per entry too. */
  questions: readonly PlannedQuestion[]
  byCode: ReadonlyMap<string, PlannedQuestion>
  groups: ReadonlyMap<string, PlannedGroup>
  closings: readonly PlannedClosing[]
  /** The conditions of the promises, in order. */
  promises: readonly PlannedRule[]
  names: FormNames
  environment: Environment
  /** How many slots there are. */
  size: number
  /** Something may be read-only, so that locks have to be worked out. */
  locks: boolean
}
