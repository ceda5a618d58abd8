import { freeCode, takenCodes } from './codes'
import type { Form, Item, Section } from './definition'
import { locate, type Edit } from './edits'
import { skippedTo } from './rename'
import type { PlaceOf, Place } from './walk'

/**
 * The edits that merge a section with the one above. A rule of its own goes with its questions as a group around them; its routes follow
 * those of the section above; routes that led to it lead to what takes its place.
 */
export function mergeEdits(form: Form, place: PlaceOf<'section'>): Edit[] {
  const above = form.sections[place.section - 1]
  const own = form.sections[place.section]
  if (!above || !own) return []
  const group: Item[] =
    own.shownWhen === undefined && own.readOnly === undefined && own.validWhen === undefined
      ? own.items
      : [
          {
            kind: 'group',
            code: freeCode(own.code, takenCodes(form, 'item')),
            title: own.title,
            ...(own.shownWhen === undefined ? {} : { shownWhen: own.shownWhen }),
            ...(own.validWhen ? { validWhen: own.validWhen } : {}),
            ...(own.readOnly === undefined ? {} : { readOnly: own.readOnly }),
            items: own.items,
          },
        ]
  const routes = [...(above.routes ?? []), ...(own.routes ?? [])].filter(r => r.to !== own.code)
  const merged: Section = {
    ...above,
    items: [...above.items, ...group],
    ...(routes.length > 0 ? { routes } : {}),
  }
  if (routes.length === 0) delete merged.routes
  const index = place.section
  const repointed = form.sections.flatMap((s, i): Edit[] =>
    i < index - 1 && s.routes?.some(r => r.to === own.code)
      ? [
          {
            do: 'change',
            what: `section/${s.code}`,
            set: { routes: s.routes.map(r => (r.to === own.code ? { ...r, to: above.code } : r)) },
          },
        ]
      : [],
  )
  const first = own.items[0]
  return [
    ...repointed,
    ...(first ? skippedTo(form, place.address, `item/${first.code}`) : []),
    { do: 'remove', what: place.address },
    { do: 'remove', what: addressAt(form, index - 1) },
    { do: 'insert', into: 'sections', at: index - 1, node: merged },
  ]
}

/** The edits that begin a new section at an item that stands directly in one; what follows goes with it, and so do the routes. */
export function splitEdits(form: Form, place: Place, title: string): Edit[] {
  if (place.kind === 'section' || place.groups.length > 0) return []
  const own = form.sections[place.section]
  const { index } = locate(form, place.address)
  if (!own || index === 0) return []
  const code = freeCode(`${own.code.slice(0, 50)}_2`, takenCodes(form, 'section'))
  const { routes, ...rest } = own
  const first: Section = { ...rest, items: own.items.slice(0, index) }
  const second: Section = {
    code,
    title,
    ...(own.shownWhen === undefined ? {} : { shownWhen: own.shownWhen }),
    items: own.items.slice(index),
    ...(routes ? { routes } : {}),
  }
  return [
    { do: 'remove', what: addressAt(form, place.section) },
    { do: 'insert', into: 'sections', at: place.section, node: first },
    { do: 'insert', into: 'sections', at: place.section + 1, node: second },
  ]
}

/** The address of a section by its position, also where a code stands twice. */
function addressAt(form: Form, index: number): `section/${string}` {
  const code = form.sections[index]?.code ?? ''
  const nth = form.sections.slice(0, index + 1).filter(s => s.code === code).length
  return nth > 1 ? `section/${code}#${nth}` : `section/${code}`
}
