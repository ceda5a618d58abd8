import type { Ref } from 'vue'
import type { Page } from '#core/fill/pages'
import type { Answer, Answers } from '#core/form/answers'
import { usePracticeAnswers } from './usePracticeAnswers'
import { useWitness } from './useWitness'

/** The answers that are rehearsed and the page they are at: those of practice, or of an example while one is open. */
export function useRehearsedAnswers(formId: Ref<string>) {
  const practice = usePracticeAnswers(formId)
  const { unlight: endWitness, ...witness } = useWitness()
  const { shown } = witness
  const answers = computed({
    get: () => shown.value ?? practice.value,
    set: next => {
      if (shown.value) shown.value = next
      else practice.value = next
    },
  })
  const answer = (code: string, value: Answer) => (answers.value = { ...answers.value, [code]: value })
  const place = ref<Page>({ section: 0, only: null })
  /** Where practice was left for an example. */
  const left = ref<Page | null>(null)
  /** Opens an example; the answers of practice stay as they are. */
  function openExample(opened: Answers, at: typeof witness.lit.value) {
    left.value ??= place.value
    endWitness()
    shown.value = { ...opened }
    witness.lit.value = at
  }
  /** Done with an example: on with the practice answers, where they were left. */
  function unlight() {
    endWitness()
    if (left.value) place.value = left.value
    left.value = null
  }
  return { answers, answer, place, ...witness, openExample, unlight }
}
