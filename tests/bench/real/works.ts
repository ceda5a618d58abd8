import { ask, check, need, options, when, type Details, type Making } from './part'

/** Works with a price each, their total, a deposit; ways on by what is wanted. */
export const works: Making = ({ code: c, gate, between }) => {
  const dear = between(8, 20) * 100
  const price = (name: string) => `if ${c(name)} = null then 0 else ${c(name)}`
  return {
    sections: [
      {
        code: c('works'),
        title: `Works ${c('')}`,
        items: jobs(c),
      },
      {
        code: c('cost'),
        title: `What it may cost ${c('')}`,
        shownWhen: `not(list contains(${c('jobs')}, "nothing"))`,
        items: [
          ask(c('yard'), 'money', 'Yard', { ...need, currency: 'EUR', min: 0, max: 5000 }),
          ask(c('material'), 'money', 'Material', { currency: 'EUR', min: 0, max: 5000 }),
          ask(c('paint_cost'), 'value', 'Coats', {
            value: `if ${c('coats')} = null then 0 else ${c('coats')} * 45`,
            currency: 'EUR',
          }),
          ask(c('total'), 'value', 'Total', {
            value: `${c('yard')} + (${price('material')}) + ${c('paint_cost')}`,
            currency: 'EUR',
          }),
          ask(c('deposit'), 'money', 'Deposit', {
            ...{ currency: 'EUR', min: 0, max: 5000, ...need },
            ...when(`${c('total')} > ${dear}`),
            ...check(`${c('deposit')} <= ${c('total')}`, 'Not more than the total.'),
          }),
          ask(c('rank'), 'ranking', 'What matters most', { ...options('price', 'time', 'finish'), ...need }),
          ask(c('budget_ok'), 'yesNo', 'May we go over the estimate?', { ...need, ...when(gate()) }),
        ],
      },
    ],
    promises: [
      {
        code: c('p_deposit'),
        text: 'Dear works have a deposit',
        holds: `if ${c('total')} > ${dear} then ${c('deposit')} != null else true`,
      },
    ],
  }
}

const jobs = (c: Details['code']) => [
  ask(c('jobs'), 'choices', 'Works', {
    ...need,
    options: [
      ...options('antifouling', 'polish', 'welding', 'rigging', 'sails').options,
      { code: 'nothing', label: 'nothing', alone: true },
    ],
  }),
  ask(c('paint'), 'choice', 'Paint', {
    ...{ ...options('hard', 'soft'), ...need },
    ...when(`list contains(${c('jobs')}, "antifouling")`),
  }),
  ask(c('coats'), 'integer', 'Coats', {
    ...{ ...need, min: 1, max: 5 },
    ...when(`list contains(${c('jobs')}, "antifouling")`),
  }),
  ask(c('hot'), 'signature', 'Hot works permit', {
    ...need,
    ...when(`list contains(${c('jobs')}, "welding")`),
  }),
  ask(c('plan'), 'file', 'Rigging plan', {
    ...when(`list contains(${c('jobs')}, "rigging")`),
    ...{ kinds: ['pdf', 'image'], most: 3 },
  }),
  ask(c('sails'), 'integer', 'How many sails?', {
    ...{ ...need, min: 1, max: 12 },
    ...when(`list contains(${c('jobs')}, "sails")`),
  }),
]
