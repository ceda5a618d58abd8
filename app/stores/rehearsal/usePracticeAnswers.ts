import { useStorage } from '@vueuse/core'
import type { Ref } from 'vue'
import { isAnswer, type Answer, type Answers } from '#core/form/answers'
import { readJson } from '~/browser/readJson'

/** Practice answers, kept by form in this browser through reloads. */
export function usePracticeAnswers(formId: Ref<string>) {
  return useStorage<Answers>(() => `tobbin-practice-${formId.value}`, {}, localStorage, {
    shallow: true,
    flush: 'sync',
    writeDefaults: false,
    listenToStorageChanges: false,
    serializer: { read: readAnswers, write: JSON.stringify },
  })
}

/** What this browser keeps; answers that can't be read are left out. */
function readAnswers(text: string): Answers {
  const kept = readJson(text)
  const entries = typeof kept === 'object' && kept !== null ? Object.entries(kept) : []
  return Object.fromEntries(entries.filter((e): e is [string, Answer] => isAnswer(e[1])))
}
