import { GIVEN_TITLES } from '../../form/givenTitles'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'given-title', severity: 'advice' } as const
const GIVEN: ReadonlySet<string> = new Set(Object.values(GIVEN_TITLES))

export const givenTitle: Check = {
  ...kind,
  about: 'A section or group is still called as it was when it was made; respondents would read that.',
  raises: example({ ...section('boat', [text('name')]), title: GIVEN_TITLES.first }),
  spares: example({ ...section('boat', [text('name')]), title: 'Your boat' }),
  run: ({ model: { plan } }) =>
    plan.places
      .filter(p => (p.kind === 'section' || p.kind === 'group') && GIVEN.has(p.node.title))
      .map(p =>
        finding(kind, p, `${quotedName(p)} is still called as it was when it was made.`, {
          conflict: [partAt(p)],
        }),
      ),
}
