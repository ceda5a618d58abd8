import { block } from '../blocks'
import { options, q, section, template, type Template } from '../building'

const required = { required: true } as const
const kinds = options(
  ['holiday', 'Holiday'],
  ['sick', 'Illness'],
  ['care', 'Care of a child'],
  ['other', 'Another reason'],
)

/** Forms about people: those who work here, join, or take part. */
export const PEOPLE_TEMPLATES: readonly Template[] = [
  template('leave', 'Leave request', 'Who, which days, why; the days are counted', [
    section('who', 'About you', [
      q('employee', 'text', 'Your name', required),
      q('team', 'choice', 'Team', {
        ...required,
        display: 'dropDown',
        options: options(['yard', 'Yard'], ['office', 'Office'], ['stores', 'Stores']),
      }),
    ]),
    section('days', 'Which days', [
      q('kind', 'choice', 'What kind of leave?', { ...required, options: kinds }),
      q('kind_why', 'text', 'Which reason?', { shownWhen: 'kind = "other"', ...required }),
      ...block('Period'),
      q('days_off', 'value', 'Days in all', { value: '(to_day - from_day).days + 1' }),
      q('note_from_doctor', 'file', 'Note from a doctor', { shownWhen: 'kind = "sick" and days_off > 3' }),
      q('stands_in', 'text', 'Who stands in for you?', { shownWhen: 'kind = "holiday"', ...required }),
    ]),
  ]),
  template('onboarding', 'First day of a new colleague', 'Keys, devices and papers, ticked off', [
    section('who', 'The new colleague', [
      q('colleague', 'text', 'Name', required),
      q('starts_on', 'date', 'First day', required),
      q('works', 'choice', 'Where will they work?', {
        ...required,
        display: 'buttons',
        options: options(['desk', 'At a desk'], ['yard', 'In the yard']),
      }),
    ]),
    section(
      'desk',
      'At a desk',
      [
        q('devices', 'choices', 'Which devices are handed over?', {
          ...required,
          options: options(['laptop', 'Laptop'], ['phone', 'Phone'], ['screen', 'Screen']),
        }),
        q('laptop_no', 'text', 'Number of the laptop', {
          shownWhen: 'list contains(devices, "laptop")',
          ...required,
        }),
      ],
      { shownWhen: 'works = "desk"' },
    ),
    section(
      'yard',
      'In the yard',
      [
        q('boots', 'integer', 'Size of boots', { ...required, min: 34, max: 50 }),
        q('briefed', 'yesNo', 'Was the safety briefing given?', required),
        q('briefed_by', 'text', 'By whom?', { shownWhen: 'briefed = true', ...required }),
      ],
      { shownWhen: 'works = "yard"' },
    ),
    section('done', 'Handed over', [q('received', 'signature', 'Received', required)]),
  ]),
  template('volunteer', 'Volunteers', 'Who helps with what, and when', [
    section('who', 'About you', [...block('Person'), q('grown', 'yesNo', 'Are you 18 or older?', required)]),
    section(
      'guardian',
      'A parent or guardian',
      [
        q('guardian_name', 'text', 'Name of a parent or guardian', required),
        q('guardian_signature', 'signature', 'Signature of a parent or guardian', required),
      ],
      { shownWhen: 'grown = false' },
    ),
    section('help', 'How you would help', [
      q('tasks', 'choices', 'With what?', {
        ...required,
        options: options(
          ['build', 'Setting up'],
          ['kitchen', 'Kitchen'],
          ['gate', 'At the gate'],
          ['drive', 'Driving'],
        ),
        writeIn: true,
      }),
      q('licence', 'yesNo', 'Do you hold a driving licence?', {
        shownWhen: 'list contains(tasks, "drive")',
        ...required,
      }),
      q('hours', 'integer', 'For how many hours?', { min: 1, max: 12 }),
    ]),
  ]),
  template('event_sign_up', 'Sign-up for an event', 'Who comes, who comes along, what they eat', [
    section('you', 'About you', [...block('Person'), q('comes', 'yesNo', 'Will you come?', required)]),
    section(
      'guests',
      'Who comes along',
      [
        {
          kind: 'group',
          code: 'company',
          title: 'Guest',
          repeat: { max: 8, heading: '{{ guest_name }}', add: 'Add a guest' },
          items: [
            q('guest_name', 'text', 'Name', required),
            q('guest_meal', 'choice', 'Meal', {
              ...required,
              options: options(['fish', 'Fish'], ['meat', 'Meat'], ['plants', 'Without meat or fish']),
            }),
          ],
        },
        q('seats', 'value', 'Seats in all', { value: 'count(company) + 1' }),
        q('allergies', 'longText', 'Is there anything that somebody must not eat?'),
      ],
      { shownWhen: 'comes = true' },
    ),
  ]),
  template('photo_consent', 'Consent to photographs', 'What may be shown, and where', [
    section('who', 'Who is in the picture', [
      q('pictured', 'text', 'Name of the person', required),
      q('child', 'yesNo', 'Is this a child?', required),
      q('for_child', 'text', 'Name of a parent or guardian', { shownWhen: 'child = true', ...required }),
    ]),
    section('what', 'What is allowed', [
      q('uses', 'choices', 'Where may the pictures be shown?', {
        ...required,
        options: [
          ...options(['board', 'On our notice board'], ['web', 'On our pages'], ['print', 'In print']),
          { code: 'nowhere', label: 'Nowhere', alone: true },
        ],
      }),
      q('signed', 'signature', 'Signature', required),
    ]),
  ]),
  template('feedback_points', 'Feedback with points', 'Marks for several things, and their mean', [
    section('marks', 'How was it?', [
      ...(['Welcome', 'Work', 'Price'] as const).map(what =>
        q(what.toLowerCase(), 'scale', what, { ...required, min: 1, max: 5, low: 'poor', high: 'very good' }),
      ),
      q('points', 'value', 'Points of 15', { value: 'welcome + work + price' }),
      q('why_low', 'longText', 'What should we do better?', { shownWhen: 'points < 9' }),
      q('liked', 'longText', 'What did you like best?', { shownWhen: 'points >= 12' }),
    ]),
    section('again', 'Before you go', [
      q('reply', 'yesNo', 'May we reply to you?', required),
      q('reply_email', 'email', 'E-mail', { shownWhen: 'reply = true', ...required }),
    ]),
  ]),
]
