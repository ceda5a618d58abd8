import { ask, check, need, options, when, type Making } from './part'

/** Who asks: a cascade of three lists, ways to reach them, a guardian for the young. */
export const person: Making = ({ code: c, between }) => {
  const young = between(16, 21)
  return {
    sections: [
      {
        code: c('person'),
        title: `About the crew ${c('')}`,
        items: [
          ask(c('name'), 'text', 'Full name', { ...need, maxLength: 80 }),
          ask(c('born'), 'date', 'Date of birth', {
            ...need,
            ...check(`${c('born')} < today()`, 'A day that has been.'),
          }),
          ask(c('guardian'), 'text', 'Guardian', {
            ...need,
            ...when(`today() < ${c('born')} + duration("P${young}Y")`),
          }),
          ask(c('coast'), 'choice', 'Coast', { list: 'coasts', ...need }),
          ask(c('harbour'), 'choice', 'Harbour', {
            ...{ list: 'harbours', narrowedBy: `row.coast = ${c('coast')}` },
            ...need,
          }),
          ask(c('berth'), 'choice', 'Berth', {
            ...{ list: 'berths', narrowedBy: `row.harbour = ${c('harbour')}` },
          }),
          ask(c('reach'), 'choice', 'How we reach you', { ...options('mail', 'phone', 'letter'), ...need }),
          ask(c('mail'), 'email', 'E-mail', { ...when(`${c('reach')} = "mail"`), ...need }),
          ask(c('phone'), 'phone', 'Phone', { ...when(`${c('reach')} = "phone"`), ...need }),
          ask(c('street'), 'longText', 'Postal address', { ...when(`${c('reach')} = "letter"`), ...need }),
          ask(c('hours'), 'time', 'Best time to call', {
            ...when(`${c('reach')} = "phone"`),
            ...{ min: '08:00', max: '18:00' },
          }),
          ask(c('site'), 'url', 'Web page'),
        ],
      },
    ],
    promises: [
      {
        code: c('p_reach'),
        text: 'Whoever wants mail gives an address',
        holds: `if ${c('reach')} = "mail" then ${c('mail')} != null else true`,
      },
    ],
  }
}
