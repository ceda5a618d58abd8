import { defineStore } from 'pinia'
import type { Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { overtaking, useKeptHistory } from './draft/useKeptHistory'
import { useDraftFacts } from './draft/useDraftFacts'
import { useDraftForm } from './draft/useDraftForm'
import { useDraftRights } from './draft/useDraftRights'
import { useEditHistory } from './draft/useEditHistory'
import { useHeldSteps } from './draft/useHeldSteps'
import { useSelection } from './draft/useSelection'
import { newSharedState, useSynchronising } from './draft/useSynchronising'
import { useUndoableEdits } from './draft/useUndoableEdits'

/** The draft that is being written: every edit at once in the form, undoable, and on its way to the server, where others' edits come from. */
export const useDraft = defineStore('draft', () => {
  const id = ref('')
  const { know, departFromReleases, ...facts } = useDraftFacts()
  const { closed, ...rights } = useDraftRights()
  const { isSuggesting } = rights
  const { apply, ...document } = useDraftForm()
  const selection = useSelection(document.places)
  const history = useEditHistory()
  const { selected } = selection
  const overtake = overtaking(history)
  const shared = newSharedState(id, document.form)
  const { begin, queue, ...sync } = useSynchronising(shared, { selected, overtake }, isSuggesting)
  const held = useHeldSteps(shared, isSuggesting)
  const recallSteps = useKeptHistory({ id, history, ...sync })

  async function load(formId: string) {
    const loaded = await callApi(API.loadForm, { params: { id: formId } })
    const isOther = formId !== id.value
    id.value = formId
    document.form.value = loaded.draft
    document.refused.value = null
    know(loaded)
    rights.powers.value = loaded.powers
    begin(loaded.draft, loaded.revision, loaded.savedAt)
    if (isSuggesting.value) held.recall()
    if (!isOther) return
    selection.select(null)
    await recallSteps(loaded.draft)
  }
  /** Edits that were made are on their way, so that the draft is not any release's any more; or held until they are proposed. */
  function send(edits: readonly Edit[]) {
    if (isSuggesting.value) return held.hold(edits)
    departFromReleases()
    queue(edits)
  }
  /** What is held is proposed, or thrown away: from now on the draft is the one that all see. */
  function letGo() {
    history.begin(null)
    held.letGo()
    selection.select(null)
  }
  const editing = useUndoableEdits({ apply, send, history, selection, closed })
  const { past, future } = history
  return {
    id,
    ...facts,
    ...rights,
    held: held.steps,
    letGo,
    ...document,
    ...sync,
    ...selection,
    past,
    future,
    load,
    ...editing,
  }
})
