import { ask, check, need, options, when, type Details, type Making } from './part'

/** A stay: dates with an order, nights, people aboard, a way on that leaves one section out. */
export const stay: Making = ({ code: c, gate, between }) => {
  const nights = between(5, 30)
  const people = between(6, 12)
  return {
    sections: [
      {
        code: c('stay'),
        title: `Your stay ${c('')}`,
        items: [
          ask(c('from'), 'date', 'Arrival', { ...need, min: '2027-01-01', max: '2027-12-31' }),
          ask(c('until'), 'date', 'Departure', {
            ...need,
            ...check(`${c('until')} > ${c('from')}`, 'After the arrival.'),
          }),
          ask(c('nights'), 'value', 'Nights', { value: `(${c('until')} - ${c('from')}) / duration("P1D")` }),
          ask(c('reason'), 'longText', 'Why so long?', { ...need, ...when(`${c('nights')} > ${nights}`) }),
          ask(c('adults'), 'integer', 'Adults', { ...need, min: 1, max: 20 }),
          ask(c('children'), 'integer', 'Children', { min: 0, max: 20 }),
          ask(c('aboard'), 'value', 'Aboard', {
            value: `${c('adults')} + (if ${c('children')} = null then 0 else ${c('children')})`,
          }),
          ask(c('rafts'), 'integer', 'Life rafts', {
            ...{ ...need, min: 1, max: 9 },
            ...when(`${c('aboard')} > ${people}`),
          }),
          ask(c('power'), 'yesNo', 'Shore power?', need),
          ask(c('meet'), 'dateTime', 'When shall we meet you?', when(gate())),
        ],
        routes: [{ when: `${c('power')} = false`, to: c('care') }],
      },
      ...ashore(c),
    ],
    promises: [
      {
        code: c('p_rafts'),
        text: 'Crowded boats carry rafts',
        holds: `if ${c('aboard')} > ${people} then ${c('rafts')} != null else true`,
      },
      {
        code: c('p_order'),
        text: 'Nobody leaves before they come',
        holds: `${c('until')} = null or ${c('until')} > ${c('from')}`,
      },
    ],
  }
}

const ashore = (c: Details['code']) => [
  {
    code: c('plugs'),
    title: `Shore power ${c('')}`,
    items: [
      ask(c('plug'), 'choice', 'Plug', { ...options('small', 'large'), ...need }),
      ask(c('amps'), 'integer', 'Amperes', {
        ...{ ...need, min: 6, max: 63 },
        ...check(`${c('amps')} <= 16 or ${c('plug')} = "large"`, 'The small plug carries 16 A.'),
      }),
    ],
  },
  {
    code: c('care'),
    title: `Watch and care ${c('')}`,
    items: [
      ask(c('watch'), 'grid', 'How often shall we look', {
        ...{
          rows: [
            { code: 'lines', label: 'Lines' },
            { code: 'bilge', label: 'Bilge' },
          ],
        },
        ...options('never', 'weekly', 'daily'),
      }),
      ask(c('mood'), 'scale', 'How was the last stay?', { min: 1, max: 5 }),
      ask(c('sorry'), 'longText', 'What went wrong?', when(`${c('mood')} <= 2`)),
    ],
  },
]
