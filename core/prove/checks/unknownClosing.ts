import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'unknown-closing', severity: 'fault' } as const
const boat = section('boat', [text('owner')], { routes: [{ to: 'finish', closing: 'sorry' }] })

export const unknownClosing: Check = {
  ...kind,
  about: 'A route to the finish names a closing that the form does not have.',
  raises: { ...example(boat), closings: [{ code: 'thanks', text: 'Thank you.' }] },
  spares: { ...example(boat), closings: [{ code: 'sorry', text: 'We can’t lift her.' }] },
  run: ({ form, model }) =>
    model.plan.sections.flatMap(({ place, routes }) =>
      routes
        .filter(r => r.closing !== null && !form.closings?.some(c => c.code === r.closing))
        .map(r =>
          finding(
            kind,
            place,
            `A route of ${quotedName(place)} names the closing “${r.closing}”, which there is not.`,
            { conflict: [partAt(place, 'route', r.index)] },
          ),
        ),
    ),
}
