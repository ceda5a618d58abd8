import type { Check } from './check'
import { example, section, text, yesNo } from './exampleForms'
import { wiringFinding } from './wiring'

const kind = { code: 'syntax-error', severity: 'fault' } as const

export const syntaxError: Check = {
  ...kind,
  about: 'A rule can’t be read as an expression.',
  raises: example(section('boat', [yesNo('insured'), text('insurer', { shownWhen: 'insured == true' })])),
  spares: example(section('boat', [yesNo('insured'), text('insurer', { shownWhen: 'insured = true' })])),
  run: inquiry =>
    inquiry.model.rules.flatMap(rule => {
      const { syntax } = rule
      return syntax
        ? [
            wiringFinding(inquiry, kind, rule, {
              from: syntax.from,
              to: syntax.to,
              sentence: syntax.message,
              instead: syntax.instead?.includes('…') ? null : syntax.instead,
            }),
          ]
        : []
    }),
}
