import type { Group, Item, Promised, Section } from '../../core/form/definition'
import type { QuestionType } from '../../core/form/questions'

/** One part of a form as people write them: what it asks, and what it promises. */
export interface Part {
  sections: Section[]
  promises: Promised[]
}

/** Draws the details of a part: `code` gives names of its own, `gate` a condition on what was asked before. */
export interface Details {
  code: (name: string) => string
  gate: () => string
  between: (least: number, most: number) => number
}

type Making = (details: Details) => Part
type Rest = Record<string, unknown>

const ask = (code: string, type: QuestionType, label: string, rest: Rest = {}): Item =>
  ({ kind: 'question', code, type, label, ...rest }) as Item
const options = (...codes: string[]) => ({
  options: codes.map(code => ({ code, label: code.replace(/_/g, ' ') })),
})
const need = { required: true as const }
const when = (shownWhen: string) => ({ shownWhen })
const note = (code: string, text: string, shownWhen: string): Item => ({
  kind: 'note',
  code,
  text,
  shownWhen,
})
const group = (code: string, title: string, items: Item[], rest: Rest = {}) =>
  ({ kind: 'group', code, title, items, ...rest }) as Group
const check = (rule: string, message: string) => ({ validWhen: [{ rule, message }] })

/** Who asks: a cascade of three lists, ways to reach them, a guardian for the young. */
const person: Making = ({ code: c, between }) => {
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

/** The boat: groups three deep, engines in entries with tanks, a total over them. */
const boat: Making = ({ code: c, gate, between }) => {
  const long = between(9, 15)
  const strong = between(200, 500)
  return {
    sections: [
      {
        code: c('boat'),
        title: `Boat ${c('')}`,
        items: [
          ask(c('hull'), 'choice', 'Hull', {
            ...options('wood', 'steel', 'alu', 'grp'),
            ...need,
            writeIn: true,
          }),
          group(c('measures'), 'Measures', [
            ask(c('loa'), 'decimal', 'Length over all', { ...need, min: 2, max: 40, decimals: 2, unit: 'm' }),
            ask(c('beam'), 'decimal', 'Beam', {
              ...{ ...need, min: 1, max: 12, decimals: 2, unit: 'm' },
              ...check(`${c('beam')} < ${c('loa')}`, 'A boat is longer than wide.'),
            }),
            group(
              c('under_water'),
              'Under water',
              [
                ask(c('draught'), 'decimal', 'Draught', { min: 0, max: 5, decimals: 2, unit: 'm' }),
                group(
                  c('keel_part'),
                  'Keel',
                  [
                    ask(c('keel'), 'choice', 'Keel', { ...options('fin', 'long', 'lifting'), ...need }),
                    ask(c('keel_up'), 'decimal', 'Draught with the keel up', {
                      ...{ min: 0, max: 5, decimals: 2 },
                      ...when(`${c('keel')} = "lifting"`),
                    }),
                  ],
                  when(`${c('hull')} != "steel"`),
                ),
              ],
              when(`${c('loa')} > ${long - 4}`),
            ),
          ]),
          note(c('n_wood'), 'Wooden hulls are lifted in the slings.', `${c('hull')} = "wood"`),
          group(
            c('engines'),
            'Engines',
            [
              ask(c('make'), 'text', 'Make', need),
              ask(c('fuel'), 'choice', 'Fuel', { ...options('diesel', 'petrol', 'electric'), ...need }),
              ask(c('power'), 'integer', 'Power', { ...need, min: 1, max: 400, unit: 'kW' }),
              ask(c('tank'), 'integer', 'Tank', {
                ...{ ...need, min: 1, max: 900, unit: 'l' },
                ...when(`${c('fuel')} != "electric"`),
              }),
            ],
            { repeat: { min: 1, max: 4 } },
          ),
          ask(c('power_total'), 'value', 'Power in all', {
            value: `sum(${c('engines')}.${c('power')})`,
            unit: 'kW',
          }),
          note(c('n_power'), 'The harbour master asks for a pilot.', `${c('power_total')} > ${strong}`),
          ask(c('pilot'), 'yesNo', 'Do you bring a pilot?', {
            ...need,
            ...when(`${c('power_total')} > ${strong} and ${gate()}`),
          }),
        ],
      },
    ],
    promises: [
      {
        code: c('p_pilot'),
        text: 'A pilot is asked about only on strong boats',
        holds: `if ${c('pilot')} = true then ${c('power_total')} > ${strong - 50} else true`,
      },
      {
        code: c('p_beam'),
        text: 'A boat is longer than wide',
        holds: `${c('beam')} < ${c('loa')}`,
      },
    ],
  }
}

/** Works with a price each, their total, a deposit; ways on by what is wanted. */
const works: Making = ({ code: c, gate, between }) => {
  const dear = between(8, 20) * 100
  const price = (name: string) => `if ${c(name)} = null then 0 else ${c(name)}`
  return {
    sections: [
      {
        code: c('works'),
        title: `Works ${c('')}`,
        items: [
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
        ],
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

/** A stay: dates with an order, nights, people aboard, a way on that leaves one section out. */
const stay: Making = ({ code: c, gate, between }) => {
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
    ],
    promises: [
      {
        code: c('p_rafts'),
        text: 'Crowded boats carry rafts',
        holds: `if ${c('aboard')} > ${people} then ${c('rafts')} != null else true`,
      },
      { code: c('p_order'), text: 'Nobody leaves before they come', holds: `${c('until')} > ${c('from')}` },
    ],
  }
}

/** Insurance: named when insured, valid long enough, cover by value. */
const insurance: Making = ({ code: c, gate, between }) => {
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

export const MODULES: readonly Making[] = [person, boat, works, stay, insurance]
