import { watchDebounced } from '@vueuse/core'
import { applyEdits, EditError } from '#core/form/edits'
import type { Form } from '#core/form/definition'
import { placeProposal, type Proposal } from '#core/form/proposals'
import { riskKey } from '#core/prove/acceptance'
import type { Finding, Verdict } from '#core/prove/finding'
import { dayHere } from '~/browser/dayHere'
import type { ProveAnswer, ProveQuestion } from '~/workers/prove.worker'

/** What a proposal does to what the prover says: findings that come, and those that go. */
export interface Effect {
  come: readonly Finding[]
  gone: readonly Finding[]
}
/** What is known of a proposal: its effect, why there is none, or that it is being proved. */
export type EffectState =
  | { kind: 'proving' }
  | { kind: 'proved'; effect: Effect }
  | { kind: 'impossible'; reason: string }
  | { kind: 'failed'; reason: string }

/** Milliseconds without a further edit after which proposals are proved anew. */
const SETTLE = 400

/** Proves the draft with each proposal, one after the other, beside the draft without any; the newest states only. */
export function useProposalEffects(proposals: () => ReadonlyMap<string, Proposal>) {
  const draft = useDraft()
  const states = shallowRef<ReadonlyMap<string, EffectState>>(new Map())
  const prover = useSideProver()
  let round = 0

  async function proveAll() {
    const { form } = draft
    round += 1
    const own = round
    if (!form) return
    const set = (id: string, state: EffectState) => {
      if (own === round) states.value = new Map([...states.value, [id, state]])
    }
    states.value = new Map([...proposals().keys()].map(id => [id, { kind: 'proving' }]))
    if (proposals().size === 0) return
    try {
      const before = await prover.prove(form)
      for (const [id, proposal] of proposals()) {
        if (own !== round) return
        set(id, await effectOf(form, proposal, before, prover.prove))
      }
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error)
      for (const id of proposals().keys()) set(id, { kind: 'failed', reason })
    }
  }
  onMounted(() => {
    void proveAll()
    watchDebounced([() => draft.form, () => [...proposals().keys()].join()], () => void proveAll(), {
      debounce: SETTLE,
    })
  })
  return states
}

async function effectOf(
  form: Form,
  proposal: Proposal,
  before: Verdict,
  prove: (form: Form) => Promise<Verdict>,
): Promise<EffectState> {
  try {
    const after = applyEdits(form, placeProposal(form, proposal)).form
    return { kind: 'proved', effect: compare(before, await prove(after)) }
  } catch (error) {
    if (error instanceof EditError) return { kind: 'impossible', reason: error.message }
    throw error
  }
}

function compare(before: Verdict, after: Verdict): Effect {
  const keysOf = ({ findings }: Verdict) => new Set(findings.map(riskKey))
  const [old, now] = [keysOf(before), keysOf(after)]
  return {
    come: after.findings.filter(f => !old.has(riskKey(f))),
    gone: before.findings.filter(f => !now.has(riskKey(f))),
  }
}

/** A prover of its own: what is asked for here does not wait for the draft's proof, and the other way round. */
function useSideProver() {
  let worker: Worker | null = null
  let asked = 0
  let waiting: { resolve: (verdict: Verdict) => void; reject: (reason: Error) => void } | null = null

  function hear({ asked: of, verdict, isWhole, error }: ProveAnswer) {
    if (of !== asked || !isWhole) return
    if (verdict) waiting?.resolve(verdict)
    else waiting?.reject(new Error(error ?? 'The prover gave no verdict.'))
  }
  function begin(): Worker {
    const begun = new Worker(new URL('../../workers/prove.worker.ts', import.meta.url), { type: 'module' })
    begun.onmessage = ({ data }: MessageEvent<ProveAnswer>) => hear(data)
    begun.onerror = event => waiting?.reject(new Error(`The prover stopped: ${event.message}`))
    return begun
  }
  function prove(form: Form): Promise<Verdict> {
    worker ??= begin()
    asked += 1
    const question: ProveQuestion = { asked, today: dayHere(), form }
    worker.postMessage(question)
    return new Promise((resolve, reject) => {
      waiting = { resolve, reject }
    })
  }
  onBeforeUnmount(() => worker?.terminate())
  return { prove }
}
