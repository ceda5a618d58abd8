import type { Refusal } from '#shared/api/refusal'

/** Something that is tried at a press, one at a time; `refusal`: why the last try was refused, or what it says of what it left undone. */
export function useRefusable() {
  const busy = ref(false)
  const refusal = ref<Refusal | string | null>(null)
  async function attempt(run: () => Promise<unknown>) {
    busy.value = true
    refusal.value = null
    try {
      const left = await run()
      if (typeof left === 'string') refusal.value = left
    } catch (error) {
      refusal.value = refusalOf(error)
    }
    busy.value = false
  }
  return { busy, refusal, attempt }
}
