import type { Ref } from 'vue'
import type { ChoiceList } from '#core/form/choiceLists'
import type { RowProblem } from '#core/lists/integrity'
import { replaceEdit } from '#core/lists/changes'
import { viewRows, type RowKind, type RowOrder } from '#core/lists/view'

/** What of a list is looked at: found, filtered, sorted. */
export function useListView(list: Ref<ChoiceList | null>, problems: Ref<readonly RowProblem[]>) {
  const draft = useDraft()
  const search = ref('')
  const only = ref<RowKind>('all')
  const sorted = ref<RowOrder | null>(null)
  /** What is wrong with a row, by its position. */
  const wrong = computed(
    () => new Map(problems.value.flatMap(p => p.rows.map(at => [at, p.sentence] as const))),
  )
  const view = computed(() => {
    if (!list.value) return []
    const looked = { search: search.value, only: only.value, sorted: sorted.value }
    return viewRows(list.value, looked, wrong.value, draft.form?.language ?? 'en')
  })
  watch(
    () => list.value?.code,
    () => {
      sorted.value = null
      only.value = 'all'
    },
  )
  /** By a column, then the other way about, then not at all. */
  function sort(column: string) {
    const before = sorted.value
    if (before?.column !== column) sorted.value = { column, down: false }
    else sorted.value = before.down ? null : { column, down: true }
  }
  /** Puts the rows themselves into the order in which they are looked at; what is not in view comes after. */
  function keepOrder() {
    const own = list.value
    if (!own || !sorted.value) return
    const inView = new Set(view.value)
    const rest = own.rows.filter((_, i) => !inView.has(i))
    const rows = [...view.value.flatMap(at => own.rows[at] ?? []), ...rest]
    if (draft.edit([replaceEdit(`list/${own.code}`, own.rows, rows)])) sorted.value = null
  }
  function showProblems() {
    only.value = 'problems'
    sorted.value = null
  }
  return { search, only, sorted, wrong, view, sort, keepOrder, showProblems }
}
