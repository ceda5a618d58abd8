import type { Ref } from 'vue'
import type { Filled } from '#core/fill/fill'
import { openedWith } from '#core/form/alongside'
import type { Turn } from '#core/form/turns'
import { firstTurn, nextTurn, turnOf } from '#core/parties/turns'

/** Whose turn it is in the rehearsal, or whose turns: handed on by the real rules, given back to a turn that was taken. */
export function useBaton(filled: Ref<Filled | null>) {
  /** The turns that were handed on, the first one first. */
  const taken = ref<readonly string[]>([])
  /** The turns that are open; undefined before anything was handed on, none when the response is done. */
  const waiting = ref<readonly string[]>()
  const form = computed(() => filled.value?.plan.form ?? null)
  const open = computed<readonly Turn[]>(() => {
    if (!form.value) return []
    const own = form.value
    const known = waiting.value?.flatMap(code => turnOf(own, code) ?? [])
    // What was open may have been taken out of the form.
    if (known && (known.length > 0 || waiting.value?.length === 0)) return known
    const first = firstTurn(own)
    return first ? [first] : []
  })
  const together = (turn: Turn): readonly Turn[] => (form.value ? openedWith(form.value, turn) : [turn])
  /** Hands a turn on; what comes next is opened when all that are open at once with it are handed on. */
  function handOn(turn: Turn) {
    const left = open.value.filter(t => t.code !== turn.code)
    const last = together(turn).at(-1) ?? turn
    const next = left.length === 0 && filled.value ? nextTurn(filled.value, last) : null
    taken.value = [...taken.value.filter(code => code !== turn.code), turn.code]
    const opened = next ? together(next) : []
    waiting.value = [...left, ...opened].map(t => t.code)
  }
  /** Gives the response back to a turn; what was open at once with that stays handed on. */
  function giveBack(turn: Turn) {
    const beside = together(turn).flatMap(t => (t.code === turn.code ? [] : [t.code]))
    const at = Math.max(0, taken.value.indexOf(turn.code))
    taken.value = taken.value.filter((code, i) => i < at || (code !== turn.code && beside.includes(code)))
    waiting.value = [turn.code]
  }
  /** The turns that one can be given back to, the last one first: of what is open at once with it, it sees nothing. */
  const earlierThan = (turn: Turn): Turn[] =>
    [...taken.value].reverse().flatMap(code => {
      const before = form.value && turnOf(form.value, code)
      return before && !together(turn).includes(before) ? [before] : []
    })
  function reset() {
    taken.value = []
    waiting.value = undefined
  }
  return { taken, open, handOn, giveBack, earlierThan, reset }
}
