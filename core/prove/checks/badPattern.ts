import { patternOf } from '../../expressions/patterns'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'bad-pattern', severity: 'fault' } as const

export const badPattern: Check = {
  ...kind,
  about: 'The pattern of a text question can’t be read, so no answer could be checked by it.',
  raises: example(section('boat', [text('sail_number', { pattern: '[A-Z' })])),
  spares: example(section('boat', [text('sail_number', { pattern: '[A-Z]+' })])),
  run: inquiry =>
    inquiry.model.plan.questions.flatMap(({ place }) =>
      place.node.type === 'text' && place.node.pattern !== undefined && patternOf(place.node.pattern) === null
        ? [
            finding(kind, place, `The pattern of ${quotedName(place)} can’t be read: ${place.node.pattern}`, {
              conflict: [partAt(place)],
              marked: { text: place.node.pattern, from: 0, to: place.node.pattern.length },
              witness: inquiry.wayTo(place.section),
            }),
          ]
        : [],
    ),
}
