import { namesIn } from '../../expressions/tree'
import type { Form } from '../../form/definition'
import { handOffTaken, turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, lookAtEach } from './check'
import type { Goal } from '../goals/goal'
import type { PlannedTurn } from '../model/turnPlan'
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

interface HandedOff {
  turn: PlannedTurn
  /** Its position among the hand-offs of its turn. */
  at: number
}

const handOffsOf = ({ model }: Inquiry): HandedOff[] =>
  model.turns.flatMap(turn => (turn.handsOffFor?.handOff ?? []).map((_, at) => ({ turn, at })))

function untaken(inquiry: Inquiry, { turn, at }: HandedOff): Finding[] {
  const source = turn.handsOffFor ?? turn.turn
  const name = `Hand-off ${at + 1} of the turn “${turnName(inquiry.form, source)}”`
  const shadow = (source.handOff ?? []).findIndex(h => h.when === undefined)
  if (shadow >= 0 && shadow < at) {
    const reason = 'the one above it has no condition and always comes first'
    return [finding(kind, null, `${name} is never taken: ${reason}.`, { turn: source.code })]
  }
  const before = turn.handOffs.filter(h => h.at <= at)
  const rule = before.find(h => h.at === at)?.rule
  if (!rule?.expr) return []
  const { place } = rule
  const goal: Goal = {
    key: `handOff:${turn.turn.code}:${at}`,
    at: null,
    section: inquiry.model.plan.sections.length,
    turn: turn.index,
    names: before.flatMap(h => (h.rule?.expr ? namesIn(h.rule.expr) : [])),
    literals: space => [
      ...before
        .filter(h => h.at < at)
        .map(h => (h.rule ? -space.rule(h.rule, h.rule.place, 'handOff', h.rule.index) : space.encoding.yes)),
      space.rule(rule, place, 'handOff', rule.index),
    ],
    holds: state => handOffTaken(state, turn.turn) === source.handOff?.[at],
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
