import { defineStore } from 'pinia'
import type { Edit } from '#core/form/edits'
import type { Accepted } from '#core/prove/acceptance'
import { API } from '#shared/api/endpoints'
import type { ReleaseBrief } from '#shared/api/releases'
import type { Power } from '#shared/api/sharing'
import { callApi } from '~/api/callApi'
import { overtaking, useKeptHistory } from './draft/useKeptHistory'
import { useDraftForm } from './draft/useDraftForm'
import { useEditHistory } from './draft/useEditHistory'
import { useSelection } from './draft/useSelection'
import { useSynchronising } from './draft/useSynchronising'
import { useUndoableEdits } from './draft/useUndoableEdits'

/** The draft that is being written: every edit at once in the form, undoable, and on its way to the server, where others' edits come from. */
export const useDraft = defineStore('draft', () => {
  const id = ref('')
  const releases = ref<ReleaseBrief[]>([])
  /** How many responses there are to all releases; null for who may not see them. */
  const responses = ref<number | null>(0)
  /** What this person may do with the form. */
  const powers = shallowRef<readonly Power[]>([])
  const may = (power: Power) => powers.value.includes(power)
  /** Risks that somebody has accepted. */
  const accepted = shallowRef<readonly Accepted[]>([])
  const { apply, ...document } = useDraftForm()
  const selection = useSelection(document.places)
  const history = useEditHistory()
  const { selected } = selection
  const overtake = overtaking(history)
  const { begin, queue, ...sync } = useSynchronising(id, document.form, { selected, overtake })
  const recallSteps = useKeptHistory({ id, history, ...sync })

  async function load(formId: string) {
    const loaded = await callApi(API.loadForm, { params: { id: formId } })
    const isOther = formId !== id.value
    id.value = formId
    document.form.value = loaded.draft
    document.refused.value = null
    releases.value = loaded.releases
    responses.value = loaded.responses
    powers.value = loaded.powers
    accepted.value = loaded.accepted
    begin(loaded.draft, loaded.revision, loaded.savedAt)
    if (!isOther) return
    selection.select(null)
    await recallSteps(loaded.draft)
  }
  /** Edits that were made are on their way: the draft is not any release's any more. */
  function send(edits: readonly Edit[]) {
    releases.value = releases.value.map(r => ({ ...r, sameAsDraft: false }))
    queue(edits)
  }
  const closed = () => (may('design') ? null : 'You may look at this form, not change it.')
  const editing = useUndoableEdits({ apply, send, history, selection, closed })
  const { past, future } = history
  return {
    id,
    releases,
    responses,
    powers,
    may,
    accepted,
    ...document,
    ...sync,
    ...selection,
    past,
    future,
    load,
    ...editing,
  }
})
