import type { Form, Group, Item, Note, Section } from './definition'
import type { Question } from './questions'

interface InForm {
  code: string
  /** How people and edits point at it: `item/hull`, and `item/hull#2` for the second of that code. */
  address: Address
  /** The number in the script: `2`, `2.3`, `2.3.1`. */
  number: string
  /** The index of the section it stands in. */
  section: number
  /** The groups around it, outermost first. */
  groups: readonly GroupPlace[]
  /** The repeating group that it is asked in once per entry, the innermost; null outside of all. */
  entryOf: GroupPlace | null
  /** Position among all places, in the order of the form. */
  order: number
}
export type GroupPlace = InForm & { kind: 'group'; node: Group }
export type Place =
  | (InForm & { kind: 'section'; node: Section })
  | (InForm & { kind: 'question'; node: Question })
  | (InForm & { kind: 'note'; node: Note })
  | GroupPlace
export type PlaceOf<K extends Place['kind']> = Extract<Place, { kind: K }>

/** Where an edit or a finding points: a section, an item (question, note, group) or a choice list, by code. */
export type Address = `${'section' | 'item' | 'list'}/${string}`

/** Everything in a form, in its order: sections, and in them questions, notes and groups. */
export function listPlaces(form: Form): Place[] {
  const places: Place[] = []
  const seen = new Map<string, number>()
  const addressOf = (kind: 'section' | 'item', code: string): Address => {
    const key = `${kind}/${code}` as const
    const count = (seen.get(key) ?? 0) + 1
    seen.set(key, count)
    return count === 1 ? key : `${key}#${count}`
  }
  const visit = (items: readonly Item[], section: number, groups: readonly GroupPlace[], prefix: string) => {
    let count = 0
    for (const node of items) {
      // Notes are read, not answered; numbering skips them.
      const number = node.kind === 'note' ? '' : `${prefix}.${(count += 1)}`
      const { code } = node
      const address = addressOf('item', code)
      const entryOf = groups.findLast(g => g.node.repeat !== undefined) ?? null
      const order = places.length
      // Written out field by field, not spread: objects of one shape keep what walks over them fast.
      if (node.kind === 'question')
        places.push({ kind: 'question', code, address, number, section, groups, entryOf, order, node })
      else if (node.kind === 'note')
        places.push({ kind: 'note', code, address, number, section, groups, entryOf, order, node })
      else {
        const place: GroupPlace = {
          kind: 'group',
          code,
          address,
          number,
          section,
          groups,
          entryOf,
          order,
          node,
        }
        places.push(place)
        visit(node.items, section, [...groups, place], number)
      }
    }
  }
  form.sections.forEach((node, section) => {
    const number = String(section + 1)
    places.push({
      kind: 'section',
      code: node.code,
      address: addressOf('section', node.code),
      number,
      section,
      groups: [],
      entryOf: null,
      order: places.length,
      node,
    })
    visit(node.items, section, [], number)
  })
  return places
}

/** How a place is called for people: its label or title, or the beginning of a note. */
export function placeName(place: Place): string {
  const [line = ''] = nodeText(place.node).text.trim().split('\n')
  if (line === '') return place.code
  return line.length > 70 ? `${line.slice(0, 67)}…` : line
}

/** The text by which people know something, and the key under which it stands: a label, a title, the text of a note. */
export function nodeText(node: Section | Item): { key: 'label' | 'title' | 'text'; text: string } {
  if (!('kind' in node) || node.kind === 'group') return { key: 'title', text: node.title }
  if (node.kind === 'note') return { key: 'text', text: node.text }
  return { key: 'label', text: node.label }
}
