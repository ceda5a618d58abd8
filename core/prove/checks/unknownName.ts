import { example, section, text, yesNo } from './exampleForms'
import { wiringCheck } from './wiring'

export const unknownName = wiringCheck({
  code: 'unknown-name',
  about: 'A rule names a question that the form does not have.',
  raises: example(section('boat', [yesNo('insured'), text('insurer', { shownWhen: 'insurd = true' })])),
  spares: example(section('boat', [yesNo('insured'), text('insurer', { shownWhen: 'insured = true' })])),
})
