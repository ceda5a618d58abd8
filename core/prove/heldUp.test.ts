import { expect, it } from 'vitest'
import { readForm } from '../form/read'
import { prove } from './prove'

it('an answer that a condition takes for given may be blank, and then the other way of an “if” holds people up', () => {
  const question = (code: string, more: object) => ({
    ...{ kind: 'question', type: 'integer', code, label: code },
    ...more,
  })
  const { form } = readForm({
    ...{ tobbin: 2, code: 'kiln', title: 'Kiln' },
    sections: [
      { code: 'load', title: 'Load', items: [question('shelves', { min: 3, max: 9 })] },
      {
        ...{ code: 'firing', title: 'Firing' },
        items: [
          question('cones', {
            ...{ min: 0, max: 3, required: true },
            validWhen: [
              { rule: 'if shelves >= 2 then cones = 0 else false', message: 'Say how many shelves.' },
            ],
          }),
        ],
      },
    ],
    promises: [{ code: 'counted', text: 'Shelves are counted', holds: 'shelves != null' }],
  })
  if (!form) throw new Error('the form does not fit')
  expect(prove(form, '2026-11-24').findings.filter(f => f.severity !== 'advice')).toEqual([])
})
