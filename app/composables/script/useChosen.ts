import type { Spot } from '#core/form/clipboard'
import { locate } from '#core/form/edits'
import type { Address, Place } from '#core/form/walk'

/** The rows of the script that an action is about. */
export function useChosen() {
  const draft = useDraft()
  const placeAt = (address: Address | null) => draft.places.find(p => p.address === address) ?? null
  function chosen(): Address[] {
    if (draft.selection.length > 0) return [...draft.selection]
    return draft.selected ? [draft.selected] : []
  }
  /** Where something put below a row goes: into a section or group as its first, else right behind the row. */
  function spotBelow(place: Place): Spot {
    if (place.kind === 'section' || place.kind === 'group' || !draft.form)
      return { into: place.address, at: 0 }
    const found = locate(draft.form, place.address)
    return { into: found.container, at: found.index + 1 }
  }
  function selectAll(addresses: readonly Address[]) {
    draft.select(addresses[0] ?? null)
    for (const address of addresses.slice(1)) draft.select(address, 'toggle')
  }
  return { placeAt, chosen, spotBelow, selectAll }
}
