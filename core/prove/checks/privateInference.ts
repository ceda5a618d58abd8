import type { Rule, RuleKind } from '../../form/rules'
import type { Plan, Step } from '../../fill/planned'
import { namesBehind } from '../../parties/handOffNames'
import { maySee, accessViewOf, type AccessView } from '../../parties/access'
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

/** What of a rule a party notices, by its kind. */
const TELLS: Partial<Record<RuleKind, (name: string) => string>> = {
  shownWhen: name => `whether ${name} is there`,
  required: name => `whether ${name} is required`,
  validWhen: name => `whether the check of ${name} complains`,
  bound: name => `whether the limit of ${name} complains`,
  readOnly: name => `whether ${name} can be changed`,
  value: name => `the value of ${name}`,
  narrowedBy: name => `what ${name} offers`,
  option: name => `what ${name} offers`,
  skip: name => `where ${name} leads on`,
}

/** What a party notices of a rule; null where it sees nothing of it. A skip is noticed by what it passes over as well. */
export function toldBy({ sections }: Plan, { kind, place, index }: Rule, view: AccessView): string | null {
  const tells = TELLS[kind]
  if (tells === undefined) return null
  if (maySee(view, place)) return tells(quotedName(place))
  if (kind !== 'skip') return null
  const isPassed = (step: Step) => step.skips.some(s => s.from.order === place.order && s.index === index)
  const passed = sections.flatMap(s => s.all).find(step => isPassed(step) && maySee(view, step.place))
  return passed ? `whether ${quotedName(passed.place)} is there` : null
}

export const privateInference: Check = {
  ...kind,
  about:
    'What one party sees shows, is required, complains or is worked out by an answer that is private to another: from that it can tell something of the answer.',
  raises: turned('debts = true'),
  spares: turned(undefined),
  run: ({ form, model: { plan, rules } }) =>
    (form.turns ?? []).flatMap(turn => {
      const view = accessViewOf(form, plan.places, turn)
      return rules.flatMap((rule): Finding[] => {
        const told = toldBy(plan, rule, view)
        if (!rule.expr || told === null) return []
        return namesBehind(plan, rule.expr).flatMap((name): Finding[] => {
          const asked = plan.byCode.get(name)
          // Only what was said to be private: that a turn does not see a section is mostly a matter of its work.
          if (!asked || asked.place.node.privateTo === undefined || asked.place.node.privateTo === turn.party)
            return []
          return [
            finding(
              kind,
              rule.place,
              `In the turn “${turnName(form, turn)}”, ${told} tells something of ${quotedName(asked.place)}, which is private to another party.`,
              { rule: rule.id, conflict: [partAt(rule.place, rule.kind, rule.index), partAt(asked.place)] },
            ),
          ]
        })
      })
    }),
}
