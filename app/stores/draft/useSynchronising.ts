import { useTimeoutFn } from '@vueuse/core'
import type { Ref } from 'vue'
import type { Form } from '#core/form/definition'
import { applyEdits, type Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import type { Refusal } from '#shared/api/refusal'
import { callApi } from '~/api/callApi'
import { usePull, type Follower, type SharedState } from './usePull'

export type SaveState =
  { kind: 'saved'; at: string } | { kind: 'saving' } | { kind: 'failed'; refusal: Refusal }

/** Milliseconds after an edit until it is sent, and after a failure until it is tried again. */
const SAVE_AFTER = 350
const RETRY_AFTER = 4_000

/** Refusals after which the same is tried again: somebody signs in anew in another tab. */
const PASSING = new Set(['unreachable', 'server-error', 'signed-out'])

/** Keeps a draft the same here and on the server: own edits go there unless they are held, those of others come from there. */
export function useSynchronising(shared: SharedState, follower: Follower, isHolding: Ref<boolean>) {
  const save = ref<SaveState>({ kind: 'saved', at: '' })
  const { id, revision, clashes, confirmed, waiting } = shared
  const { pull, remember } = usePull(shared, follower)
  const sending = shallowRef<Promise<void> | null>(null)
  const soon = useTimeoutFn(() => flush(), SAVE_AFTER, { immediate: false })
  const again = useTimeoutFn(() => flush(), RETRY_AFTER, { immediate: false })

  /** Begins with a draft as the server has it. */
  function begin(draft: Form, at: number, savedAt: string) {
    confirmed.value = draft
    revision.value = at
    waiting.value = []
    clashes.value = []
    save.value = { kind: 'saved', at: savedAt }
  }
  /** Takes edits to be sent soon. */
  function queue(edits: readonly Edit[]) {
    waiting.value = [...waiting.value, ...edits]
    save.value = { kind: 'saving' }
    again.stop()
    soon.start()
  }
  /** Sends what waits; edits made meanwhile go with the next sending. */
  async function flush(): Promise<void> {
    if (isHolding.value || (!sending.value && waiting.value.length === 0)) return
    sending.value ??= send().finally(() => {
      sending.value = null
    })
    await sending.value
    if (waiting.value.length > 0 && save.value.kind !== 'failed') await flush()
  }
  async function send() {
    soon.stop()
    again.stop()
    const edits = [...waiting.value]
    save.value = { kind: 'saving' }
    try {
      const done = await saveEdits(id.value, { base: revision.value, edits })
      waiting.value = waiting.value.slice(edits.length)
      remember(edits)
      if (confirmed.value) confirmed.value = applyEdits(confirmed.value, edits).form
      revision.value = done.revision
      save.value = waiting.value.length === 0 ? { kind: 'saved', at: done.savedAt } : { kind: 'saving' }
    } catch (error) {
      await afterFailure(refusalOf(error))
    }
  }
  /** Somebody else's changes come first, and own ones are made again; a server that can't be reached is asked again. */
  async function afterFailure(refusal: Refusal) {
    if (refusal.code === 'outdated' && (await pull())) return
    save.value = { kind: 'failed', refusal }
    if (PASSING.has(refusal.code)) again.start()
  }
  const unsaved = () => !isHolding.value && (waiting.value.length > 0 || sending.value !== null)
  /** Looks for what others have saved, while nothing of one's own is on its way. */
  const look = () => (unsaved() || !id.value ? Promise.resolve(true) : pull())
  return { revision, save, clashes, confirmed, begin, queue, flush, unsaved, look }
}

const saveEdits = (formId: string, body: { base: number; edits: Edit[] }) =>
  callApi(API.saveEdits, { params: { id: formId }, body })

/** What is known of a draft before it is fetched. */
export const newSharedState = (id: Ref<string>, form: Ref<Form | null>): SharedState => ({
  ...{ id, form },
  revision: ref(0),
  clashes: shallowRef([]),
  confirmed: shallowRef(null),
  waiting: shallowRef([]),
})
