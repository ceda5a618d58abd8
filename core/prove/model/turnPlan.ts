import type { Expr } from '../../expressions/tree'
import { replaceParts } from '../../expressions/replace'
import type { Form } from '../../form/definition'
import { DONE, type Turn } from '../../form/turns'
import type { Plan } from '../../fill/planned'
import type { Place } from '../../form/walk'
import { accessViewOf, mayFill, maySee } from '../../parties/access'
import { handsOffFor, leaderOf } from '../../form/alongside'
import { laterNamesOf, namesBehind } from '../../parties/handOffNames'
import { orderInForm } from './entryCodes'
import type { ReadRule } from './readRule'
import { HERE } from './rewritten'

/** Where a hand-off leads: a turn by its position, or the end of all. */
export type HandOffTarget = number | typeof DONE

export interface PlannedHandOff {
  /** The rule; null where there is none, so that it always applies. */
  rule: ReadRule | null
  to: HandOffTarget
  /** It asks for what later turns may have changed since: it may have been true or not. */
  isUnsure: boolean
  /** Its position among the hand-offs of its turn; after all of them for the turn that follows anyway. */
  at: number
}

/** A turn with what it may do, and its hand-offs in order; the last always applies. */
export interface PlannedTurn {
  turn: Turn
  index: number
  /** The turn whose hand-offs these are; null for one that others, open at once with it, follow. */
  handsOffFor: Turn | null
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
  return turns.map((turn, index): PlannedTurn => {
    const view = accessViewOf(plan.form, plan.places, turn)
    const source = handsOffFor(plan.form, turn)
    const first = turns.slice(0, source ? turns.indexOf(source) : 0).flatMap(t => t.handOff ?? []).length
    const handOffs = (source?.handOff ?? []).flatMap(({ when, to }, position): PlannedHandOff[] => {
      const rule = read.find(r => r.index === first + position) ?? null
      const at = targetAt(plan.form, to)
      if (to !== DONE && at < 0) return []
      // A condition that can't be read is never true.
      if (when !== undefined && !rule?.expr) return []
      const known = when === undefined || !rule ? null : asAtHandOff(plan, index, rule, leadsBack(turns))
      return [{ rule: null, isUnsure: false, ...known, to: to === DONE ? DONE : at, at: position }]
    })
    const next = index + 1 < turns.length ? index + 1 : DONE
    return {
      turn,
      index,
      handsOffFor: source,
      // A copy of an entry is filled like the entries of the form.
      fills: place => mayFill(view, { ...place, order: orderInForm(place.order) }),
      sees: section => sections.some(p => p.section === section && maySee(view, p)),
      handOffs: untilCertain([
        ...handOffs,
        { rule: null, isUnsure: false, to: next, at: source?.handOff?.length ?? 0 },
      ]),
    }
  })
}

/** The position of the turn that a hand-off leads to: where several are opened at once, of the one that leads; -1 for none. */
function targetAt(form: Form, to: string): number {
  const turns = form.turns ?? []
  const turn = turns.find(t => t.code === to)
  return turn ? turns.indexOf(leaderOf(form, turn)) : -1
}

/** The rule of a hand-off as it is when its turn ends: what only later turns fill is blank then, unless a response may have come back. */
function asAtHandOff(
  plan: Plan,
  index: number,
  rule: ReadRule,
  mayComeBack: boolean,
): Pick<PlannedHandOff, 'rule' | 'isUnsure'> {
  if (!rule.expr) return { rule, isUnsure: false }
  const { blank, open } = laterNamesOf(plan, index, rule.expr)
  if (blank.size + open.size === 0) return { rule, isUnsure: false }
  if (open.size > 0 || mayComeBack) return { rule, isUnsure: true }
  const blanked = (expr: Expr): Expr =>
    replaceParts(expr, node => {
      if (node.kind !== 'name') return null
      if (blank.has(node.name)) return { kind: 'null', ...HERE }
      const value = plan.byCode.get(node.name)?.value?.expr
      return value && namesBehind(plan, value).some(name => blank.has(name)) ? blanked(value) : null
    })
  return { rule: { ...rule, expr: blanked(rule.expr) }, isUnsure: false }
}

const leadsBack = (turns: readonly Turn[]): boolean =>
  turns.some((turn, i) =>
    turn.handOff?.some(h => turns.findIndex(t => t.code === h.to) <= i && h.to !== DONE),
  )

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
