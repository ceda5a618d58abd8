import type { KeptAnswers } from '#shared/api/keptAnswers'
import { callLink } from '~/api/callLink'
import type { KeptResponse } from './useKeptAnswers'

/** Behind what the secret stands in an address: what follows “#” is not told to the server, nor written to any log. */
const MARK = '#continue='

/** The secret in the address of this page, which goes out of it; null for none. */
function takeSecret(): string | null {
  const { hash, pathname, search } = window.location
  if (!hash.startsWith(MARK)) return null
  history.replaceState(history.state, '', pathname + search)
  return hash.slice(MARK.length)
}

/** Going on on another device, by a private link. */
export function useContinue(token: string, current: () => KeptAnswers, kept: () => void) {
  const onServer = useKeptOnServer(token, current, kept)
  const { secret, base, state, mark, goOnFrom, keep } = onServer
  const link = computed(() =>
    secret.value === null ? null : linkAddress(`/f/${token}${MARK}${secret.value}`),
  )
  /** Why a link did not bring back what it is to. */
  const problem = ref('')
  const recall = (own: string) => callLink('recallAnswers', { params: { token }, body: { secret: own } })

  async function bring(own: string): Promise<KeptResponse> {
    const { kept: found, at } = await recall(own)
    goOnFrom(own, at)
    state.value = 'kept'
    return { ...found, ...mark(), seat: null }
  }
  /** What the address says is kept, or what this device goes on with is by now; null where this device has it all. */
  async function open(here: KeptResponse | null): Promise<KeptResponse | null> {
    const asked = takeSecret()
    const wanted = asked ?? here?.secret ?? null
    if (wanted === null) return null
    try {
      const found = await bring(wanted)
      return here?.secret === wanted && here.base === base.value ? null : found
    } catch (cause) {
      const { code, sentence } = refusalOf(cause)
      if (asked !== null) problem.value = sentence
      // Out of reach: this device goes on with what it has.
      else if (code !== 'not-kept') goOnFrom(wanted, here?.base ?? null)
      return null
    }
  }
  /** Goes on with what stands elsewhere. */
  const takeTheirs = () => (secret.value === null ? Promise.resolve(null) : bring(secret.value))
  /** Goes on with what stands here; what was typed elsewhere is dropped. */
  async function takeOver() {
    if (secret.value === null) return
    const { at } = await recall(secret.value)
    goOnFrom(secret.value, at)
    await keep()
  }
  return { ...onServer, link, problem, open, takeTheirs, takeOver }
}
