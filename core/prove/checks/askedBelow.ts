import { namesIn } from '../../expressions/tree'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'asked-below', severity: 'risk' } as const
const [term, until] = [yesNo('fixed_term'), text('until', { shownWhen: 'fixed_term = true' })]

/** Kinds of rules by which something changes as soon as the question below is answered. */
const SHIFTING: ReadonlySet<string> = new Set([
  'shownWhen',
  'required',
  'readOnly',
  'narrowedBy',
  'option',
  'skip',
])

export const askedBelow: Check = {
  ...kind,
  about:
    'A rule asks for a question that stands below it in the same section: something shows or changes above where the respondent is.',
  raises: example(section('lease', [until, term])),
  spares: example(section('lease', [term, until])),
  run: ({ model: { plan, rules, circular } }) =>
    rules.flatMap((rule): Finding[] => {
      const { place } = rule
      if (!rule.expr || !SHIFTING.has(rule.kind) || place.kind === 'section' || circular.has(place.code))
        return []
      return namesIn(rule.expr).flatMap((name): Finding[] => {
        const asked = plan.byCode.get(name)
        const isBelow =
          asked?.place.section === place.section && asked.place.order > place.order && asked.value === null
        if (!asked || !isBelow || asked.place.groups.some(g => g === place)) return []
        const sentence = `A rule of ${quotedName(place)} asks for ${quotedName(asked.place)}, which is asked below it.`
        return [
          finding(kind, place, sentence, {
            rule: rule.id,
            conflict: [partAt(place, rule.kind, rule.index), partAt(asked.place)],
          }),
        ]
      })
    }),
}
