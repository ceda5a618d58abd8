import { expect, it } from 'vitest'
import { listPlaces } from '../form/walk'
import { section, text } from '../prove/checks/exampleForms'
import type { Form } from '../form/definition'
import { tellAccess } from './accessWords'

it('what a turn may do reads as a sentence, with what is excepted', () => {
  const form: Form = {
    ...{ tobbin: 2, code: 'f', title: 'F' },
    sections: [
      section('ask', [text('mast'), text('sails')]),
      section('price', [text('fee'), text('margin')]),
      section('sign', [text('word')]),
    ],
  }
  const tell = (access: Record<string, 'fills' | 'reads' | 'never'>) =>
    tellAccess(listPlaces(form), { code: 't', party: 'p', by: 'link', access })
  expect(tell({ ask: 'reads', price: 'fills', fee: 'reads', margin: 'never' })).toBe(
    'Fills Price (but reads Fee, never sees Margin); reads Ask; never sees Sign.',
  )
  expect(tell({ ask: 'fills', price: 'fills', word: 'fills', fee: 'fills' })).toBe(
    'Fills Ask and Price; never sees Sign (but fills Word).',
  )
  expect(tell({})).toBe('Never sees Ask, Price and Sign.')
})
