import type { Form } from '../form/definition'
import { listPlaces } from '../form/walk'
import { accessViewOf, maySee } from './access'
import { turnOf } from './turns'

/** What becomes of a turn from one state of a form to another: it stays, it or something that it sees is another, or it is gone. */
export type TurnChange = 'same' | 'changed' | 'gone'

/** What a turn fills and reads of a form, and how it is handed off, written out. */
function sightOf(form: Form, code: string): string | null {
  const turn = turnOf(form, code)
  if (!turn) return null
  const places = listPlaces(form)
  const view = accessViewOf(form, places, turn)
  const seen = places.filter(place => maySee(view, place))
  // What stands inside has a place of its own.
  const bare = seen.map(({ address, node, order }) => [address, view.at[order], { ...node, items: null }])
  const lists = new Set(seen.flatMap(({ node }) => ('list' in node ? [node.list] : [])))
  return JSON.stringify([turn, bare, form.lists?.filter(list => lists.has(list.code))])
}

/** What becomes of a turn, by its code. */
export function turnChange(before: Form, after: Form, code: string): TurnChange {
  const now = sightOf(after, code)
  if (now === null) return 'gone'
  return sightOf(before, code) === now ? 'same' : 'changed'
}
