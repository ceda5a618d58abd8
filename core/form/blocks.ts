import { options, q } from './building'
import type { Item } from './definition'

/** A ready-made piece of a form, inserted like a copy: its codes are kept free of clashes. */
export interface Block {
  title: string
  about: string
  items: Item[]
}

/** The shelf of blocks. Each is proven clean by itself (a test sees to it). */
export const BLOCKS: readonly Block[] = [
  {
    title: 'Person',
    about: 'Name, e-mail, phone',
    items: [
      q('person_name', 'text', 'Name', { required: true }),
      q('person_email', 'email', 'E-mail', { required: true }),
      q('person_phone', 'phone', 'Phone'),
    ],
  },
  {
    title: 'Contact as preferred',
    about: 'Asks only for the way that was chosen',
    items: [
      q('contact_by', 'choice', 'How may we reach you?', {
        required: true,
        display: 'buttons',
        options: options(['mail', 'By e-mail'], ['phone', 'By phone'], ['post', 'By post']),
      }),
      q('contact_email', 'email', 'E-mail', { shownWhen: 'contact_by = "mail"', required: true }),
      q('contact_phone', 'phone', 'Phone', { shownWhen: 'contact_by = "phone"', required: true }),
      {
        kind: 'group',
        code: 'contact_post',
        title: 'Postal address',
        shownWhen: 'contact_by = "post"',
        items: [
          q('contact_street', 'text', 'Street and number', { required: true }),
          q('contact_town', 'text', 'Town', { required: true }),
          q('contact_postcode', 'text', 'Postcode'),
        ],
      },
    ],
  },
  {
    title: 'Address',
    about: 'Street, town, postcode, country',
    items: [
      {
        kind: 'group',
        code: 'address',
        title: 'Address',
        items: [
          q('street', 'text', 'Street and number', { required: true }),
          q('town', 'text', 'Town', { required: true }),
          q('postcode', 'text', 'Postcode', { required: true }),
          q('country', 'text', 'Country'),
        ],
      },
    ],
  },
  {
    title: 'Yes or no, with an explanation',
    about: 'A follow-up when the answer is yes',
    items: [
      q('anything', 'yesNo', 'Is there anything we should know?', { required: true }),
      q('anything_what', 'longText', 'Please explain', {
        shownWhen: 'anything = true',
        required: true,
        maxLength: 2000,
      }),
    ],
  },
  {
    title: 'Period',
    about: 'From and to, in order',
    items: [
      q('from_day', 'date', 'From', { required: true }),
      q('to_day', 'date', 'To', {
        required: true,
        validWhen: [{ rule: 'to_day >= from_day', message: 'This is before {{ from_day }}.' }],
      }),
    ],
  },
  {
    title: 'Consent',
    about: 'A text, agreement, and a signature',
    items: [
      {
        kind: 'note',
        code: 'consent_text',
        tone: 'plain',
        text: 'Please read what you agree to before you sign.',
      },
      q('consent', 'choice', 'Do you agree?', {
        required: true,
        display: 'buttons',
        options: options(['agree', 'I agree'], ['decline', 'I do not agree']),
      }),
      q('consent_signature', 'signature', 'Signature', { shownWhen: 'consent = "agree"', required: true }),
    ],
  },
  {
    title: 'List of things',
    about: 'As many entries as needed, with a total',
    items: [
      {
        kind: 'group',
        code: 'things',
        title: 'Things',
        repeat: { max: 20, heading: '{{ thing_name }}', add: 'Add one' },
        items: [
          q('thing_name', 'text', 'What', { required: true }),
          q('thing_pieces', 'integer', 'How many', { required: true, min: 1 }),
          q('thing_price', 'money', 'Price of one', { currency: 'EUR', required: true }),
          q('thing_sum', 'value', 'Sum', { value: 'thing_pieces * thing_price', currency: 'EUR' }),
        ],
      },
      q('things_total', 'value', 'Total', {
        value: 'if count(things) > 0 then sum(things.thing_sum) else 0',
        currency: 'EUR',
      }),
    ],
  },
  {
    title: 'How did we do?',
    about: 'A scale, and why when it is low',
    items: [
      q('rating', 'scale', 'How did it go?', {
        min: 1,
        max: 5,
        low: 'badly',
        high: 'very well',
        required: true,
      }),
      q('rating_why', 'longText', 'What went wrong?', { shownWhen: 'rating <= 2' }),
    ],
  },
]

/** The items of a block, by its title. */
export const block = (title: string): Item[] => BLOCKS.find(b => b.title === title)?.items ?? []
