import {
  clipOf,
  duplicateEdits,
  moveItemsEdits,
  pasteEdits,
  readClip,
  removeEdits,
  type Clip,
  type Spot,
} from '#core/form/clipboard'
import { newItem, newSection, type LineKind } from '#core/form/create'
import { locate, type Edit } from '#core/form/edits'
import { mergeEdits, splitEdits } from '#core/form/sections'
import { usesOf, type Use } from '#core/form/uses'
import type { Address, Place } from '#core/form/walk'

/** What can be done with the lines of the script; each is one undoable step. */
export function useScript() {
  const draft = useDraft()
  /** What the last step could not do in full. */
  const notes = useState<string[]>('script-notes', () => [])
  /** What is about to be deleted although something uses it. */
  const doomed = useState<{ addresses: Address[]; uses: Use[] } | null>('script-doomed', () => null)

  const placeAt = (address: Address | null) => draft.places.find(p => p.address === address) ?? null
  const chosen = () =>
    draft.selection.length > 0 ? [...draft.selection] : draft.selected ? [draft.selected] : []

  /** Where something put below a row goes: into a section or group as its first, else right behind the row. */
  function spotBelow(place: Place): Spot {
    if (place.kind === 'section' || place.kind === 'group' || !draft.form)
      return { into: place.address, at: 0 }
    const found = locate(draft.form, place.address)
    return { into: found.container, at: found.index + 1 }
  }

  /** Inserts typed lines below a row; gives the address of the last. */
  function addLines(lines: readonly string[], kind: LineKind, below: Place | null): Address | null {
    const { form } = draft
    if (!form) return null
    const codes: string[] = []
    const isSection = kind === 'section' || !below
    const edits = lines.map((line, i): Edit => {
      if (isSection)
        return {
          do: 'insert',
          into: 'sections',
          at: (below ? below.section + 1 : form.sections.length) + i,
          node: newSection(form, line),
        }
      const spot = spotBelow(below)
      const node = newItem(form, kind, line, codes)
      codes.push(node.code)
      return { do: 'insert', into: spot.into, at: spot.at + i, node }
    })
    if (!draft.edit(edits)) return null
    const last = edits[edits.length - 1]
    return last?.do === 'insert' ? `${isSection ? 'section' : 'item'}/${last.node.code}` : null
  }

  function copy(): string | null {
    const clip = draft.form && clipOf(draft.form, draft.places, chosen())
    return clip ? JSON.stringify(clip) : null
  }

  function pasteClip(clip: Clip) {
    const { form } = draft
    const below = placeAt(draft.selection.at(-1) ?? draft.selected) ?? draft.places.at(-1)
    if (!form || !below) return
    const made = pasteEdits(form, clip, spotBelow(below), below.section + 1)
    if (!draft.edit(made.edits)) return
    notes.value = made.notes
    selectAll(made.addresses)
  }
  const paste = (text: string): boolean => {
    const clip = readClip(text)
    if (clip) pasteClip(clip)
    return clip !== null
  }

  function selectAll(addresses: readonly Address[]) {
    draft.select(addresses[0] ?? null)
    for (const address of addresses.slice(1)) draft.select(address, 'toggle')
  }

  function duplicate() {
    if (!draft.form) return
    const made = duplicateEdits(draft.form, draft.places, chosen())
    if (draft.edit(made.edits)) selectAll(made.addresses)
  }

  /** Deletes what is selected; asks first when something else uses it. */
  function remove(addresses = chosen(), sure = false) {
    const { form } = draft
    if (!form || addresses.length === 0) return
    const uses = usesOf(form, draft.places, addresses)
    if (uses.length > 0 && !sure) {
      doomed.value = { addresses, uses }
      return
    }
    doomed.value = null
    const first = draft.places.findIndex(p => addresses.includes(p.address))
    const next = draft.places.slice(0, first).at(-1) ?? draft.places.find(p => !addresses.includes(p.address))
    if (draft.edit(removeEdits(form, draft.places, addresses)))
      draft.select(next && draft.places.some(p => p.address === next.address) ? next.address : null)
  }

  /** Moves what is selected one up or down; past the end of its group or section it goes on into what lies beyond. */
  function moveBy(by: 1 | -1) {
    const { form } = draft
    const addresses = chosen()
    const moving = draft.places.filter(p => addresses.includes(p.address))
    const place = by === 1 ? moving.at(-1) : moving[0]
    if (!form || !place) return
    const found = locate(form, place.address)
    const length =
      found.container === 'sections'
        ? form.sections.length
        : draft.places.filter(
            p => p.kind !== 'section' && locate(form, p.address).container === found.container,
          ).length
    const to = found.index + by
    if (to >= 0 && to < length)
      draft.edit(moveItemsEdits(form, addresses, { into: found.container, at: by === 1 ? to + 1 : to }))
    else if (place.kind !== 'section') moveOut(addresses, place, by)
  }
  function moveOut(addresses: Address[], place: Place, by: 1 | -1) {
    const { form } = draft
    if (!form) return
    const group = place.groups.at(-1)
    if (group) {
      const outer = locate(form, group.address)
      draft.edit(
        moveItemsEdits(form, addresses, { into: outer.container, at: outer.index + (by === 1 ? 1 : 0) }),
      )
      return
    }
    const next = form.sections[place.section + by]
    const address = draft.places.find(p => p.kind === 'section' && p.section === place.section + by)?.address
    if (next && address)
      draft.edit(moveItemsEdits(form, addresses, { into: address, at: by === 1 ? 0 : next.items.length }))
  }

  const moveTo = (spot: Spot, addresses = chosen()) =>
    draft.form !== null && draft.edit(moveItemsEdits(draft.form, addresses, spot))

  function indent(): boolean {
    const { form } = draft
    const place = placeAt(chosen()[0] ?? null)
    if (!form || !place || place.kind === 'section') return false
    const found = locate(form, place.address)
    const before = draft.places
      .filter(
        p => p.order < place.order && p.section === place.section && p.groups.length === place.groups.length,
      )
      .at(-1)
    if (before?.kind !== 'group' || locate(form, before.address).index !== found.index - 1) return false
    return moveTo({ into: before.address, at: before.node.items.length })
  }
  function outdent(): boolean {
    const place = placeAt(chosen()[0] ?? null)
    const group = place?.groups.at(-1)
    if (!group || !draft.form) return false
    const outer = locate(draft.form, group.address)
    return moveTo({ into: outer.container, at: outer.index + 1 })
  }

  /** Puts what is selected into a new group where the first of it stands. */
  function group() {
    const { form } = draft
    const addresses = chosen()
    const first = draft.places.find(p => addresses.includes(p.address))
    if (!form || !first || first.kind === 'section') return
    const found = locate(form, first.address)
    const node = newItem(form, 'group', 'New group')
    const insert: Edit = { do: 'insert', into: found.container, at: found.index, node }
    const moves = addresses
      .filter(a => a.startsWith('item/'))
      .map((what, at): Edit => ({ do: 'move', what, into: `item/${node.code}`, at }))
    if (draft.edit([insert, ...moves])) draft.select(`item/${node.code}`)
  }

  function merge() {
    const place = placeAt(draft.selected)
    if (draft.form && place?.kind === 'section') draft.edit(mergeEdits(draft.form, place))
  }
  function split() {
    const place = placeAt(draft.selected)
    if (draft.form && place) draft.edit(splitEdits(draft.form, place, 'New section'))
  }
  return {
    notes,
    doomed,
    placeAt,
    chosen,
    spotBelow,
    addLines,
    copy,
    paste,
    pasteClip,
    selectAll,
    duplicate,
    remove,
    moveBy,
    moveTo,
    indent,
    outdent,
    group,
    merge,
    split,
  }
}
