import { nearest } from '../../expressions/near'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
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
      routes.flatMap((route): Finding[] => {
        const codes = form.closings?.map(c => c.code) ?? []
        if (route.closing === null || codes.includes(route.closing)) return []
        const sentence = `A route of ${quotedName(place)} names the closing “${route.closing}”, which there is not.`
        const near = nearest(route.closing, codes)
        return [
          finding(kind, place, sentence, {
            conflict: [partAt(place, 'route', route.index)],
            mend: near === null ? null : withClosing(place, route.index, near),
          }),
        ]
      }),
    ),
}

/** The edit that has a route name another closing. */
function withClosing(place: Place, index: number, closing: string): Finding['mend'] {
  const routes = place.kind === 'section' ? place.node.routes : undefined
  const mended = routes?.map((route, i) => (i === index ? { ...route, closing } : route))
  return {
    words: `Write ${closing}`,
    edits: [{ do: 'change', what: place.address, set: { routes: mended } }],
  }
}
