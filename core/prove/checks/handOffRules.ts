import { namesIn, type Expr } from '../../expressions/tree'
import type { Form } from '../../form/definition'
import type { Turn } from '../../form/turns'
import { mayFill, accessViewOf } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, lookAtEach } from './check'
import type { Goal } from '../goals/goal'
import { certainTurns, type Model, type ReadRule } from '../model/model'
import { example, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'never-handed-off', severity: 'risk' } as const
const handedOff = (when: string): Form => ({
  ...example(section('boat', [whole('tons', { required: true })]), section('work', [text('remarks')])),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    {
      code: 'request',
      party: 'owner',
      by: 'link',
      access: { boat: 'fills' },
      handOff: [
        { when: 'tons > 10', to: 'done' },
        { when, to: 'survey' },
      ],
    },
    { code: 'survey', party: 'yard', by: 'link', access: { boat: 'reads', work: 'fills' } },
  ],
})

export const neverHandedOff: Check = {
  ...kind,
  about:
    'A hand-off is never taken: its condition is never true when its turn ends, or those above it always come first.',
  raises: handedOff('tons > 20'),
  spares: handedOff('tons > 5'),
  run: inquiry => lookAtEach(handOffsOf(inquiry), handOff => untaken(inquiry, handOff)),
}

/** A hand-off of a turn: its rule as it was read, and those above it. */
interface PlannedHandOff {
  turn: Turn
  /** Its position among the hand-offs of its turn. */
  at: number
  rule: ReadRule | undefined
  above: readonly Expr[]
  /** One above it has no condition. */
  isShadowed: boolean
}

function handOffsOf({ form, model }: Inquiry): PlannedHandOff[] {
  const read = model.rules.filter(r => r.kind === 'handOff')
  let index = -1
  return (form.turns ?? []).flatMap(turn => {
    const handOffs = (turn.handOff ?? []).map(handOff => {
      index += 1
      return { handOff, rule: read.find(r => r.index === index) }
    })
    return handOffs.map(({ rule }, at): PlannedHandOff => {
      const before = handOffs.slice(0, at)
      return {
        turn,
        at,
        rule,
        above: before.flatMap(h => h.rule?.expr ?? []),
        isShadowed: before.some(h => h.handOff.when === undefined),
      }
    })
  })
}

function untaken(inquiry: Inquiry, { turn, at, rule, above, isShadowed }: PlannedHandOff): Finding[] {
  const name = `Hand-off ${at + 1} of the turn “${turnName(inquiry.form, turn)}”`
  if (isShadowed) {
    const reason = 'the one above it has no condition and always comes first'
    return [finding(kind, null, `${name} is never taken: ${reason}.`)]
  }
  const { expr = null, place } = rule ?? {}
  if (!rule || !expr || !place) return []
  const goal: Goal = {
    key: `handOff:${turn.code}:${at}:${[...above, expr].length}`,
    at: null,
    section: settled(inquiry.model, turn),
    names: [expr, ...above].flatMap(namesIn),
    literals: space => [space.encoding.truth(expr).t, ...above.map(e => -space.encoding.truth(e).t)],
    holds: () => true,
  }
  const decision = inquiry.decide(goal)
  if (decision.is === 'undecided') {
    const question = `whether ${name.toLowerCase()} is ever taken`
    return [{ ...undecidedFinding(place, question, decision.why), rule: rule.id }]
  }
  if (decision.is !== 'impossible') return []
  const reason = 'its condition is not true in any case that those above it leave'
  const own = partAt(place, 'handOff', rule.index)
  const conflict = decision.conflict.length > 0 ? decision.conflict : [own]
  return [finding(kind, null, `${name} is never taken: ${reason}.`, { rule: rule.id, conflict })]
}

/** The section up to which a turn finds everything complete when it ends, as far as that is sure: what later turns fill is open. */
function settled({ form, plan, isAlwaysFilled }: Model, turn: Turn): number {
  const certain = certainTurns(form)
  const upTo = certain.includes(turn) ? certain.slice(0, certain.indexOf(turn) + 1) : certain
  const views = upTo.map(t => accessViewOf(form, plan.places, t))
  const open = plan.places.find(
    p => p.kind !== 'note' && isAlwaysFilled(p) && !views.some(view => mayFill(view, p)),
  )
  return open?.section ?? plan.sections.length
}
