import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import { applyEdits, EditError, type Edit } from '#core/form/edits'
import { heldKey, heldSteps, keepHeld, withStep, type HeldStep } from './heldSteps'
import type { SharedState } from './usePull'

/**
 * Edits of somebody who may propose but not write: they are made here only, on top of the draft as the server has it, until they are
 * proposed. Those of others come in beneath them.
 */
export function useHeldSteps(state: SharedState, isHolding: Ref<boolean>) {
  const { id, form, confirmed, waiting, clashes } = state
  const all = shallowRef<readonly HeldStep[]>([])
  /** Edits that the changes of others have made impossible are no longer among those that wait. */
  const steps = computed(() => {
    const left = new Set(waiting.value)
    return all.value.map(step => step.filter(edit => left.has(edit))).filter(step => step.length > 0)
  })

  function set(next: readonly HeldStep[]) {
    all.value = next
    waiting.value = next.flat()
  }
  function hold(edits: readonly Edit[]) {
    set(withStep(steps.value, edits))
  }
  function keep() {
    if (keepHeld(id.value, steps.value)) return
    const sentence =
      'This browser has no room to keep what you write: propose it before you close or reload the page.'
    if (!clashes.value.some(c => c.sentence === sentence))
      clashes.value = [...clashes.value, { sentence, offer: null }]
  }
  /** Makes the steps that were kept on top of the draft; what can't be made any more is told. */
  function recall() {
    if (!confirmed.value) return
    let next = confirmed.value
    const kept: HeldStep[] = []
    for (const step of heldSteps(id.value)) {
      try {
        next = applyEdits(next, step).form
        kept.push(step)
      } catch (error) {
        if (!(error instanceof EditError)) throw error
        const sentence = `A change that you had not proposed yet can’t be made any more: ${error.message}`
        clashes.value = [...clashes.value, { sentence, offer: null }]
      }
    }
    set(kept)
    form.value = next
  }
  /** Lets all steps go: the draft is as the server has it. */
  function letGo() {
    set([])
    form.value = confirmed.value
  }
  watch(steps, () => {
    if (isHolding.value) keep()
  })
  // Another tab of this browser has written on.
  useEventListener('storage', event => {
    if (isHolding.value && event.key === heldKey(id.value)) recall()
  })
  return { steps, hold, recall, letGo }
}
