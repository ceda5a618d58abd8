import type { Ref } from 'vue'
import type { Form } from '#core/form/definition'
import type { Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { isWithin } from './clashes'
import { keepSteps, keptSteps } from './keptSteps'
import { withoutOvertaken } from './overtaken'
import type { useEditHistory } from './useEditHistory'
import type { SaveState } from './useSynchronising'

interface Parts {
  id: Ref<string>
  revision: Ref<number>
  save: Ref<SaveState>
  history: ReturnType<typeof useEditHistory>
}

/** What others changed since is no longer one's own to take back. */
export const overtaking =
  (history: ReturnType<typeof useEditHistory>) => (theirs: readonly Edit[], before: Form) =>
    history.overtake(step => withoutOvertaken(step, theirs, (what, c) => isWithin(before, what, c)))

/** Keeps the steps of a draft in this tab, so that a reload does not end undo. */
export function useKeptHistory({ id, revision, save, history }: Parts) {
  watch([history.past, history.future, save], ([past, future, { kind }]) => {
    if (id.value && kind === 'saved') keepSteps(id.value, { revision: revision.value, past, future })
  })
  /** The steps of before a reload, without what others have changed since. */
  return async (draft: Form) => {
    const kept = keptSteps(id.value)
    const isUsable = kept !== null && kept.revision <= revision.value
    history.begin(isUsable ? kept : null)
    if (!isUsable || kept.revision === revision.value) return
    const query = { since: kept.revision }
    const changes = await callApi(API.loadChanges, { params: { id: id.value }, query })
    const theirs = changes.flatMap(c => c.edits)
    overtaking(history)(theirs, draft)
  }
}
