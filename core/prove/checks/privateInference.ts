import { namesIn } from '../../expressions/tree'
import { maySee, accessViewOf } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Form } from '../../form/definition'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'private-inference', severity: 'risk' } as const
const turned = (rule: string | undefined): Form => ({
  ...example(
    section('money', [yesNo('debts', { privateTo: 'owner' })]),
    section('boat', [text('name'), text('deposit', { shownWhen: rule })]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'first', party: 'owner', by: 'link', access: { money: 'fills', boat: 'fills' } },
    { code: 'second', party: 'yard', by: 'link', access: { boat: 'reads' } },
  ],
})

export const privateInference: Check = {
  ...kind,
  about:
    'What one party sees shows or hides by an answer that is private to another: from that it can tell something of the answer.',
  raises: turned('debts = true'),
  spares: turned(undefined),
  run: ({ form, model: { plan, rules } }) =>
    (form.turns ?? []).flatMap(turn => {
      const view = accessViewOf(form, plan.places, turn)
      return rules.flatMap((rule): Finding[] => {
        if (!rule.expr || rule.kind !== 'shownWhen' || !maySee(view, rule.place)) return []
        return [...new Set(namesIn(rule.expr))].flatMap((name): Finding[] => {
          const asked = plan.byCode.get(name)
          // Only what was said to be private: that a turn does not see a section is mostly a matter of its work.
          if (!asked || asked.place.node.privateTo === undefined || asked.place.node.privateTo === turn.party)
            return []
          return [
            finding(
              kind,
              rule.place,
              `In the turn “${turnName(form, turn)}”, whether ${quotedName(rule.place)} is there tells something of ${quotedName(asked.place)}, which is private to another party.`,
              { rule: rule.id, conflict: [partAt(rule.place, 'shownWhen'), partAt(asked.place)] },
            ),
          ]
        })
      })
    }),
}
