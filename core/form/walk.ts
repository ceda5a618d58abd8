import type {
  ChoiceList,
  ChoiceType,
  Form,
  Group,
  Item,
  Note,
  Question,
  QuestionOf,
  Row,
  Section,
} from './definition'

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
export function outline(form: Form): Place[] {
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

/** The code of the choice that asks for its own text. */
export const WRITE_IN = 'other'

/** A row that a choice offers: an option of the question, or a row of its list. */
export type OfferedRow = Row & { points?: number; price?: number; shownWhen?: string; alone?: boolean }

/** The rows that a choice question offers at most, before any narrowing; null when its list does not exist. */
export function optionsOf(form: Form, question: QuestionOf<ChoiceType>): readonly OfferedRow[] | null {
  if (question.list === undefined) return question.options ?? []
  const list = form.lists?.find(l => l.code === question.list)
  return list ? liveRows(list) : null
}

const LIVE = new WeakMap<ChoiceList, readonly Row[]>()
/** The rows of a list that are not retired. */
function liveRows(list: ChoiceList): readonly Row[] {
  const known = LIVE.get(list)
  if (known) return known
  const rows = list.rows.some(r => r.retired === true)
    ? list.rows.filter(row => row.retired !== true)
    : list.rows
  LIVE.set(list, rows)
  return rows
}

/** How a place is called for people: its label or title, or the beginning of a note. */
export function placeName(place: Place): string {
  const text =
    place.kind === 'question' ? place.node.label : place.kind === 'note' ? place.node.text : place.node.title
  const line = text.trim().split('\n')[0] ?? ''
  return line === '' ? place.code : line.length > 70 ? `${line.slice(0, 67)}…` : line
}
