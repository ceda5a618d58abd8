import type { Ref } from 'vue'
import type { Filled } from '#core/fill/fill'
import type { Turn } from '#core/form/turns'
import { firstTurn, nextTurn, turnOf } from '#core/parties/turns'

/** Whose turn it is in the rehearsal: handed on by the real rules, given back to a turn that was taken. */
export function useBaton(filled: Ref<Filled | null>) {
  /** The turns that were handed on, the first one first. */
  const taken = ref<readonly string[]>([])
  /** The turn that was gone on to; undefined before anything was handed on, null when the response is done. */
  const holder = ref<string | null>()
  const form = computed(() => filled.value?.plan.form ?? null)
  const current = computed<Turn | null>(() => {
    if (!form.value || holder.value === null) return null
    return (holder.value === undefined ? null : turnOf(form.value, holder.value)) ?? firstTurn(form.value)
  })
  /** Hands a turn on. @returns whose turn is next; null when the response is done */
  function handOn(turn: Turn): Turn | null {
    const next = filled.value ? nextTurn(filled.value, turn) : null
    taken.value = [...taken.value.filter(code => code !== turn.code), turn.code]
    holder.value = next?.code ?? null
    return next
  }
  function giveBack(code: string) {
    taken.value = taken.value.slice(0, Math.max(0, taken.value.indexOf(code)))
    holder.value = code
  }
  function reset() {
    taken.value = []
    holder.value = undefined
  }
  return { taken, current, handOn, giveBack, reset }
}
