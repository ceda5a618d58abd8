import type { Form } from '../../form/definition'
import type { PlaceOf } from '../../form/walk'
import type { Finding } from '../finding'
import { tableOf } from '../../fill/lookedUp'
import { optionsOf } from '../../form/rows'
import { type Check, quotedName, finding, partAt } from './check'
import { example, hull, section } from './exampleForms'

const kind = { code: 'empty-list', severity: 'fault' } as const

export const emptyList: Check = {
  ...kind,
  about:
    'A choice question has nothing to choose from: no options, an empty list, or a list that does not exist.',
  raises: example(section('boat', [hull({ options: [] })])),
  spares: example(section('boat', [hull()])),
  run: inquiry =>
    inquiry.model.plan.questions.flatMap(({ place }) => {
      const { node } = place
      const lacking = lacksTable(inquiry.form, place)
      if (node.type === 'ranking' || node.type === 'grid')
        return node.options.length > 0 && (node.type === 'ranking' || node.rows.length > 0)
          ? []
          : [
              finding(kind, place, `${quotedName(place)} has nothing to choose from.`, {
                conflict: [partAt(place)],
                witness: inquiry.wayTo(place.section),
              }),
            ]
      if (node.type !== 'choice' && node.type !== 'choices') return lacking
      const rows =
        node.writeIn && !node.list && !node.options?.length ? [true] : optionsOf(inquiry.form, node)
      if (rows && rows.length > 0) return []
      const sentence =
        rows === null
          ? `${quotedName(place)} takes its choices from the list “${node.list}”, which does not exist.`
          : `${quotedName(place)} has nothing to choose from.`
      return [
        finding(kind, place, sentence, { conflict: [partAt(place)], witness: inquiry.wayTo(place.section) }),
      ]
    }),
}

/** That a question is looked up in a list which the form does not have. */
function lacksTable(form: Form, place: PlaceOf<'question'>): Finding[] {
  const table = tableOf(place.node)
  if (!table || form.lists?.some(l => l.code === table.list)) return []
  const sentence = `${quotedName(place)} is looked up in the list “${table.list}”, which does not exist.`
  return [finding(kind, place, sentence, { conflict: [partAt(place)] })]
}
