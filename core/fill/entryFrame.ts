import type { Frame, KeptEntry } from './frame'
import type { PlannedGroup, PlannedSection } from './planned'
import { isQuestion, isRepeating } from './steps'

/** How far a response was filled when an entry was: later slots and places were blank then. */
export interface Until {
  slots: number
  orders: number
}

/** What is known of an entry once it is worked out. */
interface Entry {
  group: PlannedGroup
  kept: KeptEntry
  /** By slot of the group's inside: an answer is required now. */
  required: readonly boolean[]
  entries: Frame['entries']
}

/**
 * An entry of a repeating group as a frame of its own. What stands around it is put in place when it is looked at first: most entries never
 * are, and a copy of everything for each would make long forms slow.
 */
export function entryFrame(
  outer: Frame,
  { group: { slots, orders }, kept, required, entries }: Entry,
  until: Until,
): Frame {
  const values = once(() => around(outer.values, null, kept.values, slots.from, until.slots))
  const inPlay = once(() => around(outer.inPlay, false, kept.inPlay, orders.from, until.orders))
  const needed = once(() => around(outer.required, false, required, slots.from, until.slots))
  const locked = once(() => around(outer.locked, false, kept.locked, orders.from, until.orders))
  return {
    plan: outer.plan,
    get values() {
      return values()
    },
    get inPlay() {
      return inPlay()
    },
    get required() {
      return needed()
    },
    get locked() {
      return locked()
    },
    wrong: kept.wrong,
    given: kept.given,
    offered: kept.offered,
    lost: kept.lost,
    entries,
  }
}

/** Where a section ends: the first slot and place behind it. */
export function endOf({ place, all }: PlannedSection): Until {
  const until = { slots: 0, orders: place.order + 1 }
  for (const step of all) {
    until.orders = Math.max(until.orders, step.place.order + 1)
    if (isQuestion(step)) until.slots = Math.max(until.slots, step.slot + 1, step.otherSlot + 1)
    else if (isRepeating(step)) until.slots = Math.max(until.slots, step.slot + 1, step.slots.to)
  }
  return until
}

/** Makes something when it is asked for first. */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

/** What stands outside of an entry as far as it was filled, with the entry's own in its place; `blank` behind. */
function around<T>(outer: readonly T[], blank: T, own: readonly T[], from: number, until: number): T[] {
  const whole = [...outer]
  whole.fill(blank, until)
  own.forEach((value, i) => {
    whole[from + i] = value
  })
  return whole
}
