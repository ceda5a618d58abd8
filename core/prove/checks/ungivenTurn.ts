import type { Form } from '../../form/definition'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, section } from './exampleForms'

const kind = { code: 'ungiven-turn', severity: 'risk' } as const
const turned = (required: true | undefined): Form => ({
  ...example(
    section('boat', [
      { kind: 'question', code: 'surveyor', type: 'email', label: 'Your surveyor', required },
    ]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'surveyor', name: 'Surveyor' },
  ],
  turns: [
    { code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' } },
    { code: 'survey', party: 'surveyor', by: { answer: 'surveyor' }, access: { boat: 'reads' } },
  ],
})

export const ungivenTurn: Check = {
  ...kind,
  about:
    'A turn goes to whoever an answer names, but that answer may be blank: then it can be given to nobody.',
  raises: turned(undefined),
  spares: turned(true),
  run: inquiry =>
    (inquiry.form.turns ?? []).flatMap((turn): Finding[] => {
      const code = typeof turn.by === 'object' && 'answer' in turn.by ? turn.by.answer : null
      const asked = code === null ? undefined : inquiry.model.stepOf(code)
      if (code === null || !asked || asked.place.node.type !== 'email') return []
      const end = inquiry.model.plan.sections.length
      const goal: Goal = {
        key: `given:${code}`,
        at: asked.place,
        section: end,
        names: [code],
        literals: space => [space.reached(end), space.encoding.variable(code).blank],
        holds: state => (state.values[asked.slot] ?? null) === null,
      }
      const decision = inquiry.decide(goal, { aside: true })
      const witness = decision.is === 'possible' ? inquiry.witness(goal) : null
      return witness === null
        ? []
        : [
            finding(
              kind,
              asked.place,
              `The turn “${turnName(inquiry.form, turn)}” goes to whoever ${quotedName(asked.place)} names, but that may be blank: then it can be given to nobody.`,
              { conflict: [partAt(asked.place)], witness },
            ),
          ]
    }),
}
