import type { Item } from '../../form/definition'
import { optionsOf, type OfferedRow } from '../../form/rows'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section } from './exampleForms'

const kind = { code: 'none-with-others', severity: 'risk' } as const
const works = (alone: true | undefined): Item => ({
  kind: 'question',
  type: 'choices',
  code: 'works',
  label: 'Works',
  options: [
    { code: 'paint', label: 'Painting' },
    { code: 'mast', label: 'Mast' },
    { code: 'none', label: 'None of these', alone },
  ],
})

/** Words that say that none of the other options holds. */
const NONE = /^(?:none|nothing|neither|no,? none|not any|no special|n\/a|not applicable)\b|^no$/i

export const noneWithOthers: Check = {
  ...kind,
  about: 'An option that says “none” can be ticked together with others.',
  raises: example(section('boat', [works(undefined)])),
  spares: example(section('boat', [works(true)])),
  run: ({ form, model: { plan } }) =>
    plan.questions.flatMap(({ place }): Finding[] => {
      const { node } = place
      if (node.type !== 'choices' || node.most === 1) return []
      const rows = optionsOf(form, node) ?? []
      const none = rows.filter(isNone)
      const [only] = none
      if (!only || none.length > 1 || only.alone || rows.length < 2) return []
      const sentence = `In ${quotedName(place)}, “${only.label}” can be ticked together with other options.`
      const options = node.options?.map(o => (o.code === only.code ? { ...o, alone: true as const } : o))
      return [
        finding(kind, place, sentence, {
          conflict: [partAt(place)],
          mend: options
            ? {
                words: `Let “${only.label}” exclude the others`,
                edits: [{ do: 'change', what: place.address, set: { options } }],
              }
            : null,
        }),
      ]
    }),
}

const isNone = ({ label }: OfferedRow): boolean => NONE.test(label.trim())
