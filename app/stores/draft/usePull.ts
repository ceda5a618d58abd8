import type { Ref } from 'vue'
import type { Form } from '#core/form/definition'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import type { Change } from '#shared/api/forms'
import { callApi } from '~/api/callApi'
import { describeEdit, findClash, type Clash } from './clashes'

/** What sending and fetching edits both know of a draft. */
export interface SharedState {
  id: Ref<string>
  form: Ref<Form | null>
  revision: Ref<number>
  /** The form as the server has it. */
  confirmed: Ref<Form | null>
  /** The edits that the server does not have yet. */
  waiting: Ref<readonly Edit[]>
  clashes: Ref<readonly Clash[]>
}

/** Takes over what others saved; own edits that wait are made again on top. False when that could not be fetched. */
export function usePull({ id, form, revision, confirmed, waiting, clashes }: SharedState) {
  async function pull(): Promise<boolean> {
    try {
      const query = { since: revision.value }
      const changes = await callApi(API.loadChanges, { params: { id: id.value }, query })
      if (changes.length > 0) takeOver(changes)
      return true
    } catch {
      return false // unreachable for now; the next look fetches them
    }
  }
  function takeOver(changes: readonly Change[]) {
    if (!confirmed.value) return
    confirmed.value = changes.reduce((done, c) => applyEdits(done, c.edits).form, confirmed.value)
    revision.value = changes.at(-1)?.revision ?? revision.value
    const rebased = rebase(confirmed.value, waiting.value, changes)
    waiting.value = rebased.kept
    clashes.value = [...clashes.value, ...rebased.clashes]
    form.value = rebased.form
  }
  return pull
}

/** Own edits made again on top of what others did: those that still can be, and what is to be said of the others. */
function rebase(form: Form, own: readonly Edit[], changes: readonly Change[]) {
  const kept: Edit[] = []
  const clashes: Clash[] = []
  let next = form
  for (const edit of own) {
    const [clash] = changes.flatMap(c => c.edits.flatMap(theirs => findClash(theirs, edit, c.by) ?? []))
    if (clash) clashes.push(clash)
    try {
      next = applyEdits(next, [edit]).form
      kept.push(edit)
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      const who = changes[0]?.by ?? 'Somebody'
      const sentence = `${who} changed the same place; your change could not be made: ${error.message} ${describeEdit(edit)}`
      clashes.push({ sentence, theirs: null })
    }
  }
  return { form: next, kept, clashes }
}
