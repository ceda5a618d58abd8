import { ask, check, group, need, note, options, when, type Details, type Making } from './part'

/** The boat: groups three deep, engines in entries with tanks, a total over them. */
export const boat: Making = ({ code: c, gate, between }) => {
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
          measures(c, long),
          note(c('n_wood'), 'Wooden hulls are lifted in the slings.', `${c('hull')} = "wood"`),
          engines(c),
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
        holds: `${c('beam')} = null or ${c('beam')} < ${c('loa')}`,
      },
    ],
  }
}

const measures = (c: Details['code'], long: number) =>
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
  ])

const engines = (c: Details['code']) =>
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
  )
