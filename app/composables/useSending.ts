import type { ClosingMessage } from '#core/fill/closing'
import type { Refusal } from '#shared/api/refusal'
import type { Returning, Sending, Sent } from '#shared/api/answering'
import { callLink } from '~/api/callLink'
import type { Offline } from './useOffline'

/** What is said while a response waits on the device. */
const WAITING: ClosingMessage = {
  title: 'Waiting to be sent',
  text: 'There is no connection. Your answers are kept on this device, and go out by themselves as soon as there is one: also later, when this page is opened again.',
  forward: null,
}

/** Sends a response, or gives a turn back; `message` is what is said when that is done. `isGuarded`: a proof of work goes with it. */
export function useSending(token: string, isGuarded: boolean, offline: Offline) {
  const busy = ref(false)
  const refusal = ref<Refusal | null>(null)
  const message = ref<ClosingMessage | null>(null)
  /** What the server said when it took the response; null while it waits. */
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
  /** The server’s answer to a response; null where it can’t be reached, and the response waits on this device. `kept`: what the page has of it. */
  async function deliver(body: Sending, kept: string): Promise<Sent | null> {
    const proof = isGuarded ? { proof: await proofFor(body) } : {}
    const proven = { ...body, ...proof }
    try {
      return await callLink('sendAnswers', { params: { token }, body: await offline.withFiles(proven) })
    } catch (cause) {
      if (!offline.isBeginning || refusalOf(cause).code !== 'unreachable') throw cause
      await offline.wait(proven, kept)
      return null
    }
  }
  const settled = (taken: Sent, closing: (taken: Sent) => ClosingMessage) => {
    sent.value = taken
    return taken.next === null ? closing(taken) : handedOnTo(taken.next)
  }
  /** Sends answers. `closing`: makes what is said when nobody comes after this turn. True when they were taken, or wait. */
  const send = (body: Sending, closing: (taken: Sent) => ClosingMessage, kept: string) =>
    attempt(async () => {
      sent.value = null
      const taken = await deliver(body, kept)
      return taken ? settled(taken, closing) : WAITING
    })
  /** What waited has gone out by itself. */
  function goneOut(taken: Sent, closing: (taken: Sent) => ClosingMessage) {
    message.value = settled(taken, closing)
  }
  /** Gives the response back to an earlier turn, with a remark and what was typed so far. */
  const giveBack = (body: Returning) =>
    attempt(async () => {
      const { to } = await callLink('returnTurn', { params: { token }, body })
      const text =
        'They have your remark. What you filled is kept: this same link opens again when it is your turn.'
      return { title: `Given back to ${to}`, text, forward: null }
    })
  return { busy, refusal, message, sent, send, goneOut, giveBack }
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
