import { defineStore } from 'pinia'
import { listPlaces, type Address, type Place } from '#core/form/walk'
import { wordingOf } from '#core/form/names'
import { FormNames } from '#core/form/scope'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import type { Form } from '#core/form/definition'
import type { Accepted } from '#core/prove/acceptance'
import type { Refusal } from '#shared/api/refusal'

interface Step {
  forward: Edit[]
  back: Edit[]
  merge: string | null
  at: number
  selected: Address | null
}
export type SaveState =
  { kind: 'saved'; at: string } | { kind: 'saving' } | { kind: 'failed'; refusal: Refusal }
export interface ReleaseBrief {
  id: string
  number: number
  token: string
  releasedAt: string
  sameAsDraft: boolean
  accepted: { reason: string; by: string; finding: { sentence: string } }[]
}
interface LoadedForm {
  id: string
  draft: Form
  revision: number
  savedAt: string
  releases: ReleaseBrief[]
  responses: number
  accepted: Accepted[]
}
interface Save {
  revision: number
  edits: Edit[]
  by: string
  own: boolean
}
/** What two people changed at once: a sentence, and the edit that takes the other's value where there is one. */
export interface Clash {
  sentence: string
  theirs: Edit | null
}

const SAVE_AFTER = 350
const RETRY_AFTER = 4_000
const MERGE_WITHIN = 1_500
const MOST_STEPS = 500

/** A place that is as it was stays the same object, so that only rows that changed are drawn anew. */
function stable(next: Place[], before: ReadonlyMap<string, Place>): Place[] {
  return next.map(place => {
    const old = before.get(place.address)
    return old &&
      old.node === place.node &&
      old.number === place.number &&
      old.order === place.order &&
      old.section === place.section &&
      old.kind === place.kind &&
      old.groups.length === place.groups.length &&
      old.groups.every((g, i) => g.node === place.groups[i]?.node)
      ? old
      : place
  })
}

