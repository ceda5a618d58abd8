import { plainTextsAt, textsAnywhere } from '../../form/texts'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'single-braces', severity: 'advice' } as const
const quoting = (label: string) => example(section('boat', [text('name'), text('remark', { label })]))

const QUOTE = /\{\{.*\}\}/
const LONE = /(?<!\{)\{\s*([a-z]\w*)\s*\}(?!\})/

export const singleBraces: Check = {
  ...kind,
  about:
    'A text has a question’s code in single braces, where a quote has two; or it quotes where nothing is quoted, as in the label of a choice. It is shown as it stands.',
  raises: quoting('About {name}'),
  spares: quoting('About {{ name }}'),
  run: ({ model: { plan } }) =>
    plan.places.flatMap(place => {
      const told = (text: string, whole: string, sentence: string) => {
        const from = text.indexOf(whole)
        const marked = { text, from, to: from + whole.length }
        return [finding(kind, place, sentence, { conflict: [partAt(place)], marked })]
      }
      return [
        ...textsAnywhere(place).flatMap((words): Finding[] => {
          const [whole = '', code = ''] = LONE.exec(words) ?? []
          if (!plan.byCode.has(code)) return []
          return told(
            words,
            whole,
            `A text of ${quotedName(place)} has “${whole}”, which is shown as it stands; a quote is written {{ ${code} }}.`,
          )
        }),
        ...plainTextsAt(place)
          .filter(words => QUOTE.test(words))
          .flatMap(words =>
            told(
              words,
              words,
              `${quotedName(place)} has “${words}”, which is shown as it stands: nothing is quoted in choices, units, placeholders and the ends of scales.`,
            ),
          ),
      ]
    }),
}
