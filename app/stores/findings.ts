import { defineStore } from 'pinia'
import { findAcceptance, riskBasis, riskKey, type Accepted } from '#core/prove/acceptance'
import type { Finding, Verdict } from '#core/prove/finding'
import type { ProveAnswer, ProveQuestion, ProveRest } from '../workers/prove.worker'
import { useDraft } from './draft'
import { dayHere } from './rehearsal'

const SETTLE = 60
/** While a page scrolls the prover rests: drawing needs the processor more. */
const REST = 150
const NONE: readonly Finding[] = []

/** What the prover says about the draft, from its worker; a newer edit overtakes an older question. */
export const useFindings = defineStore('findings', () => {
  const draft = useDraft()
  const verdict = shallowRef<Verdict | null>(null)
  const milliseconds = ref(0)
  const working = ref(false)
  const broken = ref<string | null>(null)
  /** Every check has run at least once: what is shown is the whole verdict on some state of the draft. */
  const isWhole = ref(false)
  let worker: Worker | null = null
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  function start() {
    if (worker) return
    worker = new Worker(new URL('../workers/prove.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<ProveAnswer>) => {
      if (data.asked !== asked) return
      working.value = !data.isWhole
      broken.value = data.error
      // While a later state is being proved, what was said of the earlier one stands until more is known.
      if (data.verdict && (data.isWhole || !isWhole.value)) verdict.value = data.verdict
      isWhole.value ||= data.isWhole
      milliseconds.value = data.milliseconds
    }
    worker.onerror = event => {
      working.value = false
      broken.value = `The prover stopped: ${event.message}`
    }
    watch(
      () => draft.id,
      () => {
        verdict.value = null
        isWhole.value = false
      },
    )
    watch(() => draft.form, ask, { immediate: true })
    document.addEventListener('scroll', () => post({ rest: REST }), { capture: true, passive: true })
  }

  function ask() {
    clearTimeout(timer)
    working.value = true
    asked += 1
    timer = setTimeout(() => {
      if (draft.form) post({ asked, form: draft.form, today: dayHere() })
    }, SETTLE)
  }

  const post = (message: ProveQuestion | ProveRest) => worker?.postMessage(message)

  const of = (severity: 'fault' | 'risk' | 'advice') =>
    verdict.value?.findings.filter(f => f.severity === severity) ?? []
  const faults = computed(() => of('fault'))
  const accepted = computed(
    () =>
      new Map(
        of('risk').flatMap(f => {
          const by = draft.form && findAcceptance(draft.form, f, draft.accepted, draft.places)
          return by ? [[f, by] as const] : []
        }),
      ),
  )
  /** Those that nobody has accepted as they stand. */
  const risks = computed(() => of('risk').filter(f => !accepted.value.has(f)))
  async function accept(finding: Finding, reason: string) {
    if (draft.form)
      draft.accepted = await $fetch<Accepted[]>(`/api/forms/${draft.id}/acceptances`, {
        method: 'PUT',
        body: { key: riskKey(finding), basis: riskBasis(draft.form, finding, draft.places), reason },
      })
  }
  const advice = computed(() => of('advice'))
  /** By address; a list that says the same stays the same object. */
  const byAddress = computed<ReadonlyMap<string, readonly Finding[]>>(before => {
    const map = new Map<string, Finding[]>()
    for (const f of verdict.value?.findings ?? [])
      if (f.address !== null && !accepted.value.has(f)) map.set(f.address, [...(map.get(f.address) ?? []), f])
    const same = (a: readonly Finding[] | undefined, b: readonly Finding[]) =>
      a !== undefined && JSON.stringify(a) === JSON.stringify(b)
    return new Map(
      [...map].map(([address, found]) => [
        address,
        same(before?.get(address), found) ? (before?.get(address) ?? found) : found,
      ]),
    )
  })
  /** A getter, for the store would wrap a function: rows ask this for each frame. */
  const at = computed(
    () =>
      (address: string): readonly Finding[] =>
        byAddress.value.get(address) ?? NONE,
  )
  return {
    verdict,
    isWhole,
    milliseconds,
    working,
    broken,
    faults,
    risks,
    accepted,
    accept,
    advice,
    at,
    start,
  }
})