/** The draft that is being written: every edit at once in the form, undoable, and on its way to the server, where others' edits come from. */
export const useDraft = defineStore('draft', () => {
  const id = ref('')
  const form = shallowRef<Form | null>(null)
  const releases = ref<ReleaseBrief[]>([])
  const responses = ref(0)
  /** Risks that somebody has accepted. */
  const accepted = shallowRef<readonly Accepted[]>([])
  const revision = ref(0)
  const save = ref<SaveState>({ kind: 'saved', at: '' })
  const refused = ref<string | null>(null)
  const clashes = shallowRef<Clash[]>([])
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const selected = ref<Address | null>(null)
  /** Everything that is selected, `selected` among it. */
  const selection = shallowRef<readonly Address[]>([])
  /** The form as the server has it, and the edits it does not have yet. */
  let confirmed: Form | null = null
  let waiting: Edit[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | null = null

  const places = computed<Place[]>(before =>
    form.value ? stable(listPlaces(form.value), new Map(before?.map(p => [p.address, p]))) : [],
  )
  const words = computed(() => (form.value ? wordingOf(form.value, places.value) : null))
  /** What names mean in the draft, worked out once for each state. */
  const names = computed(() => (form.value ? new FormNames(form.value, places.value) : null))

  async function load(formId: string) {
    const loaded = await $fetch<LoadedForm>(`/api/forms/${formId}`)
    const other = formId !== id.value
    id.value = formId
    form.value = confirmed = loaded.draft
    revision.value = loaded.revision
    releases.value = loaded.releases
    responses.value = loaded.responses
    accepted.value = loaded.accepted
    save.value = { kind: 'saved', at: loaded.savedAt }
    waiting = []
    refused.value = null
    clashes.value = []
    if (other) {
      past.value = []
      future.value = []
      select(null)
    }
  }

  /** Selects one thing, or adds a stretch or a single one to what is selected. */
  function select(address: Address | null, how: 'only' | 'stretch' | 'toggle' = 'only') {
    if (address === null || how === 'only') selection.value = address === null ? [] : [address]
    else if (how === 'toggle')
      selection.value = selection.value.includes(address)
        ? selection.value.filter(a => a !== address)
        : [...selection.value, address]
    else {
      const orderOf = (a: Address | null) => places.value.findIndex(p => p.address === a)
      const [anchor, to] = [orderOf(selection.value[0] ?? selected.value), orderOf(address)]
      const stretch = places.value.slice(Math.min(anchor, to), Math.max(anchor, to) + 1).map(p => p.address)
      selection.value = anchor <= to ? stretch : stretch.reverse()
    }
    selected.value = address
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
      return waiting.length > 0 && save.value.kind !== 'failed' ? flush() : undefined
    }
    if (waiting.length === 0) return
    sending = send()
    await sending
    sending = null
    if (waiting.length > 0 && save.value.kind !== 'failed') await flush()
  }

  async function send() {
    clearTimeout(timer)
    const edits = [...waiting]
    save.value = { kind: 'saving' }
    try {
      const done = await $fetch<{ revision: number; savedAt: string }>(`/api/forms/${id.value}/edits`, {
        method: 'POST',
        body: { base: revision.value, edits },
      })
      waiting = waiting.slice(edits.length)
      if (confirmed) confirmed = applyEdits(confirmed, edits).form
      revision.value = done.revision
      save.value = waiting.length === 0 ? { kind: 'saved', at: done.savedAt } : { kind: 'saving' }
      releases.value = releases.value.map(r => ({ ...r, sameAsDraft: false }))
    } catch (error) {
      const refusal = refusalOf(error)
      if (refusal.code === 'outdated' && (await pull())) return
      save.value = { kind: 'failed', refusal }
      if (refusal.code === 'unreachable' || refusal.code === 'server-error')
        timer = setTimeout(flush, RETRY_AFTER)
    }
  }

  /** Takes over what others saved; own edits that wait are made again on top. False when that could not be fetched. */
  async function pull(): Promise<boolean> {
    try {
      const saves = await $fetch<Save[]>(`/api/forms/${id.value}/changes`, {
        query: { since: revision.value },
      })
      if (saves.length > 0) takeOver(saves)
      return true
    } catch {
      return false // unreachable for now; the next look fetches them
    }
  }

  function takeOver(saves: readonly Save[]) {
    if (!confirmed) return
    for (const s of saves) {
      confirmed = applyEdits(confirmed, s.edits).form
      revision.value = s.revision
    }
    let next = confirmed
    const kept: Edit[] = []
    const said: Clash[] = [...clashes.value]
    for (const edit of waiting) {
      const clash = saves.flatMap(s => s.edits.flatMap(theirs => clashOf(theirs, edit, s.by) ?? []))[0]
      if (clash) said.push(clash)
      try {
        next = applyEdits(next, [edit]).form
        kept.push(edit)
      } catch (error) {
        if (!(error instanceof EditError)) throw error
        said.push({
          sentence: `${saves[0]?.by ?? 'Somebody'} changed the same place; your change could not be made: ${error.message} ${textOf(edit)}`,
          theirs: null,
        })
      }
    }
    waiting = kept
    clashes.value = said
    form.value = next
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
        past.value = [
          ...past.value.slice(0, -1),
          { ...last, forward: [...last.forward, ...edits], back: [...done.inverses, ...last.back], at: now },
        ]
      } else
        past.value = [
          ...past.value.slice(-MOST_STEPS),
          { forward: edits, back: done.inverses, merge, at: now, selected: selected.value },
        ]
      future.value = []
      form.value = done.form
      refused.value = null
      queue(edits)
      return true
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      refused.value = error.message
      return false
    }
  }

  /** Makes the edits of an undo or redo step; one that others have made impossible is said and let go. */
  function step(edits: Edit[]): boolean {
    if (!form.value) return false
    try {
      form.value = applyEdits(form.value, edits).form
      queue(edits)
      return true
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      refused.value = `This step can’t be made any more: ${error.message}`
      return false
    }
  }

  function undo() {
    const last = past.value[past.value.length - 1]
    if (!last) return
    past.value = past.value.slice(0, -1)
    if (!step(last.back)) return
    future.value = [...future.value, last]
    select(last.selected)
  }

  function redo() {
    const next = future.value[future.value.length - 1]
    if (!next) return
    future.value = future.value.slice(0, -1)
    if (step(next.forward)) past.value = [...past.value, { ...next, merge: null }]
  }

  const unsaved = () => waiting.length > 0 || sending !== null
  /** Looks for what others have saved, while nothing of one's own is on its way. */
  const look = () => (unsaved() || !id.value ? Promise.resolve(true) : pull())
  return {
    accepted,
    id,
    form,
    places,
    names,
    words,
    releases,
    responses,
    revision,
    save,
    refused,
    clashes,
    past,
    future,
    selected,
    selection,
    select,
    load,
    edit,
    undo,
    redo,
    flush,
    unsaved,
    look,
  }
})

const textOf = (edit: Edit) =>
  'set' in edit
    ? `(${Object.entries(edit.set)
        .map(([key, value]) => `${key}: ${typeof value === 'string' ? value : JSON.stringify(value)}`)
        .join(', ')
        .slice(0, 300)})`
    : ''

/** Two edits that set the same property of the same thing to different values. */
function clashOf(theirs: Edit, own: Edit, by: string): Clash | null {
  if (theirs.do !== 'change' || own.do !== 'change' || theirs.what !== own.what) return null
  const key = Object.keys(own.set).find(
    k => k in theirs.set && JSON.stringify(theirs.set[k]) !== JSON.stringify(own.set[k]),
  )
  if (key === undefined) return null
  const shown = (value: unknown) => (typeof value === 'string' ? `“${value}”` : JSON.stringify(value))
  return {
    sentence: `${by} changed the ${key} of ${own.what.replace(/^\w+\//, '')} at the same time: theirs was ${shown(theirs.set[key])}, yours ${shown(own.set[key])} stands.`,
    theirs: { do: 'change', what: own.what, set: { [key]: theirs.set[key] } },
  }
}
