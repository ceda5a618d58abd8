import { membersIn } from '../../expressions/tree'
import { namesBehind } from '../../parties/handOffNames'
import { accessViewOf, mayFill, maySee } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Form } from '../../form/definition'
import type { PlaceOf } from '../../form/walk'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, whole } from './exampleForms'
import { toldBy } from './privateInference'

const kind = { code: 'found-by-trying', severity: 'advice' } as const
const bidding = (rule: string): Form => ({
  ...example(
    section('owner', [whole('budget')]),
    section('offer', [whole('price'), text('reason', { shownWhen: rule })]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'first', party: 'owner', by: 'link', access: { owner: 'fills' } },
    { code: 'second', party: 'yard', by: 'link', access: { offer: 'fills' } },
  ],
})

/** A yes or no is told by one look at the outcome, whatever is tried. */
const canBeSearched = (place: PlaceOf<'question'>) => place.node.type !== 'yesNo'

export const foundByTrying: Check = {
  ...kind,
  about:
    'A rule compares what a party answers in its turn with an answer that it doesn’t see. By trying other answers and looking at the outcome it can find the hidden one.',
  raises: bidding('price > budget'),
  spares: bidding('price > 100'),
  run: ({ form, model: { plan, rules } }) =>
    (form.turns ?? []).flatMap((turn, index) => {
      const view = accessViewOf(form, plan.places, turn)
      const before = (form.turns ?? []).slice(0, index).map(t => accessViewOf(form, plan.places, t))
      return rules.flatMap((rule): Finding[] => {
        const told = toldBy(plan, rule, view)
        if (!rule.expr || told === null) return []
        const names = [...namesBehind(plan, rule.expr), ...membersIn(rule.expr)]
        const asked = names.flatMap(name => plan.byCode.get(name)?.place ?? [])
        const tried = asked.find(p => mayFill(view, p) && p.node.type !== 'value')
        const hidden = asked.find(
          p => !maySee(view, p) && canBeSearched(p) && before.some(earlier => mayFill(earlier, p)),
        )
        if (!tried || !hidden) return []
        return [
          finding(
            kind,
            rule.place,
            `In the turn “${turnName(form, turn)}”, ${quotedName(hidden)}, which is not seen there, can be found by trying: ${told} depends on it and on ${quotedName(tried)}.`,
            {
              rule: rule.id,
              conflict: [partAt(rule.place, rule.kind, rule.index), partAt(tried), partAt(hidden)],
            },
          ),
        ]
      })
    }),
}
