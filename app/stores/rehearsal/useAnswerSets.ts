import type { Ref } from 'vue'
import { z } from 'zod'
import type { Answers } from '#core/form/answers'
import { AnyAnswers } from '#shared/api/stored'
import { readJson } from '~/browser/readJson'

const AnswerSet = z.object({ name: z.string(), answers: AnyAnswers })
export type AnswerSet = z.infer<typeof AnswerSet>

/** Named sets of practice answers, kept by form in this browser. */
export function useAnswerSets(formId: Ref<string>) {
  const sets = ref<AnswerSet[]>([])
  const storageKey = computed(() => `tobbin-sets-${formId.value}`)
  function put(next: AnswerSet[]) {
    sets.value = next
    localStorage.setItem(storageKey.value, JSON.stringify(next))
  }
  function saveSet(name: string, answers: Answers) {
    const others = sets.value.filter(s => s.name !== name)
    put([...others, { name, answers }].toSorted((a, b) => a.name.localeCompare(b.name)))
  }
  const removeSet = (name: string) => put(sets.value.filter(s => s.name !== name))
  /** What this browser keeps; sets that can't be read are left out. */
  function restoreSets() {
    const kept = readJson(localStorage.getItem(storageKey.value))
    sets.value = Array.isArray(kept)
      ? kept.flatMap(set => {
          const read = AnswerSet.safeParse(set)
          return read.success ? [read.data] : []
        })
      : []
  }
  return { sets, saveSet, removeSet, restoreSets }
}
