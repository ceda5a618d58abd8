import { defineStore } from 'pinia'
import type { Ref } from 'vue'
import { API } from '#shared/api/endpoints'
import type { ActedOn, KeptView, ResponsesAct, ViewSettings, Workbench } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'
import { ALL_RESPONSES, useResponseFilter } from '~/composables/useResponseFilter'

/** In which shape the responses of a form are looked at. */
export type CollectMode =
  'table' | 'trays' | 'progress' | 'figures' | 'cross' | 'deliveries' | 'keys' | 'keeping'

/** Which responses of a form are looked at, how, and what stands beside them. */
export const useCollect = defineStore('collect', () => {
  const form = ref('')
  const mode = ref<CollectMode>('table')
  const shown = useShownResponses()
  const bench = useBench(form)
  /** The response that is read, and those that are selected. */
  const chosen = ref<string | null>(null)
  const selected = ref<string[]>([])
  /** Another response is to be read: the next or the previous one of those that are listed. */
  const stepped = ref<1 | -1 | null>(null)

  async function open(id: string) {
    if (form.value !== id) {
      form.value = id
      bench.workbench.value = null
      mode.value = 'table'
      chosen.value = null
      shown.show(null)
    }
    selected.value = []
    await bench.refresh()
  }
  /** The responses behind a part of a figure: those of the filter of which a condition is true besides. */
  function drill(condition: string) {
    const { where } = shown.filter.value
    shown.set({ where: where === '' ? condition : `(${where}) and (${condition})` })
    mode.value = 'table'
  }
  function drillWord(word: string) {
    shown.search.value = word
    mode.value = 'table'
  }
  return { form, mode, ...shown, ...bench, chosen, selected, stepped, open, drill, drillWord }
})

/** What stands beside the responses of a form, and what is done with them. */
function useBench(form: Ref<string>) {
  const workbench = shallowRef<Workbench | null>(null)
  /** Grows whenever something was done with responses: who shows them fetches them again. */
  const changes = ref(0)
  async function refresh() {
    workbench.value = await callApi(API.loadWorkbench, { params: { id: form.value } })
  }
  /** What is there now is to be fetched by all who show it. */
  async function changed() {
    changes.value += 1
    await refresh()
  }
  async function act(ids: readonly string[], what: ResponsesAct): Promise<ActedOn> {
    const acted = await callApi(API.actOnResponses, {
      params: { id: form.value },
      body: { ids: [...ids], act: what },
    })
    await changed()
    return acted
  }
  return { workbench, changes, refresh, changed, act }
}

/** Which responses are shown, in which order, and with which columns; a kept view sets them all. */
function useShownResponses() {
  const { replace, ...filtered } = useResponseFilter()
  const sortedBy = ref<{ key: string; order: 'asc' | 'desc' }[]>([])
  const columns = ref<string[] | null>(null)
  const pinned = ref(0)
  const view = ref<KeptView | null>(null)
  const sort = computed(() => {
    const [by] = sortedBy.value
    if (!by) return '-sentAt'
    return by.order === 'desc' ? `-${by.key}` : by.key
  })
  const settings = computed((): ViewSettings => ({
    filter: filtered.filter.value,
    sort: sort.value,
    columns: columns.value,
    pinned: pinned.value,
  }))
  /** @param kept the view to be shown; null: all responses as the form has them */
  function show(kept: KeptView | null) {
    view.value = kept
    const { filter, sort: by, columns: own, pinned: stuck } = kept?.settings ?? ALL
    replace(filter)
    sortedBy.value = by === '-sentAt' ? [] : [{ key: by.replace(/^-/, ''), order: orderOf(by) }]
    columns.value = own
    pinned.value = stuck
  }
  return { ...filtered, sortedBy, sort, columns, pinned, view, settings, show }
}

const ALL: ViewSettings = { filter: ALL_RESPONSES, sort: '-sentAt', columns: null, pinned: 0 }
const orderOf = (sort: string) => (sort.startsWith('-') ? 'desc' : 'asc')
