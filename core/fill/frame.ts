import type { Value } from '../expressions/types'
import type { Answer } from '../form/answers'
import type { Standing } from '../form/standing'
import type { Plan, PlannedGroup } from './planned'

/**
 * What follows from the answers at one level: the response itself, or one entry of a repeating group, whose values then stand in the
 * slots of the questions inside. Arrays are by slot or by place order.
 */
export interface Frame {
  plan: Plan
  /** The values that rules see, by slot; not in play is blank. */
  values: readonly Value[]
  /** By place order: reached, and shown by its own rule and by every rule around it. Inside a repeating group, seen from outside: in any entry. */
  inPlay: readonly boolean[]
  /** By slot: an answer is required now. */
  required: readonly boolean[]
  /** By place order: the answer can't be changed now. */
  locked: readonly boolean[]
  /** By slot: what is wrong with an answer's type or limits. */
  wrong: ReadonlyMap<number, string>
  /** By slot: the answer as it is kept, where the value alone does not tell it. */
  given: ReadonlyMap<number, Answer>
  /** By slot: the codes on offer, where not all are. */
  offered: ReadonlyMap<number, ReadonlySet<string>>
  /** By slot: chosen codes that are no longer on offer, and so blank. */
  lost: ReadonlyMap<number, readonly string[]>
  /** By place order of a repeating group: its entries. */
  entries: ReadonlyMap<number, readonly Frame[]>
}

/** A response at one moment. */
export interface Filled extends Frame {
  /** The day on which it was begun, as ISO date, and what standing values are in it. */
  today: string
  standing: Standing
  /** The sections that are reached and shown, in order. */
  path: readonly number[]
  /** The code of the closing that the route taken to the finish names. */
  closing: string | null
}

/** A frame while it is worked out. */
export interface OpenFrame extends Frame {
  values: Value[]
  inPlay: boolean[]
  required: boolean[]
  locked: boolean[]
  wrong: Map<number, string>
  given: Map<number, Answer>
  offered: Map<number, ReadonlySet<string>>
  lost: Map<number, readonly string[]>
  entries: Map<number, readonly Frame[]>
}

export function emptyFrame(plan: Plan): OpenFrame {
  const { length } = plan.places
  return {
    plan,
    values: new Array<Value>(plan.size).fill(null),
    inPlay: new Array<boolean>(length).fill(false),
    required: new Array<boolean>(plan.size).fill(false),
    locked: new Array<boolean>(length).fill(false),
    wrong: new Map(),
    given: new Map(),
    offered: new Map(),
    lost: new Map(),
    entries: new Map(),
  }
}

/** The inside of one entry, kept while the next is worked out in the same slots. */
export interface KeptEntry extends Pick<
  OpenFrame,
  'values' | 'inPlay' | 'locked' | 'wrong' | 'given' | 'offered' | 'lost'
> {
  /** Entries of groups inside this one, by place order. */
  kept: Map<number, KeptEntry[]>
}

/** Puts the inside of a repeating group back to blank. */
export function clearInside(frame: OpenFrame, { slots, orders }: PlannedGroup) {
  frame.values.fill(null, slots.from, slots.to)
  frame.required.fill(false, slots.from, slots.to)
  frame.inPlay.fill(false, orders.from, orders.to)
  frame.locked.fill(false, orders.from, orders.to)
}

export function keepInside(
  frame: OpenFrame,
  { slots, orders }: PlannedGroup,
  kept: KeptEntry['kept'],
): KeptEntry {
  return {
    values: frame.values.slice(slots.from, slots.to),
    inPlay: frame.inPlay.slice(orders.from, orders.to),
    locked: frame.locked.slice(orders.from, orders.to),
    wrong: frame.wrong,
    given: frame.given,
    offered: frame.offered,
    lost: frame.lost,
    kept,
  }
}

export function restoreInside(frame: OpenFrame, { slots, orders }: PlannedGroup, entry: KeptEntry) {
  const put = <T>(into: T[], from: number, values: readonly T[]) =>
    values.forEach((v, i) => {
      into[from + i] = v
    })
  put(frame.values, slots.from, entry.values)
  put(frame.inPlay, orders.from, entry.inPlay)
  put(frame.locked, orders.from, entry.locked)
}
