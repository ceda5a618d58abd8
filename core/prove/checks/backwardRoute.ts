import { FINISH } from '../../form/finish'
import { nearest } from '../../expressions/near'
import type { Edit } from '../../form/edits'
import type { PlaceOf } from '../../form/walk'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'backward-route', severity: 'fault' } as const

export const backwardRoute: Check = {
  ...kind,
  about:
    'A route leads to its own section, an earlier one, or one that does not exist. Routes only lead forward.',
  raises: example(
    section('boat', [yesNo('insured')]),
    section('cover', [text('insurer')], { routes: [{ when: 'insured = false', to: 'boat' }] }),
  ),
  spares: example(
    section('boat', [yesNo('insured')]),
    section('cover', [text('insurer')], { routes: [{ when: 'insured = false', to: 'finish' }] }),
  ),
  run: inquiry =>
    inquiry.model.plan.sections.flatMap(({ place }) =>
      (place.node.routes ?? []).flatMap((route, index) => {
        if (route.to === FINISH) return []
        const target = inquiry.form.sections.findIndex(s => s.code === route.to)
        if (target > place.section) return []
        const near =
          target < 0
            ? nearest(
                route.to,
                inquiry.form.sections.slice(place.section + 1).map(s => s.code),
              )
            : null
        const sentence =
          target < 0
            ? `A route of ${quotedName(place)} leads to “${route.to}”, which is no section.${near ? ` Did you mean “${near}”?` : ''}`
            : `A route of ${quotedName(place)} leads back to ${target === place.section ? 'itself' : `“${inquiry.form.sections[target]?.title ?? route.to}”`}; routes only lead forward.`
        return [
          finding(kind, place, sentence, {
            conflict: [partAt(place, 'route', index)],
            witness: inquiry.wayTo(place.section),
            mend: near ? { words: `Write ${near}`, edits: [routedTo(place, index, near)] } : null,
          }),
        ]
      }),
    ),
}

const routedTo = (place: PlaceOf<'section'>, index: number, to: string): Edit => ({
  do: 'change',
  what: place.address,
  set: { routes: place.node.routes?.map((r, i) => (i === index ? { ...r, to } : r)) },
})
