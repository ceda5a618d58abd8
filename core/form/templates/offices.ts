import { block } from '../blocks'
import { options, q, section, template, type Template } from '../building'

const required = { required: true } as const
const yesNoOpen = options(['ok', 'In order'], ['fault', 'A fault'], ['none', 'Not there'])

/** Forms of offices and works: orders, bookings, requests, rounds. */
export const OFFICE_TEMPLATES: readonly Template[] = [
  template('contact', 'Contact us', 'What about, and how to reply', [
    section('about', 'How can we help?', [
      q('topic', 'choice', 'What is it about?', {
        ...required,
        options: options(['bill', 'A bill'], ['order', 'An order'], ['other', 'Something else']),
      }),
      q('bill_no', 'text', 'Number of the bill', { shownWhen: 'topic = "bill"', ...required }),
      q('order_no', 'text', 'Number of the order', { shownWhen: 'topic = "order"', ...required }),
      q('message', 'longText', 'Your message', required),
    ]),
    section('reply', 'How to reply', block('Contact as preferred')),
  ]),
  template('supplies', 'Order of supplies', 'Things with pieces, prices and a total that may need a reason', [
    section('who', 'Who orders', [
      q('orders', 'text', 'Your name', required),
      q('cost_centre', 'text', 'Cost centre', {
        ...required,
        pattern: '[0-9]{4}',
        patternMessage: 'Four digits.',
      }),
    ]),
    section('what', 'What', [
      ...block('List of things'),
      q('reason', 'longText', 'Why is this needed?', { shownWhen: 'things_total > 500', ...required }),
      q('needed_by', 'date', 'Needed by'),
    ]),
  ]),
  template('booking', 'Booking of a room or device', 'What, when, and how many people', [
    section('what', 'What', [
      q('thing', 'choice', 'What do you need?', {
        ...required,
        options: options(['hall', 'The hall'], ['small', 'The small room'], ['projector', 'The projector']),
      }),
      q('people', 'integer', 'How many people?', {
        ...required,
        min: 1,
        max: 120,
        shownWhen: 'thing in ["hall", "small"]',
        validWhen: [{ rule: 'thing = "hall" or people <= 12', message: 'The small room has 12 seats.' }],
      }),
      q('chairs', 'choice', 'How should the chairs stand?', {
        ...required,
        shownWhen: 'thing = "hall"',
        options: options(['rows', 'In rows'], ['round', 'In a circle'], ['tables', 'At tables']),
      }),
    ]),
    section('when', 'When', [
      q('day', 'date', 'On which day?', required),
      q('begins', 'time', 'From', required),
      q('ends', 'time', 'Until', {
        ...required,
        validWhen: [{ rule: 'ends > begins', message: 'This is not after {{ begins }}.' }],
      }),
      q('booker', 'text', 'Who books?', required),
    ]),
  ]),
  template('expenses', 'Expenses', 'Receipts with their sums, and where the money goes', [
    section('what', 'What was paid', [
      q('spender', 'text', 'Your name', required),
      {
        kind: 'group',
        code: 'receipts',
        title: 'Receipt',
        repeat: { min: 1, max: 30, heading: '{{ spent_on }}', add: 'Add a receipt' },
        items: [
          q('spent_on', 'text', 'What for?', required),
          q('spent_at', 'date', 'When?', required),
          q('spent', 'money', 'Amount', { ...required, currency: 'EUR', min: 0.01 }),
          q('receipt', 'file', 'Picture of the receipt', { ...required, kinds: ['image', 'pdf'] }),
        ],
      },
      q('spent_total', 'value', 'To be paid back', { value: 'sum(receipts.spent)', currency: 'EUR' }),
    ]),
    section('pay', 'How it is paid back', [
      q('way', 'choice', 'How?', {
        ...required,
        display: 'buttons',
        options: options(['wages', 'With the wages'], ['transfer', 'By bank transfer']),
      }),
      q('account', 'text', 'Account', { shownWhen: 'way = "transfer"', ...required }),
    ]),
  ]),
  template('repair', 'Repair request', 'What is broken, how urgent, with a picture', [
    section('what', 'What is broken', [
      q('place', 'text', 'Where?', required),
      q('broken', 'longText', 'What is broken?', required),
      q('picture', 'file', 'Picture', { kinds: ['image'], most: 3 }),
      q('danger', 'yesNo', 'Is anybody in danger?', required),
      {
        kind: 'note',
        code: 'ring',
        tone: 'warning',
        text: 'Please ring the yard at once.',
        shownWhen: 'danger = true',
      },
      q('urgent', 'scale', 'How urgent is it?', {
        ...required,
        min: 1,
        max: 5,
        low: 'can wait',
        high: 'today',
        shownWhen: 'danger = false',
      }),
    ]),
    section('who', 'Who tells us', block('Person')),
  ]),
  template('inspection', 'Inspection round', 'Points in order or not, a note and a picture for each fault', [
    section('round', 'The round', [
      q('inspector', 'text', 'Who inspects?', required),
      q('inspected_on', 'date', 'On which day?', required),
      q('points', 'grid', 'What did you find?', {
        ...required,
        rows: options(
          ['extinguisher', 'Fire extinguishers'],
          ['exits', 'Emergency exits'],
          ['lights', 'Lights'],
        ),
        options: yesNoOpen,
      }),
    ]),
    section('faults', 'Faults', [
      {
        kind: 'group',
        code: 'found',
        title: 'Fault',
        repeat: { max: 20, heading: '{{ fault_where }}', add: 'Add a fault' },
        items: [
          q('fault_where', 'text', 'Where?', required),
          q('fault_what', 'longText', 'What?', required),
          q('fault_picture', 'file', 'Picture', { kinds: ['image'] }),
        ],
      },
      q('signed', 'signature', 'Signature', required),
    ]),
  ]),
  template('complaint', 'Complaint', 'What went wrong and what would put it right', [
    section('what', 'What went wrong', [
      q('bought', 'text', 'What is it about?', required),
      q('bought_on', 'date', 'When did you get it?'),
      q('wrong', 'longText', 'What is wrong?', required),
      q('wish', 'choice', 'What would put it right?', {
        ...required,
        options: options(['mend', 'Mend it'], ['swap', 'Give me another'], ['money', 'Give the money back']),
      }),
      q('money_to', 'text', 'To which account?', { shownWhen: 'wish = "money"', ...required }),
    ]),
    section('who', 'About you', block('Person')),
  ]),
  template('visitor', 'Visitors', 'Who comes to whom, with what', [
    section('who', 'The visitor', [
      q('visitor_name', 'text', 'Name', required),
      q('visitor_firm', 'text', 'Company'),
      q('host', 'text', 'Whom do you visit?', required),
      q('car', 'yesNo', 'Do you come by car?', required),
      q('plate', 'text', 'Registration', { shownWhen: 'car = true', ...required }),
    ]),
    section('rules', 'House rules', block('Consent')),
  ]),
]
