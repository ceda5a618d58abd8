import { defineStore } from 'pinia'
import type { Verdict } from '#core/prove/finding'
import type { ProveAnswer } from '../workers/prove.worker'
import { useDraft } from './draft'
import { dayHere } from './rehearsal'

const SETTLE = 60

/** What the prover says about the draft, from its worker; a newer edit overtakes an older question. */
export const useFindings = defineStore('findings', () => {
  const draft = useDraft()
  const verdict = shallowRef<Verdict | null>(null)
  const milliseconds = ref(0)
  const working = ref(false)
  const broken = ref<string | null>(null)
  let worker: Worker | null = null
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  function start() {
    if (worker) return
    worker = new Worker(new URL('../workers/prove.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<ProveAnswer>) => {
      if (data.asked !== asked) return
      working.value = false
      broken.value = data.error
      if (data.verdict) verdict.value = data.verdict
      milliseconds.value = data.milliseconds
    }
    worker.onerror = (event) => {
      working.value = false
      broken.value = `The prover stopped: ${event.message}`
    }
    watch(() => draft.form, ask, { immediate: true })
  }

  function ask() {
    clearTimeout(timer)
    working.value = true
    asked += 1
    timer = setTimeout(() => {
      if (draft.form) worker?.postMessage({ asked, form: draft.form, today: dayHere() })
    }, SETTLE)
  }

  const of = (severity: 'fault' | 'risk' | 'advice') => verdict.value?.findings.filter(f => f.severity === severity) ?? []
  const faults = computed(() => of('fault'))
  const risks = computed(() => of('risk'))
  const advice = computed(() => of('advice'))
  const at = (address: string) => verdict.value?.findings.filter(f => f.address === address) ?? []
  return { verdict, milliseconds, working, broken, faults, risks, advice, at, start }
})
