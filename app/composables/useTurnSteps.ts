import type { Returning } from '#shared/api/answering'
import type { Answering } from './useAnswering'

/** What is done with a turn, beside answering it: giving it back, and taking it over where two work at it. */
export function useTurnSteps({ draft, typedSoFar, kept, keep, sending, finish }: Answering) {
  async function giveBack(returning: Pick<Returning, 'remark' | 'to' | 'pointed'>) {
    draft.stop()
    const { key, answers } = typedSoFar()
    const isOwn = draft.isTurn && draft.state.value !== 'others'
    if (await sending.giveBack({ ...returning, draft: isOwn ? draft.draft(key, answers) : null })) finish()
    else draft.refused(sending.refusal.value?.code)
  }
  /** Drops what this device has, and goes on with what the server has. */
  function goOnWithTheirs() {
    draft.stop()
    kept.forget()
    window.location.reload()
  }
  /** Goes on with what this device has; what somebody else has typed is dropped. */
  async function takeOver() {
    const { key, answers } = typedSoFar()
    try {
      await draft.takeOver(key, answers)
      keep()
    } catch (cause) {
      sending.refusal.value = refusalOf(cause)
    }
  }
  return { giveBack, goOnWithTheirs, takeOver }
}
