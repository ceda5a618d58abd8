import type { Ref } from 'vue'
import { isAnswer, type Answer, type Answers } from '#core/form/answers'
import { readJson } from '~/browser/readJson'

/** Practice answers, kept by form in this browser through reloads. */
export function usePracticeAnswers(formId: Ref<string>) {
  const answers = shallowRef<Answers>({})
  const storageKey = computed(() => `tobbin-practice-${formId.value}`)
  function put(next: Answers) {
    answers.value = next
    localStorage.setItem(storageKey.value, JSON.stringify(next))
  }
  const answer = (code: string, value: Answer) => put({ ...answers.value, [code]: value })
  /** What this browser keeps; answers that can't be read are left out. */
  function restoreAnswers() {
    const kept = readJson(localStorage.getItem(storageKey.value))
    const entries = typeof kept === 'object' && kept !== null ? Object.entries(kept) : []
    answers.value = Object.fromEntries(entries.filter((e): e is [string, Answer] => isAnswer(e[1])))
  }
  return { answers, put, answer, restoreAnswers }
}
