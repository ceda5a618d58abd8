import { example, hull, section, text } from './exampleForms'
import { wiringCheck } from './wiring'

export const unknownCode = wiringCheck({
  code: 'unknown-code',
  about: 'A rule compares a choice with a code that is not among its choices.',
  raises: example(section('boat', [hull(), text('planking', { shownWhen: 'hull = "wod"' })])),
  spares: example(section('boat', [hull(), text('planking', { shownWhen: 'hull = "wood"' })])),
})
