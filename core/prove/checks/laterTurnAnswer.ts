import { isOfForm } from '../../form/rules'
import { namesIn } from '../../expressions/tree'
import { mayFill, accessViewOf } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Form } from '../../form/definition'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'later-turn-answer', severity: 'risk' } as const
const turned = (...sections: ['boat' | 'office', 'boat' | 'office']): Form => ({
  ...example(
    section('office', [yesNo('slot_free')]),
    section('boat', [text('name'), text('days', { shownWhen: 'slot_free = true' })]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: sections.map(s => ({
    code: s,
    party: s === 'boat' ? 'owner' : 'yard',
    by: 'link' as const,
    access: { [s]: 'fills' as const, office: s === 'office' ? ('fills' as const) : ('reads' as const) },
  })),
})

export const laterTurnAnswer: Check = {
  ...kind,
  about: 'A rule in what one turn fills asks for an answer that only a later turn gives.',
  raises: turned('boat', 'office'),
  spares: turned('office', 'boat'),
  run: ({ form, model: { plan, rules } }) => {
    const turns = form.turns ?? []
    if (turns.length < 2) return []
    const views = turns.map(turn => accessViewOf(form, plan.places, turn))
    const filledAt = (place: (typeof plan.places)[number]) =>
      views.flatMap((view, i) => (mayFill(view, place) ? [i] : []))
    return rules.flatMap((rule): Finding[] => {
      if (!rule.expr || isOfForm(rule.kind)) return []
      const last = Math.max(-1, ...filledAt(rule.place))
      if (last < 0) return []
      return [...new Set(namesIn(rule.expr))].flatMap((name): Finding[] => {
        const asked = plan.byCode.get(name)
        if (!asked || asked.value !== null) return []
        const [first] = filledAt(asked.place)
        const [turn, later] = [turns[last], turns[first ?? -1]]
        if (first === undefined || first <= last || !turn || !later) return []
        return [
          finding(
            kind,
            rule.place,
            `A rule of ${quotedName(rule.place)} asks for ${quotedName(asked.place)}, but that is answered only in the turn “${turnName(form, later)}”, after “${turnName(form, turn)}”.`,
            { rule: rule.id, conflict: [partAt(rule.place, rule.kind, rule.index), partAt(asked.place)] },
          ),
        ]
      })
    })
  },
}
