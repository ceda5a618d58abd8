import { nodesOf } from '../../expressions/tree'
import { splitQuotes } from '../../form/quotes'
import { columnsOf } from '../../form/types'
import { textsAt } from '../../form/texts'
import type { Finding } from '../finding'
import type { Check } from './check'
import { GOOD_ROWS, withLists } from './rows'

const kind = { code: 'unused-column', severity: 'advice' } as const

export const unusedColumn: Check = {
  ...kind,
  about: 'No narrowing, rule or quote uses a column of a list.',
  raises: {
    ...withLists(GOOD_ROWS),
    lists: withLists(GOOD_ROWS).lists?.map(l =>
      l.code === 'harbours' ? { ...l, columns: ['coast', 'depth'] } : l,
    ),
  },
  spares: withLists(GOOD_ROWS),
  run: ({ form, model: { plan, rules } }) => {
    const used = new Set(
      rules.flatMap(r => (r.expr ? nodesOf(r.expr) : [])).flatMap(n => (n.kind === 'path' ? [n.member] : [])),
    )
    for (const piece of plan.places.flatMap(textsAt).flatMap(t => splitQuotes(t.text)))
      if (piece.kind === 'quote')
        for (const [, member = ''] of piece.source.matchAll(/\.\s*([a-z][a-z0-9_]*)/g)) used.add(member)
    const asked = new Set(
      plan.questions.flatMap(q =>
        'list' in q.place.node && q.place.node.list !== undefined ? [q.place.node.list] : [],
      ),
    )
    return (
      (form.lists ?? [])
        // The columns of a list of people come with it.
        .filter(l => asked.has(l.code) && l.people === undefined)
        .flatMap(list =>
          columnsOf(list)
            .filter(c => !used.has(c.code) && !(list.rows.length === 0))
            .map((c): Finding => ({
              ...kind,
              at: list.code,
              address: `list/${list.code}`,
              rule: null,
              sentence: `Nothing uses the column “${c.label}” of the list “${list.title ?? list.code}”.`,
              conflict: [],
              turn: null,
              marked: null,
              inList: { rows: list.rows.slice(0, 5).map((_, at) => at), column: c.code },
              witness: null,
              folded: [],
              today: null,
              mend: null,
            })),
        )
    )
  },
}
