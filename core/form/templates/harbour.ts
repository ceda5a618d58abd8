import { block } from '../blocks'
import { options, q, section, type Template } from '../building'

/** Forms around boats and guests. */
export const HARBOUR_TEMPLATES: readonly Template[] = [
  {
    title: 'Visitor’s berth',
    about: 'Who comes, with what boat, for which nights',
    form: {
      tobbin: 2,
      code: 'visitor_berth',
      title: 'Visitor’s berth',
      language: 'en',
      sections: [
        section('who', 'About you', block('Person')),
        section('boat', 'Your boat', [
          q('boat', 'text', 'Boat’s name', { required: true }),
          q('length', 'decimal', 'Length over all', { unit: 'm', min: 2, max: 40, required: true }),
          q('wide', 'yesNo', 'Is she a multihull?', { required: true }),
          q('beam', 'decimal', 'Beam', {
            unit: 'm',
            min: 1,
            max: 15,
            shownWhen: 'wide = true',
            required: true,
          }),
        ]),
        section('stay', 'Your stay', [
          ...block('Period'),
          q('nights', 'value', 'Nights', { value: '(to_day - from_day).days' }),
          q('power', 'choices', 'What do you need?', {
            options: options(['shore', 'Shore power'], ['water', 'Water'], ['pump', 'Pump-out']),
          }),
        ]),
      ],
    },
  },
  {
    title: 'Accident report',
    about: 'What happened, who was hurt, photographs',
    form: {
      tobbin: 2,
      code: 'accident',
      title: 'Accident report',
      language: 'en',
      sections: [
        section('what', 'What happened', [
          q('happened_at', 'dateTime', 'When?', { required: true }),
          q('where', 'choice', 'Where?', {
            required: true,
            options: options(
              ['slip', 'On the slipway'],
              ['hard', 'On the hard'],
              ['pontoon', 'On a pontoon'],
            ),
            writeIn: true,
          }),
          q('told', 'longText', 'What happened?', { required: true }),
          q('hurt', 'yesNo', 'Was anybody hurt?', { required: true }),
          q('photos', 'file', 'Photographs', { kinds: ['image'], most: 5 }),
        ]),
        {
          ...section('injured', 'Who was hurt', [
            {
              kind: 'group',
              code: 'people',
              title: 'Person',
              repeat: { min: 1, max: 10, heading: '{{ hurt_name }}', add: 'Add a person' },
              items: [
                q('hurt_name', 'text', 'Name', { required: true }),
                q('hurt_how', 'text', 'What injury?', { required: true }),
                q('hurt_doctor', 'yesNo', 'Was a doctor called?', { required: true }),
              ],
            },
          ]),
          shownWhen: 'hurt = true',
        },
        section('who', 'Who reports', block('Person')),
      ],
    },
  },
  {
    title: 'Feedback, one question at a time',
    about: 'A score, why, and consent',
    form: {
      tobbin: 2,
      code: 'feedback',
      title: 'Feedback',
      language: 'en',
      pace: 'question',
      sections: [
        section('ask', 'How did we do?', [
          ...block('How did we do?'),
          q('again', 'yesNo', 'Will you come again?', { required: true }),
        ]),
      ],
      closings: [{ code: 'thanks', title: 'Thank you', text: 'Your answers help us to do better.' }],
    },
  },
]
