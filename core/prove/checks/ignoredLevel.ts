import { nodesOf } from '../../expressions/tree'
import { linksOf } from '../../lists/integrity'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { GOOD_ROWS, withLists } from './rows'

const kind = { code: 'ignored-level', severity: 'risk' } as const

export const ignoredLevel: Check = {
  ...kind,
  about:
    'A choice is not narrowed by an earlier one, though a column of its list says which of that one’s rows each belongs to.',
  raises: withLists(GOOD_ROWS, { narrowedBy: undefined }),
  spares: withLists(GOOD_ROWS),
  run: ({ form, model: { plan } }) => {
    const links = linksOf(form.lists ?? [])
    return plan.questions.flatMap(({ place, offer }): Finding[] => {
      const { node } = place
      if ((node.type !== 'choice' && node.type !== 'choices') || node.list === undefined) return []
      const used = new Set(
        offer?.narrow?.expr
          ? nodesOf(offer.narrow.expr).flatMap(n => (n.kind === 'path' ? [n.member] : []))
          : [],
      )
      // A rule with an error is reported by itself.
      if (node.narrowedBy !== undefined && !offer?.narrow?.expr) return []
      return links
        .filter(l => l.list === node.list && !used.has(l.column))
        .flatMap(link => {
          const parent = plan.questions.find(
            q =>
              q.place.order < place.order &&
              'list' in q.place.node &&
              q.place.node.list === link.parent &&
              (q.place.entryOf === null || q.place.entryOf === place.entryOf),
          )
          if (!parent) return []
          const rule =
            parent.place.node.type === 'choices'
              ? `list contains(${parent.place.code}, row.${link.column})`
              : `row.${link.column} = ${parent.place.code}`
          return [
            finding(
              kind,
              place,
              `${quotedName(place)} is not narrowed by ${quotedName(parent.place)}, though the column “${link.column}” of its list says which it belongs to.`,
              {
                conflict: [partAt(place, node.narrowedBy === undefined ? 'place' : 'narrowedBy')],
                mend: {
                  words: `Narrow it by ${quotedName(parent.place)}`,
                  edits: [
                    {
                      do: 'change',
                      what: place.address,
                      set: {
                        narrowedBy: node.narrowedBy === undefined ? rule : `(${node.narrowedBy}) and ${rule}`,
                      },
                    },
                  ],
                },
              },
            ),
          ]
        })
    })
  },
}
