import { useEventListener, useTimeoutFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { Ref } from 'vue'
import type { Edit } from '#core/form/edits'
import { findAcceptance, riskKey } from '#core/prove/acceptance'
import { acceptanceBasis } from '#core/prove/acceptanceChanges'
import { isSameFinding, type Finding, type Verdict } from '#core/prove/finding'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { dayHere } from '~/browser/dayHere'
import type { ProveAnswer, ProveMessage } from '../workers/prove.worker'
import { useBegunRows } from './begunRows'
import { useDraft } from './draft'

/** Milliseconds without a further edit after which the draft is proved. */
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

  function hear(answer: ProveAnswer) {
    working.value = !answer.isWhole
    broken.value = answer.error
    // While a later state is being proved, what was said of the earlier one stands until more is known.
    if (answer.verdict && (answer.isWhole || !isWhole.value)) verdict.value = answer.verdict
    isWhole.value ||= answer.isWhole
    milliseconds.value = answer.milliseconds
  }
  function fail(reason: string) {
    working.value = false
    broken.value = `The prover stopped: ${reason}`
  }
  const prover = useProver(hear, fail, () => {
    working.value = true
  })
  watch(
    () => draft.id,
    () => {
      verdict.value = null
      isWhole.value = false
    },
  )
  const state = { verdict, isWhole, milliseconds, working, broken }
  return { ...state, ...useSortedFindings(verdict), start: prover.start }
})

/** Asks the worker: for the whole draft at first, from then on for what edits made of it. */
function useProver(hear: (answer: ProveAnswer) => void, fail: (reason: string) => void, begin: () => void) {
  const draft = useDraft()
  const worker = shallowRef<Worker | null>(null)
  /** The number of the newest question. */
  const asked = ref(0)
  /** Edits since the worker was asked last; null when it needs the whole form. */
  const edits = shallowRef<readonly Edit[] | null>(null)
  const post = (message: ProveMessage) => worker.value?.postMessage(message)

  const settling = useTimeoutFn(
    () => {
      const { form } = draft
      if (!form) return
      const question = { asked: asked.value, today: dayHere() }
      post(edits.value === null ? { ...question, form } : { ...question, edits: edits.value })
      edits.value = []
    },
    SETTLE,
    { immediate: false },
  )
  function ask() {
    begin()
    asked.value += 1
    settling.start()
  }
  /** Edits that lead from the form before to the present one are all that the worker needs. */
  function follow(before: unknown) {
    const change = draft.lastChange
    const isStep = change !== null && change.after === draft.form && change.before === before
    edits.value = isStep && edits.value !== null ? [...edits.value, ...change.edits] : null
    ask()
  }
  function start() {
    if (worker.value) return
    worker.value = new Worker(new URL('../workers/prove.worker.ts', import.meta.url), { type: 'module' })
    worker.value.onmessage = ({ data }: MessageEvent<ProveAnswer>) => {
      if (data.asked === asked.value) hear(data)
    }
    worker.value.onerror = event => fail(event.message)
    watch(
      () => draft.form,
      (_, before) => follow(before),
      { immediate: true, flush: 'sync' },
    )
    useEventListener(document, 'scroll', () => post({ rest: REST }), { capture: true, passive: true })
  }
  return { start }
}

/** Findings by severity and place; what somebody accepted as it stands is apart. */
function useSortedFindings(verdict: Readonly<Ref<Verdict | null>>) {
  const draft = useDraft()
  const begun = useBegunRows()
  /** What is said: of a row that is being begun not that it is empty. */
  const said = computed(() => verdict.value?.findings.filter(f => !begun.isQuiet(f)) ?? NONE)
  const ofSeverity = (severity: Finding['severity']) => said.value.filter(f => f.severity === severity)
  const faults = computed(() => ofSeverity('fault'))
  const acceptances = computed(() =>
    [...ofSeverity('risk'), ...ofSeverity('advice')].flatMap(finding => {
      const found = draft.form && findAcceptance(draft.form, finding, draft.accepted, draft.places)
      return found ? [{ finding, ...found }] : []
    }),
  )
  const acceptedWhere = (stands: boolean) =>
    new Map(acceptances.value.filter(a => a.stands === stands).map(a => [a.finding, a.accepted] as const))
  const accepted = computed(() => acceptedWhere(true))
  /** Acceptances that fell away, since what they rest on has changed. */
  const lapsed = computed(() => acceptedWhere(false))
  const risks = computed(() => ofSeverity('risk').filter(f => !accepted.value.has(f)))
  const advice = computed(() => ofSeverity('advice').filter(f => !accepted.value.has(f)))
  /** By address; a list that says the same stays the same object. */
  const byAddress = computed<ReadonlyMap<string, readonly Finding[]>>(before => {
    const map = new Map<string, Finding[]>()
    for (const f of said.value)
      if (f.address !== null && !accepted.value.has(f)) map.set(f.address, [...(map.get(f.address) ?? []), f])
    return new Map([...map].map(([address, found]) => [address, keepSame(before?.get(address), found)]))
  })
  /** A getter, for the store would wrap a function: rows ask this for each frame. */
  const at = computed(
    () =>
      (address: string): readonly Finding[] =>
        byAddress.value.get(address) ?? NONE,
  )
  /** Accepts a risk with a reason; without one the acceptance is taken back. */
  async function accept(finding: Finding, reason: string) {
    if (!draft.form) return
    const body = { key: riskKey(finding), basis: acceptanceBasis(draft.form, finding, draft.places), reason }
    draft.accepted = await callApi(API.acceptRisk, { params: { id: draft.id }, body })
  }
  return { faults, risks, accepted, lapsed, accept, advice, at }
}

const keepSame = (before: readonly Finding[] | undefined, now: readonly Finding[]): readonly Finding[] =>
  before?.length === now.length && before.every((f, i) => now[i] && isSameFinding(f, now[i])) ? before : now
