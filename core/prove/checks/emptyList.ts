import { rowsOf } from '../../form/walk'
import { called, finding, partAt, type Check } from '../inquiry'
import { example, hull, section } from './example'

const kind = { code: 'empty-list', severity: 'fault' } as const

export const emptyList: Check = {
  ...kind,
  about: 'A choice question has nothing to choose from: no options, an empty list, or a list that does not exist.',
  raises: example(section('boat', [hull({ options: [] })])),
  spares: example(section('boat', [hull()])),
  run: inquiry => inquiry.model.plan.questions.flatMap(({ place }) => {
    if (place.node.type !== 'choice') return []
    const rows = rowsOf(inquiry.form, place.node)
    if (rows && rows.length > 0) return []
    const sentence = rows === null ? `${called(place)} takes its choices from the list “${place.node.list}”, which does not exist.` : `${called(place)} has nothing to choose from.`
    return [finding(kind, place, sentence, { conflict: [partAt(place)], witness: inquiry.wayTo(place.section) })]
  }),
}
