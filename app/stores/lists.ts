import { useTimeoutFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { RowProblem } from '#core/lists/integrity'
import type { ListsAnswer, ListsQuestion } from '../workers/lists.worker'
import { useDraft } from './draft'

/** After the last edit, the check waits this long: a long table takes a moment to hand over. */
const SETTLE = 400
const NONE: readonly RowProblem[] = []

/** What is wrong with the rows of the draft’s lists, from a worker. */
export const useLists = defineStore('lists', () => {
  const draft = useDraft()
  const problems = shallowRef<readonly RowProblem[]>(NONE)
  const milliseconds = ref(0)
  let worker: Worker | null = null
  let asked = 0
  const waiting = useTimeoutFn(
    () =>
      worker?.postMessage({ ask: 'check', asked, lists: draft.form?.lists ?? [] } satisfies ListsQuestion),
    SETTLE,
    { immediate: false },
  )

  function start() {
    if (worker) return
    worker = newListsWorker()
    worker.onmessage = ({ data }: MessageEvent<ListsAnswer>) => {
      if (data.is !== 'checked' || data.asked !== asked) return
      problems.value = data.problems
      milliseconds.value = data.milliseconds
    }
    watch(() => draft.form?.lists, ask, { immediate: true })
  }
  function ask() {
    waiting.stop()
    asked += 1
    const lists = draft.form?.lists ?? []
    if (lists.length === 0) problems.value = NONE
    else waiting.start()
  }
  const of = (code: string): readonly RowProblem[] => problems.value.filter(p => p.list === code)
  return { problems, milliseconds, of, start }
})

export const newListsWorker = () =>
  new Worker(new URL('../workers/lists.worker.ts', import.meta.url), { type: 'module' })
