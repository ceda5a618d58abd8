import type { Place } from '../../form/walk'
import { freeCode } from '../../form/codes'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'duplicate-code', severity: 'fault' } as const

export const duplicateCode: Check = {
  ...kind,
  about:
    'Two questions, groups or notes have the same code, two sections have, or two choices of one question.',
  raises: example(section('boat', [text('name'), text('name')])),
  spares: example(section('boat', [text('name'), text('port')])),
  run: ({ model: { plan } }) => {
    const first = new Map<string, Place>()
    const taken = new Set(plan.places.map(p => p.code))
    return plan.places.flatMap(place => {
      const own =
        place.kind === 'question' && 'options' in place.node
          ? twice(place.node.options?.map(o => o.code) ?? [])
          : []
      const inside = own.map(code =>
        finding(kind, place, `${quotedName(place)} has the choice “${code}” twice.`, {
          conflict: [partAt(place)],
        }),
      )
      const key = `${place.kind === 'section' ? 'section' : 'item'}/${place.code}`
      const other = first.get(key)
      first.set(key, other ?? place)
      if (!other) return inside
      return [
        ...inside,
        finding(
          kind,
          place,
          `${quotedName(place)} has the code “${place.code}”, which ${quotedName(other)} has already.`,
          {
            conflict: [partAt(other), partAt(place)],
            mend: {
              words: `Give it the code ${freeCode(place.code, taken)}`,
              edits: [{ do: 'change', what: place.address, set: { code: freeCode(place.code, taken) } }],
            },
          },
        ),
      ]
    })
  },
}

const twice = (codes: readonly string[]) => [...new Set(codes.filter((code, i) => codes.indexOf(code) !== i))]
