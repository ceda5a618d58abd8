import type { KeptAnswers } from '#shared/api/keptAnswers'
import { callLink } from '~/api/callLink'

/**
 * What was typed, kept on the server as well once that was asked for. `state`: whether it is kept there, or was gone on with elsewhere
 * meanwhile.
 */
export function useKeptOnServer(token: string, current: () => KeptAnswers, kept: () => void) {
  const secret = ref<string | null>(null)
  /** When it was kept that this page goes on from. */
  const base = ref<string | null>(null)
  const state = ref<'none' | 'kept' | 'others'>('none')
  const settling = useSettling()
  const params = { token }
  const mark = () => ({ base: base.value, secret: secret.value })
  /** Goes on from what is kept under a secret. */
  function goOnFrom(own: string, at: string | null) {
    secret.value = own
    base.value = at
  }

  /** Keeps what was typed, under a secret of its own from the first time on. @throws where the server refuses, or is out of reach */
  async function keep() {
    const answer = await callLink('keepAnswers', { params, body: { ...mark(), kept: current() } })
    goOnFrom(answer.secret, answer.at)
    state.value = 'kept'
    kept()
  }
  async function keepAgain() {
    if (state.value === 'others') return
    try {
      await keep()
    } catch (cause) {
      const { code } = refusalOf(cause)
      // Out of reach: it stays on this device, and is kept with the next answer.
      state.value = code === 'kept-by-others' ? 'others' : 'none'
      if (code === 'not-kept') secret.value = null
    }
  }
  /** Keeps what was typed, once nothing more comes, where that was asked for. */
  function typed() {
    if (secret.value !== null) settling.later(keepAgain, () => {})
  }
  /** It was sent: nothing is kept any more. */
  async function drop() {
    settling.stop()
    const { secret: own } = mark()
    secret.value = null
    if (own === null) return
    try {
      await callLink('keepAnswers', { params, body: { secret: own, base: base.value, kept: null } })
    } catch {
      // It is cleared by itself after some days.
    }
  }
  return { secret, base, state, mark, goOnFrom, keep, typed, drop }
}
