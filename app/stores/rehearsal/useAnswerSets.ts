import { useStorage } from '@vueuse/core'
import type { Ref } from 'vue'
import { z } from 'zod'
import type { Answers } from '#core/form/answers'
import { AnyAnswers } from '#shared/api/stored'
import { readJson } from '~/browser/readJson'

const AnswerSet = z.object({ name: z.string(), answers: AnyAnswers })
export type AnswerSet = z.infer<typeof AnswerSet>

/** Named sets of practice answers, kept by form in this browser. */
export function useAnswerSets(formId: Ref<string>) {
  const sets = useStorage<AnswerSet[]>(() => `tobbin-sets-${formId.value}`, [], localStorage, {
    shallow: true,
    flush: 'sync',
    writeDefaults: false,
    listenToStorageChanges: false,
    serializer: { read: readSets, write: JSON.stringify },
  })
  function saveSet(name: string, answers: Answers) {
    const others = sets.value.filter(s => s.name !== name)
    sets.value = [...others, { name, answers }].toSorted((a, b) => a.name.localeCompare(b.name))
  }
  const removeSet = (name: string) => (sets.value = sets.value.filter(s => s.name !== name))
  return { sets, saveSet, removeSet }
}

/** What this browser keeps; sets that can't be read are left out. */
function readSets(text: string): AnswerSet[] {
  const kept = readJson(text)
  if (!Array.isArray(kept)) return []
  return kept.flatMap(set => {
    const read = AnswerSet.safeParse(set)
    return read.success ? [read.data] : []
  })
}
