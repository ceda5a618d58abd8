import { ask, check, group, need, note, when, type Making } from './part'

/** Insurance: named when insured, valid long enough, cover by value. */
export const insurance: Making = ({ code: c, gate, between }) => {
  const cover = between(1, 5) * 10000
  return {
    sections: [
      {
        code: c('insurance'),
        title: `Insurance ${c('')}`,
        items: [
          ask(c('insured'), 'yesNo', 'Is the boat insured?', need),
          group(
            c('policy'),
            'Policy',
            [
              ask(c('insurer'), 'text', 'Insurer', { ...need, maxLength: 60 }),
              ask(c('number'), 'text', 'Policy number', { ...need, pattern: '[A-Z]{2}[0-9]{6}' }),
              ask(c('ends'), 'date', 'Ends on', {
                ...need,
                ...check(`${c('ends')} >= today()`, 'The policy has ended.'),
              }),
              ask(c('value'), 'money', 'Value insured', { ...need, currency: 'EUR', min: 0, max: 500000 }),
              ask(c('cover'), 'money', 'Damage to others', {
                ...{ ...need, currency: 'EUR', min: 0, max: 500000 },
                ...check(`${c('cover')} >= ${cover}`, 'The harbour asks for more.'),
              }),
              note(c('n_value'), 'We ask a surveyor for a value.', `${c('value')} > ${cover * 3}`),
            ],
            when(`${c('insured')} = true`),
          ),
          ask(c('waiver'), 'yesNo', 'Do you come at your own risk?', {
            ...need,
            ...when(`${c('insured')} = false`),
          }),
          ask(c('witness'), 'text', 'Who says so beside you?', {
            ...need,
            ...when(`${c('waiver')} = true and ${gate()}`),
          }),
          ask(c('remarks'), 'longText', 'Remarks', { maxLength: 500 }),
        ],
      },
    ],
    promises: [
      {
        code: c('p_cover'),
        text: 'Insured boats carry the harbour’s cover',
        holds: `if ${c('insured')} = true then ${c('cover')} >= ${cover} else true`,
      },
    ],
  }
}
