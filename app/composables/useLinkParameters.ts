import type { Ref } from 'vue'
import type { Answers } from '#core/form/answers'
import type { Plan } from '#core/fill/planned'

/** What a respondent's link brings along: hidden values by their parameters, and what the form does not know. `answered`: what the link answers by itself. */
export function useLinkParameters(plan: Ref<Plan | null>, answered: Answers = {}) {
  const brought = Object.entries(useRoute().query).flatMap(([name, value]) =>
    typeof value === 'string' ? [[name, value] as const] : [],
  )
  /** By the name of a parameter: the code of the hidden question that takes it. */
  const codes = computed(
    () =>
      new Map(
        (plan.value?.questions ?? []).flatMap(({ place: { node } }) =>
          node.type === 'hidden' ? [[node.from ?? node.code, node.code] as const] : [],
        ),
      ),
  )
  const fromLink = computed((): Answers => {
    const known = brought.flatMap(([name, value]) => {
      const code = codes.value.get(name)
      return code === undefined ? [] : [[code, value] as const]
    })
    // What the link itself answers is the server’s word.
    return { ...Object.fromEntries(known), ...answered }
  })
  const unknownParameters = computed(() =>
    brought.map(([name]) => name).filter(name => !codes.value.has(name)),
  )
  return { fromLink, unknownParameters }
}
