import { moveItemsEdits, type Spot } from '#core/form/clipboard'
import { locate } from '#core/form/edits'
import type { Address, Place } from '#core/form/walk'
import { useChosen } from './useChosen'

/** Rows that move within the script. */
export function useScriptMoves() {
  const draft = useDraft()
  const { placeAt, chosen, spotBelow } = useChosen()
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

  /** A row dropped on another goes right below it; on a section or group, to its beginning. What is selected with it goes along. False when it can't. */
  function dropOn(dragged: Address, onto: Address): boolean {
    const target = placeAt(onto)
    const place = placeAt(dragged)
    if (!place || !target || dragged === onto) return false
    const all = draft.selection.includes(dragged) ? [...draft.selection] : [dragged]
    if (place.kind !== 'section') return moveTo(spotBelow(target), all)
    const leavesBefore = target.kind === 'section' && target.section < place.section
    return moveTo({ into: 'sections', at: target.section + (leavesBefore ? 0 : 1) }, all)
  }
  return { moveBy, moveTo, dropOn }
}
