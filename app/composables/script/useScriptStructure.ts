import { removeEdits } from '#core/form/clipboard'
import { newItem } from '#core/form/create'
import { locate, type Edit } from '#core/form/edits'
import { GIVEN_TITLES } from '#core/form/givenTitles'
import { mergeEdits, splitEdits } from '#core/form/sections'
import { usesOf } from '#core/form/uses'
import { useChosen } from './useChosen'

/** Rows that are taken out of the script, put into groups, and sections that are joined or split. */
export function useScriptStructure() {
  const draft = useDraft()
  const notices = useScriptNotices()
  const { sayDone } = useSaid()
  const { placeAt, chosen } = useChosen()
  /** Deletes what is selected; asks first when something else uses it. */
  function remove(addresses = chosen(), sure = false) {
    const { form } = draft
    if (!form || addresses.length === 0) return
    const uses = usesOf(form, draft.places, addresses)
    if (uses.length > 0 && !sure) {
      notices.doomed = { addresses, uses }
      return
    }
    notices.doomed = null
    const first = draft.places.findIndex(p => addresses.includes(p.address))
    const next = draft.places.slice(0, first).at(-1) ?? draft.places.find(p => !addresses.includes(p.address))
    if (!draft.edit(removeEdits(form, draft.places, addresses))) return
    draft.select(next && draft.places.some(p => p.address === next.address) ? next.address : null)
    sayDone(`${counted(addresses.length, 'line')} deleted.`)
  }
  /** Puts what is selected into a new group where the first of it stands. */
  function group() {
    const { form } = draft
    const addresses = chosen()
    const first = draft.places.find(p => addresses.includes(p.address))
    if (!form || !first || first.kind === 'section') return
    const found = locate(form, first.address)
    const node = newItem(form, 'group', GIVEN_TITLES.group)
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
    if (draft.form && place) draft.edit(splitEdits(draft.form, place, GIVEN_TITLES.section))
  }
  return { remove, group, merge, split }
}
