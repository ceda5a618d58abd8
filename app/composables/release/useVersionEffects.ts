import type { Form } from '#core/form/definition'
import type { EffectsAnswer, EffectsQuestion } from '~/workers/effects.worker'

/** What the draft does otherwise than a version, decided in a worker; the newest state is the one that is waited for. */
export function useVersionEffects(before: () => Form | null, after: () => Form | null) {
  const found = shallowRef<Extract<EffectsAnswer, { lines: object }> | null>(null)
  const refusal = ref('')
  const isWorking = ref(false)
  let asked = 0
  let worker: Worker | null = null
  function hear({ data }: MessageEvent<EffectsAnswer>) {
    if (data.asked !== asked) return
    isWorking.value = false
    refusal.value = data.error === undefined ? '' : `The versions could not be compared: ${data.error}`
    found.value = data.lines ? data : null
  }
  function stopped(event: ErrorEvent) {
    isWorking.value = false
    refusal.value = `The versions could not be compared: ${event.message}`
  }
  function ask() {
    const [was, is] = [before(), after()]
    if (!was || !is || !worker) return
    asked += 1
    isWorking.value = true
    const question: EffectsQuestion = { asked, before: toRaw(was), after: toRaw(is), today: dayHere() }
    worker.postMessage(question)
  }
  onMounted(() => {
    worker = new Worker(new URL('../../workers/effects.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', hear)
    worker.addEventListener('error', stopped)
    watch([before, after], ask, { immediate: true })
  })
  onUnmounted(() => worker?.terminate())
  return { found, refusal, isWorking }
}
