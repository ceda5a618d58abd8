import { circles } from '../model/circles'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'circle', severity: 'fault' } as const

export const circle: Check = {
  ...kind,
  about: 'Whether something is shown depends on itself, directly or by way of others.',
  raises: example(
    section('boat', [
      yesNo('insured', { shownWhen: 'insurer != null' }),
      text('insurer', { shownWhen: 'insured = true' }),
    ]),
  ),
  spares: example(section('boat', [yesNo('insured'), text('insurer', { shownWhen: 'insured = true' })])),
  run: inquiry =>
    circles(inquiry.model.plan).flatMap(codes => {
      const places = codes.flatMap(
        code =>
          inquiry.model.plan.places.find(
            p =>
              p.code === code &&
              (p.kind !== 'section' || codes.length === 1 || !inquiry.model.plan.byCode.has(code)),
          ) ?? [],
      )
      const ruled = places.filter(p => p.node.shownWhen !== undefined)
      const [first] = ruled
      if (!first) return []
      const round = [...ruled, first].map(quotedName).join(' → ')
      const sentence =
        ruled.length === 1
          ? `${quotedName(first)} is shown by a rule that names what stands inside it, so it can never show.`
          : `These wait for each other, so none can ever show: ${round}.`
      return [
        finding(kind, first, sentence, {
          conflict: ruled.map(p => partAt(p, 'shownWhen')),
          witness: inquiry.wayTo(first.section),
        }),
      ]
    }),
}
