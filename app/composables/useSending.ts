import type { ClosingMessage } from '#core/fill/closing'
import type { Refusal } from '#shared/api/refusal'
import type { Returning, Sending, Sent } from '#shared/api/answering'
import { callLink } from '~/api/callLink'

/** Sends a response, or gives a turn back; `message` is what is said when that is done. `isGuarded`: a proof of work goes with it. */
export function useSending(token: string, isGuarded: boolean) {
  const busy = ref(false)
  const refusal = ref<Refusal | null>(null)
  const message = ref<ClosingMessage | null>(null)
  /** What the server said when it took the response. */
  const sent = shallowRef<Sent | null>(null)

  async function attempt(run: () => Promise<ClosingMessage>): Promise<boolean> {
    busy.value = true
    refusal.value = null
    try {
      message.value = await run()
      return true
    } catch (cause) {
      refusal.value = refusalOf(cause)
      return false
    } finally {
      busy.value = false
    }
  }
  /** Sends answers. `closing`: makes what is said when nobody comes after this turn. True when they were taken. */
  const send = (body: Sending, closing: (taken: Sent) => ClosingMessage) =>
    attempt(async () => {
      const proof = isGuarded ? { proof: await proofFor(body) } : {}
      const taken = await callLink('sendAnswers', { params: { token }, body: { ...body, ...proof } })
      sent.value = taken
      return taken.next === null ? closing(taken) : handedOnTo(taken.next)
    })
  /** Gives the response back to an earlier turn, with a remark and what was typed so far. */
  const giveBack = (body: Returning) =>
    attempt(async () => {
      const { to } = await callLink('returnTurn', { params: { token }, body })
      const text =
        'They have your remark. What you filled is kept: this same link opens again when it is your turn.'
      return { title: `Given back to ${to}`, text, forward: null }
    })
  return { busy, refusal, message, sent, send, giveBack }
}

async function proofFor({ key }: Sending): Promise<string> {
  const { findProof } = await import('#core/form/proofOfWork')
  return findProof(key)
}

const handedOnTo = (next: string): ClosingMessage => ({
  title: `Handed on to ${next}`,
  text: 'Thank you. Your part is done, and can’t be changed any more unless it is given back to you.',
  forward: null,
})
