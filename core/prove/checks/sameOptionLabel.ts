import type { Item } from '../../form/definition'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section } from './exampleForms'

const kind = { code: 'same-option-label', severity: 'risk' } as const
const hulls = (label: string): Item => ({
  kind: 'question',
  type: 'choice',
  code: 'hull',
  label: 'Hull',
  options: [
    { code: 'wood', label: 'Wood' },
    { code: 'wood_2', label },
  ],
})

export const sameOptionLabel: Check = {
  ...kind,
  about: 'Two options of one question have the same label, so respondents can’t tell them apart.',
  raises: example(section('boat', [hulls('wood ')])),
  spares: example(section('boat', [hulls('Plywood')])),
  run: ({ model: { plan } }) =>
    plan.questions.flatMap(({ place }): Finding[] => {
      const { node } = place
      if (!('options' in node) || !node.options) return []
      const seen = new Set<string>()
      const twice = node.options.find(o => {
        const label = o.label.trim().toLowerCase()
        if (seen.has(label)) return true
        seen.add(label)
        return false
      })
      if (!twice) return []
      const sentence = `Two options of ${quotedName(place)} are called “${twice.label.trim()}”.`
      return [finding(kind, place, sentence, { conflict: [partAt(place)] })]
    }),
}
