import { textsAnywhere } from '../../form/texts'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'single-braces', severity: 'advice' } as const
const quoting = (label: string) => example(section('boat', [text('name'), text('remark', { label })]))

const LONE = /(?<!\{)\{\s*([a-z]\w*)\s*\}(?!\})/

export const singleBraces: Check = {
  ...kind,
  about: 'A text has a question’s code in single braces: it is shown as it stands. A quote has two.',
  raises: quoting('About {name}'),
  spares: quoting('About {{ name }}'),
  run: ({ model: { plan } }) =>
    plan.places.flatMap(place =>
      textsAnywhere(place).flatMap((words): Finding[] => {
        const [whole = '', code = ''] = LONE.exec(words) ?? []
        if (!plan.byCode.has(code)) return []
        const sentence = `A text of ${quotedName(place)} has “${whole}”, which is shown as it stands; a quote is written {{ ${code} }}.`
        return [finding(kind, place, sentence, { conflict: [partAt(place)] })]
      }),
    ),
}
