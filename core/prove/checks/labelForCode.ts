import { example, hull, section, text } from './exampleForms'
import { wiringCheck } from './wiring'

export const labelForCode = wiringCheck({
  code: 'label-for-code',
  about: 'A rule compares a choice with the label of one of its choices in place of the code.',
  raises: example(section('boat', [hull(), text('layup', { shownWhen: 'hull = "Glass fibre"' })])),
  spares: example(section('boat', [hull(), text('layup', { shownWhen: 'hull = "grp"' })])),
})
