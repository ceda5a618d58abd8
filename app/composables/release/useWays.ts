import { API } from '#shared/api/endpoints'
import type { ChangeWay, Way } from '#shared/api/ways'
import { callApi } from '~/api/callApi'

/** The further ways into a form, and what can be done with them. */
export function useWays(formId: string) {
  const params = { id: formId }
  const ways = shallowRef<Way[]>([])
  const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
  const busy = ref(false)

  /** Does something, then shows the ways as they are; true when it was done. */
  async function act(run: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    refusal.value = null
    try {
      await run()
      ways.value = await callApi(API.listWays, { params })
      return true
    } catch (cause) {
      refusal.value = refusalOf(cause)
      return false
    } finally {
      busy.value = false
    }
  }
  const load = () => act(() => Promise.resolve())
  const change = ({ id }: Way, body: ChangeWay) =>
    act(() => callApi(API.changeWay, { params: { ...params, way: id }, body }))
  const remove = ({ id }: Way) => act(() => callApi(API.removeWay, { params: { ...params, way: id } }))
  return { params, ways, refusal, busy, act, load, change, remove }
}
export type Ways = ReturnType<typeof useWays>
