import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'locked-question', severity: 'fault' } as const

export const lockedQuestion: Check = {
  ...kind,
  about:
    'A required question is always read-only and begins with nothing: nobody can give the answer that is asked for.',
  raises: example(section('boat', [yesNo('afloat'), text('berth', { required: true, readOnly: true })])),
  spares: example(
    section('boat', [yesNo('afloat'), text('berth', { required: true, readOnly: true, default: '"A1"' })]),
  ),
  run: ({ model: { plan } }) =>
    plan.sections.flatMap(s =>
      s.questions.flatMap((question): Finding[] => {
        const { place, required, default: begins } = question
        const isLocked =
          s.readOnly === true ||
          question.readOnly === true ||
          place.groups.some(g => g.node.readOnly === true)
        if (
          !isLocked ||
          required === null ||
          begins !== null ||
          question.value !== null ||
          question.offer?.onlyOne ||
          place.node.type === 'hidden'
        )
          return []
        return [
          finding(
            kind,
            place,
            `${quotedName(place)} has to be answered but is read-only and begins with nothing: nobody can answer it.`,
            {
              conflict: [partAt(place, 'readOnly'), partAt(place, 'required')],
              mend: {
                words: 'Don’t require it',
                edits: [{ do: 'change', what: place.address, set: { required: null } }],
              },
            },
          ),
        ]
      }),
    ),
}
