import type { Expr } from '../../expressions/tree'
import { DONE, type Turn } from '../../form/turns'
import type { Plan } from '../../fill/planned'
import type { Place } from '../../form/walk'
import { accessViewOf, mayFill, maySee } from '../../parties/access'
import { orderInForm } from './entryCodes'
import type { ReadRule } from './readRule'

/** Where a hand-off leads: a turn by its position, or the end of all. */
export type HandOffTarget = number | typeof DONE

export interface PlannedHandOff {
  /** The rule; null where there is none, so that it always applies. */
  rule: ReadRule | null
  to: HandOffTarget
  /** Its position among the hand-offs of its turn; after all of them for the turn that follows anyway. */
  at: number
}

/** A turn with what it may do, and its hand-offs in order; the last always applies. */
export interface PlannedTurn {
  turn: Turn
  index: number
  fills: (place: Place) => boolean
  /** Whether it sees a section. */
  sees: (section: number) => boolean
  handOffs: readonly PlannedHandOff[]
}

/** The turns of a form; none in a form without turns. */
export function planTurns(plan: Plan, rules: readonly ReadRule[]): PlannedTurn[] {
  const turns = plan.form.turns ?? []
  const read = rules.filter(r => r.kind === 'handOff')
  const sections = plan.places.filter(p => p.kind === 'section')
  let ruled = -1
  return turns.map((turn, index): PlannedTurn => {
    const view = accessViewOf(plan.form, plan.places, turn)
    const handOffs = (turn.handOff ?? []).flatMap(({ when, to }, position): PlannedHandOff[] => {
      ruled += 1
      const rule = read.find(r => r.index === ruled) ?? null
      const at = turns.findIndex(t => t.code === to)
      if (to !== DONE && at < 0) return []
      // A condition that can't be read is never true.
      if (when !== undefined && !rule?.expr) return []
      return [{ rule: when === undefined ? null : rule, to: to === DONE ? DONE : at, at: position }]
    })
    const next = index + 1 < turns.length ? index + 1 : DONE
    return {
      turn,
      index,
      // A copy of an entry is filled like the entries of the form.
      fills: place => mayFill(view, { ...place, order: orderInForm(place.order) }),
      sees: section => sections.some(p => p.section === section && maySee(view, p)),
      handOffs: untilCertain([...handOffs, { rule: null, to: next, at: turn.handOff?.length ?? 0 }]),
    }
  })
}

/** The first hand-off without a condition hides those below it. */
function untilCertain(handOffs: readonly PlannedHandOff[]): readonly PlannedHandOff[] {
  const certain = handOffs.findIndex(h => h.rule === null)
  return handOffs.slice(0, certain + 1)
}

/** The turns that see a section; all of them where none does, which other findings speak of. */
export function seeing(turns: readonly PlannedTurn[], section: number): readonly PlannedTurn[] {
  const seen = turns.filter(t => t.sees(section))
  return seen.length > 0 ? seen : turns
}

/** The conditions that decide whose turn is next. */
export const handOffConditions = (turns: readonly PlannedTurn[]): Expr[] =>
  turns.flatMap(t => t.handOffs.flatMap(h => h.rule?.expr ?? []))

/** Whether a hand-off of a later turn leads back to this one or to one before it: then later turns may have acted already. */
export const isReturnedTo = (turns: readonly PlannedTurn[], index: number): boolean =>
  turns.some(t => t.index >= index && t.handOffs.some(h => h.to !== DONE && h.to <= index))
