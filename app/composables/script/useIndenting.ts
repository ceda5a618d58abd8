import { sentenceText } from '#core/expressions/sentence'
import { locate } from '#core/form/edits'
import { ruleSentence } from '#core/form/names'
import { placeName } from '#core/form/walk'
import { useChosen } from './useChosen'
import { useScriptMoves } from './useScriptMoves'

/** Rows that go into the group above them, or out of the one they are in. */
export function useIndenting() {
  const draft = useDraft()
  const { sayDone } = useSaid()
  const { placeAt, chosen } = useChosen()
  const { moveTo } = useScriptMoves()
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
    const isMoved = moveTo({ into: before.address, at: before.node.items.length })
    const rule = before.node.shownWhen
    if (isMoved && rule !== undefined) {
      const words = draft.words && ruleSentence(rule, draft.words)
      const when = words ? `: when ${sentenceText(words)}` : ''
      sayDone(`“${placeName(place)}” is in “${placeName(before)}” now, and shows only when that does${when}.`)
    }
    return isMoved
  }
  function outdent(): boolean {
    const place = placeAt(chosen()[0] ?? null)
    const group = place?.groups.at(-1)
    if (!group || !draft.form) return false
    const outer = locate(draft.form, group.address)
    return moveTo({ into: outer.container, at: outer.index + 1 })
  }
  return { indent, outdent }
}
