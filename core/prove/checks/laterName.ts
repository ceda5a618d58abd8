import { example, section, text, yesNo } from './exampleForms'
import { wiringCheck } from './wiring'

export const laterName = wiringCheck({
  code: 'later-name',
  about: 'A rule names a question of a later section, whose answer is not known yet.',
  raises: example(
    section('boat', [text('insurer', { shownWhen: 'insured = true' })]),
    section('cover', [yesNo('insured')]),
  ),
  spares: example(
    section('cover', [yesNo('insured')]),
    section('boat', [text('insurer', { shownWhen: 'insured = true' })]),
  ),
})
