import type { Item } from '../../form/definition'
import { mayFill, accessViewOf } from '../../parties/access'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'unfilled-question', severity: 'fault' } as const

const remark: Item = { kind: 'question', code: 'remark', type: 'text', label: 'Remark', officeOnly: true }

export const unfilledQuestion: Check = {
  ...kind,
  about:
    'No turn fills a question, so it can never be answered; in a form without turns, one that is office-only or private to a party.',
  raises: {
    ...example(section('boat', [text('name'), remark])),
    parties: [{ code: 'owner', name: 'Owner' }],
    turns: [{ code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' } }],
  },
  spares: {
    ...example(section('boat', [text('name'), remark])),
    parties: [{ code: 'office', name: 'Office', office: true }],
    turns: [{ code: 'request', party: 'office', by: 'link', access: { boat: 'fills' } }],
  },
  run: ({ form, model: { plan } }) => {
    const views = (form.turns?.length ? form.turns : [null]).map(turn =>
      accessViewOf(form, plan.places, turn),
    )
    return plan.questions.flatMap(({ place }) =>
      place.node.type === 'value' || views.some(view => mayFill(view, place))
        ? []
        : [
            finding(
              kind,
              place,
              form.turns?.length
                ? `No turn fills ${quotedName(place)}, so it can never be answered.`
                : `${quotedName(place)} is kept from the respondent, and the form has no turn that fills it.`,
              { conflict: [partAt(place)] },
            ),
          ],
    )
  },
}
