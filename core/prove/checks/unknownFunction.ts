import { example, section, text } from './exampleForms'
import { wiringCheck } from './wiring'

export const unknownFunction = wiringCheck({
  code: 'unknown-function',
  about: 'A rule calls a function that the rule language does not have.',
  raises: example(section('boat', [text('name'), text('motto', { shownWhen: 'size(name) > 3' })])),
  spares: example(section('boat', [text('name'), text('motto', { shownWhen: 'string length(name) > 3' })])),
})
