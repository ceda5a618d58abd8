import type { Edit } from '#core/form/edits'
import { withStorableTexts } from '#core/form/storableText'
import type { useDraftForm } from './useDraftForm'
import type { useEditHistory } from './useEditHistory'
import type { useSelection } from './useSelection'

interface Parts {
  apply: ReturnType<typeof useDraftForm>['apply']
  /** Sends edits that were made on their way. */
  send: (edits: readonly Edit[]) => void
  history: ReturnType<typeof useEditHistory>
  selection: ReturnType<typeof useSelection>
  /** Why nothing may be edited here; null: it may. */
  closed: () => string | null
}

/** Edits of a draft that can be undone and made again. */
export function useUndoableEdits({ apply, send, history, selection, closed }: Parts) {
  /** Edits nothing where somebody may only look, and says so. */
  function isClosed(): boolean {
    const why = closed()
    if (why !== null) useSaid().say(why)
    return why !== null
  }
  /**
   * Makes edits. With `merge`, edits of the same thing in quick succession (typing in one field) are undone together.
   * Gives false, with the reason in `refused`, when they can't be made.
   */
  function edit(given: Edit[], merge: string | null = null): boolean {
    if (given.length === 0 || isClosed()) return false
    // What the store can't hold is taken out here as it is there: both stay the same.
    const edits = withStorableTexts(given)
    const back = apply(edits)
    if (!back) return false
    history.remember({ forward: edits, back, merge, at: Date.now(), selected: selection.selected.value })
    send(edits)
    return true
  }
  /** Edits that were made by the server: undone here like one's own. */
  function rememberTaken(forward: readonly Edit[], back: readonly Edit[]) {
    history.remember({ forward, back, merge: null, at: Date.now(), selected: selection.selected.value })
  }
  /** Makes the edits of an undo or redo step; one that others have made impossible is said and let go. */
  function makeStep(edits: readonly Edit[]): boolean {
    const made = apply([...edits], reason => `This step can’t be made any more: ${reason}`)
    if (made) send(edits)
    return made !== null
  }
  function undo() {
    const undone = history.undo(makeStep)
    if (undone) selection.select(undone.selected)
  }
  const redo = () => history.redo(makeStep)
  return { edit, undo, redo, rememberTaken }
}
