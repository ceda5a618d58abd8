import type { Ref } from 'vue'
import type { Form } from '#core/form/definition'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import type { Change } from '#shared/api/forms'
import { callApi } from '~/api/callApi'
import type { Address } from '#core/form/walk'
import { describeEdit, findClash, findDeleted, findOverruled, isWithin, type Clash } from './clashes'

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

/** What is known here of what somebody is doing, to be told where others touch it. */
export interface Follower {
  /** What is selected, and so perhaps written in. */
  selected: Ref<Address | null>
  /** Others have changed a form: own steps no longer take back what is theirs now. */
  overtake: (theirs: readonly Edit[], before: Form) => void
}

/** Takes over what others saved; own edits that wait are made again on top. False when that could not be fetched. */
export function usePull(state: SharedState, follower: Follower) {
  const { id, form, revision, confirmed, waiting, clashes } = state
  const { sentLately, remember } = useSentLately()
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
    if (!confirmed.value || !form.value) return
    const before = form.value
    const theirs = changes.flatMap(c => c.edits)
    follower.overtake(theirs, before)
    confirmed.value = applyEdits(confirmed.value, theirs).form
    revision.value = changes.at(-1)?.revision ?? revision.value
    const deleted = deletedHere(before, confirmed.value, changes)
    const overruled = overruledHere(changes)
    const rebased = rebase(confirmed.value, before, waiting.value, changes)
    waiting.value = rebased.kept
    clashes.value = [...clashes.value, ...deleted, ...overruled, ...rebased.clashes]
    form.value = rebased.form
  }
  /** What others deleted in which somebody is writing here. */
  function deletedHere(before: Form, after: Form, changes: readonly Change[]): Clash[] {
    const written = [follower.selected.value ?? '', ...waiting.value.map(targetOf)]
    return changes.flatMap(c => c.edits.flatMap(t => findDeleted(c, t, before, after, written) ?? []))
  }
  /** What was set here a moment ago, and is something else now. */
  function overruledHere(changes: readonly Change[]): Clash[] {
    const own = sentLately().toReversed()
    const waits = (edit: Edit) => waiting.value.some(w => targetOf(w) === targetOf(edit))
    return changes.flatMap(c =>
      c.edits.flatMap(theirs => {
        const met = own.find(edit => findOverruled(c, theirs, edit) !== null)
        return met && !waits(met) ? (findOverruled(c, theirs, met) ?? []) : []
      }),
    )
  }
  return { pull, remember }
}

/** Milliseconds for which somebody may still think that what was set stands. */
const LATELY = 10_000

/** Own edits that the server took a moment ago. */
function useSentLately() {
  let sent: readonly { edit: Edit; at: number }[] = []
  const fresh = () => sent.filter(s => Date.now() - s.at < LATELY)
  const remember = (edits: readonly Edit[]) => {
    sent = [...fresh(), ...edits.map(edit => ({ edit, at: Date.now() }))]
  }
  return { sentLately: () => fresh().map(s => s.edit), remember }
}

const targetOf = (edit: Edit): string => ('what' in edit ? edit.what : '')

/** Own edits made again on top of what others did: those that still can be, and what is to be said of the others. */
function rebase(form: Form, before: Form, own: readonly Edit[], changes: readonly Change[]) {
  const kept: Edit[] = []
  const clashes: Clash[] = []
  const removed = changes.flatMap(c => c.edits.flatMap(e => (e.do === 'remove' ? [e.what] : [])))
  const isGone = (what: string) => removed.some(r => r === what || isWithin(before, what, r))
  let next = form
  for (const edit of own) {
    const [clash] = changes.flatMap(c => c.edits.flatMap(theirs => findClash(c, theirs, edit) ?? []))
    if (clash) clashes.push(clash)
    try {
      next = applyEdits(next, [edit]).form
      kept.push(edit)
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      // What was written in a thing that is gone is offered back with it.
      if (edit.do === 'change' && isGone(edit.what)) continue
      const who = changes[0]?.by ?? 'Somebody'
      const sentence = `${who} changed the same place; your change could not be made: ${error.message} ${describeEdit(edit)}`
      clashes.push({ sentence, offer: null })
    }
  }
  return { form: next, kept, clashes }
}
