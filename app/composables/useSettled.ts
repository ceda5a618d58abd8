import type { Ref } from 'vue'

/** What somebody types, once no further key has come for so many milliseconds. */
export function useSettled<T>(typed: Ref<T>, milliseconds: number): Ref<T> {
  const settled = shallowRef(typed.value)
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(typed, value => {
    clearTimeout(timer)
    timer = setTimeout(() => (settled.value = value), milliseconds)
  })
  onScopeDispose(() => clearTimeout(timer))
  return settled
}
