import { defineStore } from 'pinia'
import { outline, type Address } from '#core/form/walk'
import { namesOf } from '#core/form/names'
import { Names } from '#core/form/scope'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import type { Form } from '#core/form/definition'
import type { Refusal } from '#shared/api'

interface Step { forward: Edit[], back: Edit[], merge: string | null, at: number, selected: Address | null }
export type SaveState = { kind: 'saved', at: string } | { kind: 'saving' } | { kind: 'failed', refusal: Refusal }
export interface ReleaseBrief { id: string, number: number, token: string, releasedAt: string, sameAsDraft: boolean, accepted: { reason: string, by: string, finding: { sentence: string } }[] }
interface LoadedForm { id: string, draft: Form, revision: number, savedAt: string, releases: ReleaseBrief[], responses: number }

const SAVE_AFTER = 350
const RETRY_AFTER = 4_000
const MERGE_WITHIN = 1_500

/** The draft that is being written: every edit at once in the form, undoable, and on its way to the server. */
export const useDraft = defineStore('draft', () => {
  const id = ref('')
  const form = shallowRef<Form | null>(null)
  const releases = ref<ReleaseBrief[]>([])
  const responses = ref(0)
  const revision = ref(0)
  const save = ref<SaveState>({ kind: 'saved', at: '' })
  const refused = ref<string | null>(null)
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const selected = ref<Address | null>(null)
  let waiting: Edit[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | null = null

  const places = computed(() => form.value ? outline(form.value) : [])
  const words = computed(() => form.value ? namesOf(form.value, places.value) : null)
  /** What names mean in the draft, worked out once for each state. */
  const names = computed(() => form.value ? new Names(form.value, places.value) : null)

  async function load(formId: string) {
    const loaded = await $fetch<LoadedForm>(`/api/forms/${formId}`)
    const other = formId !== id.value
    id.value = formId
    form.value = loaded.draft
    revision.value = loaded.revision
    releases.value = loaded.releases
    responses.value = loaded.responses
    save.value = { kind: 'saved', at: loaded.savedAt }
    waiting = []
    refused.value = null
    if (other) {
      past.value = []
      future.value = []
      selected.value = null
    }
  }

  function queue(edits: Edit[]) {
    waiting.push(...edits)
    save.value = { kind: 'saving' }
    clearTimeout(timer)
    timer = setTimeout(flush, SAVE_AFTER)
  }

  /** Sends what waits; edits made meanwhile go with the next sending. */
  async function flush(): Promise<void> {
    if (sending) {
      await sending
      return waiting.length > 0 ? flush() : undefined
    }
    if (waiting.length === 0) return
    sending = send()
    await sending
    sending = null
    if (waiting.length > 0 && save.value.kind !== 'failed') await flush()
  }

  async function send() {
    clearTimeout(timer)
    const edits = waiting
    waiting = []
    try {
      const done = await $fetch<{ revision: number, savedAt: string }>(`/api/forms/${id.value}/edits`, { method: 'POST', body: { base: revision.value, edits } })
      revision.value = done.revision
      if (waiting.length === 0) save.value = { kind: 'saved', at: done.savedAt }
      releases.value = releases.value.map(r => ({ ...r, sameAsDraft: false }))
    }
    catch (error) {
      waiting = [...edits, ...waiting]
      const refusal = refusalOf(error)
      save.value = { kind: 'failed', refusal }
      if (refusal.code === 'unreachable' || refusal.code === 'server-error') timer = setTimeout(flush, RETRY_AFTER)
    }
  }

  /**
   * Makes edits. With `merge`, edits of the same thing in quick succession (typing in one field) are undone together.
   * Gives false, with the reason in `refused`, when they can't be made.
   */
  function edit(edits: Edit[], merge: string | null = null): boolean {
    if (!form.value || edits.length === 0) return false
    try {
      const done = applyEdits(form.value, edits)
      const last = past.value[past.value.length - 1]
      const now = Date.now()
      if (merge !== null && last?.merge === merge && now - last.at < MERGE_WITHIN) {
        past.value = [...past.value.slice(0, -1), { ...last, forward: [...last.forward, ...edits], back: [...done.inverses, ...last.back], at: now }]
      }
      else past.value = [...past.value, { forward: edits, back: done.inverses, merge, at: now, selected: selected.value }]
      future.value = []
      form.value = done.form
      refused.value = null
      queue(edits)
      return true
    }
    catch (error) {
      if (!(error instanceof EditError)) throw error
      refused.value = error.message
      return false
    }
  }

  function undo() {
    const step = past.value[past.value.length - 1]
    if (!step || !form.value) return
    form.value = applyEdits(form.value, step.back).form
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, step]
    selected.value = step.selected
    queue(step.back)
  }

  function redo() {
    const step = future.value[future.value.length - 1]
    if (!step || !form.value) return
    form.value = applyEdits(form.value, step.forward).form
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, { ...step, merge: null }]
    queue(step.forward)
  }

  const unsaved = () => waiting.length > 0 || sending !== null
  return { id, form, places, names, words, releases, responses, revision, save, refused, past, future, selected, load, edit, undo, redo, flush, unsaved }
})
