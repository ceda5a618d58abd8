import { namesIn } from '../../expressions/tree'
import type { Form } from '../../form/definition'
import type { Turn } from '../../form/turns'
import { fills, viewOf } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import { finding, partAt, type Check, type Goal, type Inquiry } from '../goals/inquiry'
import { certainTurns, type Model } from '../model/model'
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
  run: inquiry => untaken(inquiry),
}

function* untaken(inquiry: Inquiry): Generator<Finding | null> {
  const { form, model } = inquiry
  const read = model.rules.filter(r => r.kind === 'handOff')
  let index = -1
  for (const turn of form.turns ?? []) {
    const rules = (turn.handOff ?? []).map(handOff => {
      index += 1
      return { handOff, rule: read.find(r => r.index === index) }
    })
    const always = rules.findIndex(r => r.handOff.when === undefined)
    for (const [at, { rule }] of rules.entries()) {
      const place = rule?.place
      const called = `Hand-off ${at + 1} of the turn “${turnName(form, turn)}”`
      if (always >= 0 && at > always)
        yield finding(
          kind,
          null,
          `${called} is never taken: the one above it has no condition and always comes first.`,
        )
      if (!rule?.expr || !place || (always >= 0 && at > always)) continue
      const { expr } = rule
      const above = rules.slice(0, at).flatMap(r => r.rule?.expr ?? [])
      const goal: Goal = {
        key: `handOff:${turn.code}:${at}:${[...above, expr].length}`,
        at: null,
        section: settled(model, turn),
        names: [expr, ...above].flatMap(namesIn),
        literals: space => [space.encoding.truth(expr).t, ...above.map(e => -space.encoding.truth(e).t)],
        holds: () => true,
      }
      const decision = inquiry.decide(goal)
      if (decision.is === 'undecided')
        yield {
          ...undecidedFinding(place, `whether ${called.toLowerCase()} is ever taken`, decision.why),
          rule: rule.id,
        }
      if (decision.is === 'impossible')
        yield finding(
          kind,
          null,
          `${called} is never taken: its condition is not true in any case that those above it leave.`,
          {
            rule: rule.id,
            conflict:
              decision.conflict.length > 0 ? decision.conflict : [partAt(place, 'handOff', rule.index)],
          },
        )
      yield null
    }
  }
}

/** The section up to which a turn finds everything complete when it ends, as far as that is sure: what later turns fill is open. */
function settled({ form, plan, isAlwaysFilled }: Model, turn: Turn): number {
  const certain = certainTurns(form)
  const upTo = certain.includes(turn) ? certain.slice(0, certain.indexOf(turn) + 1) : certain
  const views = upTo.map(t => viewOf(form, plan.places, t))
  const open = plan.places.find(
    p => p.kind !== 'note' && isAlwaysFilled(p) && !views.some(view => fills(view, p)),
  )
  return open?.section ?? plan.sections.length
}
