import type { OfferedRow } from '#core/form/rows'
import { planOf } from '#core/fill/plan'
import type { RespondentPage, Sending, VisibleForm } from '#shared/api/answering'
import { callLink } from '~/api/callLink'

/** Milliseconds without a further answer after which the form is asked for anew. */
const SETTLE = 300
/** Chosen rows of one list that are remembered. */
const MOST_REMEMBERED = 200

/** What a party sees of its form; asked for anew when an outcome over answers that it does not see may have changed. */
export function useVisibleForm(token: string, page: RespondentPage | null) {
  const seen = shallowRef<VisibleForm | null>(page)
  const plan = computed(() => (seen.value ? planOf(seen.value.definition) : null))
  const access = computed(() => seen.value?.access ?? {})
  const mayFill = (code: string) => access.value[code] !== 'reads'
  /** Whether anything of a section is this party's to answer. */
  const isFilledHere = (section: number): boolean =>
    plan.value?.sections[section]?.all.some(s => access.value[s.place.code] === 'fills') ?? false

  /** Rows of long lists that were chosen here, by list: the page knows only those. */
  const chosenRows = ref<Record<string, OfferedRow[]>>({})
  function setChosenRows(rows: Record<string, OfferedRow[]>) {
    chosenRows.value = rows
    if (seen.value) seen.value = withRows(seen.value, rows)
  }
  function rememberRow(list: string, row: OfferedRow) {
    const others = (chosenRows.value[list] ?? []).filter(r => r.code !== row.code)
    setChosenRows({ ...chosenRows.value, [list]: [...others, row].slice(-MOST_REMEMBERED) })
  }

  const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
  /** The newest request; what older ones bring late is left aside. */
  let newest = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  async function refetch(body: Sending) {
    const own = (newest += 1)
    try {
      const form = await callLink('refetchForm', { params: { token }, body })
      await loadPatternsFor(form.definition)
      if (own === newest) seen.value = withRows(form, chosenRows.value)
    } catch (cause) {
      refusal.value = refusalOf(cause)
    }
  }
  /** Asks for the form anew, once no more answers come, if an answer may change what shows. */
  function answered(code: string, sending: () => Sending) {
    if (!seen.value?.refetchOn.includes(code)) return
    clearTimeout(timer)
    timer = setTimeout(() => void refetch(sending()), SETTLE)
  }
  onBeforeUnmount(() => clearTimeout(timer))
  const rows = { chosenRows, setChosenRows, rememberRow }
  return { plan, access, mayFill, isFilledHere, ...rows, answered, refetch, refusal }
}

/** A form whose long lists have the rows that were chosen, too. */
function withRows(form: VisibleForm, chosen: Readonly<Record<string, OfferedRow[]>>): VisibleForm {
  const lists = form.definition.lists?.map(list => {
    const known = new Set(list.rows.map(r => r.code))
    const fresh = (chosen[list.code] ?? []).filter(r => !known.has(r.code))
    if (list.partial === undefined || fresh.length === 0) return list
    return { ...list, rows: [...list.rows, ...fresh] }
  })
  return lists ? { ...form, definition: { ...form.definition, lists } } : form
}
