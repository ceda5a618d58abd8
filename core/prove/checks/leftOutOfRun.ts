import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt } from './check'
import type { Place } from '../../form/walk'
import { example, section, text, yesNo } from './exampleForms'

const kind = { code: 'left-out-of-run', severity: 'advice' } as const
/** So many neighbours share a rule before it is odd that one between them has none. */
const FEWEST = 3
const run = (third: string | undefined) =>
  example(
    section('cover', [
      yesNo('insured'),
      ...['insurer', 'policy', 'until', 'excess'].map((code, i) =>
        text(code, { shownWhen: i === 2 ? third : 'insured = true' }),
      ),
      text('remarks'),
    ]),
  )

export const leftOutOfRun: Check = {
  ...kind,
  about: 'One thing between neighbours that all have the same shown-when rule has none.',
  raises: run(undefined),
  spares: run('insured = true'),
  run: inquiry =>
    inquiry.model.plan.places.flatMap((place): Finding[] => {
      if (place.kind === 'section' || place.node.shownWhen !== undefined) return []
      const around = siblingsOf(inquiry, place)
      const at = around.indexOf(place)
      const rule = around[at - 1]?.node.shownWhen
      if (rule === undefined || around[at + 1]?.node.shownWhen !== rule) return []
      const count = (step: 1 | -1) => {
        let n = 0
        while (around[at + step * (n + 1)]?.node.shownWhen === rule) n += 1
        return n
      }
      if (count(1) + count(-1) < FEWEST) return []
      return [
        finding(
          kind,
          place,
          `${quotedName(place)} is always shown, while its neighbours above and below are shown only when ${rule}.`,
          {
            conflict: [
              partAt(place),
              ...[at - 1, at + 1].flatMap(i => {
                const other = around[i]
                return other ? [partAt(other, 'shownWhen')] : []
              }),
            ],
            witness: inquiry.wayTo(place.section),
            mend: {
              words: 'Give it the same rule',
              edits: [{ do: 'change', what: place.address, set: { shownWhen: rule } }],
            },
          },
        ),
      ]
    }),
}

const SIBLINGS = new WeakMap<Inquiry, Map<string, Place[]>>()
function siblingsOf(inquiry: Inquiry, place: Place): Place[] {
  const keyOf = (p: Place) => `${p.section}:${p.groups.at(-1)?.order ?? -1}`
  const known = SIBLINGS.get(inquiry) ?? new Map<string, Place[]>()
  if (!SIBLINGS.has(inquiry)) {
    for (const p of inquiry.model.plan.places)
      if (p.kind !== 'section') known.set(keyOf(p), [...(known.get(keyOf(p)) ?? []), p])
    SIBLINGS.set(inquiry, known)
  }
  return known.get(keyOf(place)) ?? []
}
