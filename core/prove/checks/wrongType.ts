import { example, section, text, whole } from './exampleForms'
import { wiringCheck } from './wiring'

export const wrongType = wiringCheck({
  code: 'wrong-type',
  about: 'A rule compares or combines values of different kinds, or is no condition at all.',
  raises: example(section('boat', [whole('crew'), text('skipper', { shownWhen: 'crew = "many"' })])),
  spares: example(section('boat', [whole('crew'), text('skipper', { shownWhen: 'crew = 4' })])),
})
