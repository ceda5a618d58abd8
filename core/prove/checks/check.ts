import type { Form } from '../../form/definition'
import { placeName, type Place } from '../../form/walk'
import type { Finding, Severity, ConflictPart } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { dayOf } from '../goals/witness'

/** A check of the prover: what it is called, how bad its findings are, and how they are found. */
export interface Check {
  /** The code of its findings. */
  code: string
  severity: Severity
  /** What it says, in plain words, for the documentation. */
  about: string
  /** A form that it speaks of, and one that is like it and in order. */
  raises: Form
  spares: Form
  /** The codes of the checks that must have run before: it rests on what they established. */
  needs?: readonly string[]
  /** Gives its findings one by one; null in between lets others in. */
  run: (inquiry: Inquiry) => Iterable<Finding | null>
}

/** Looks at things one after the other, letting others in after each. */
export function* lookAtEach<T>(
  things: Iterable<T>,
  look: (thing: T) => readonly Finding[],
): Generator<Finding | null> {
  for (const thing of things) {
    yield* look(thing)
    yield null
  }
}

/** What a check finds, all at once. */
export const findingsOf = (check: Check, inquiry: Inquiry): Finding[] =>
  [...runCheck(check, inquiry)].filter(f => f !== null)

/** Runs a check: what it reads of others' results is what it says it needs. */
export function* runCheck(check: Check, inquiry: Inquiry): Generator<Finding | null> {
  inquiry.facts.readAs(check)
  yield* check.run(inquiry)
  inquiry.facts.readAs(null)
}

/** A finding about a place, with the parts that most findings leave out. */
export function finding(
  check: Pick<Check, 'code' | 'severity'>,
  place: Place | null,
  sentence: string,
  more: Partial<Finding> = {},
): Finding {
  return {
    code: check.code,
    severity: check.severity,
    at: place?.code ?? null,
    address: place?.address ?? null,
    rule: null,
    sentence,
    conflict: [],
    turn: null,
    marked: null,
    inList: null,
    witness: null,
    folded: [],
    mend: null,
    ...more,
    today: dayOf(more.witness ?? null),
  }
}

/** How a place is called in a sentence: “Hull material”. */
export const quotedName = (place: Place): string => `“${placeName(place)}”`
export const partAt = (place: Place, kind: ConflictPart['kind'] = 'place', index = 0): ConflictPart => ({
  code: place.code,
  address: place.address,
  kind,
  index,
})
