import { API } from '#shared/api/endpoints'
import type { Tile } from '#shared/api/dashboards'
import type { Summary } from '#shared/api/summaries'
import { callApi } from '~/api/callApi'

/** Summaries that several figures are made of are asked for once, for as long as they are looked at. */
export function useSummaryCache(): (tile: Tile) => Promise<Summary> {
  const known = new Map<string, Promise<Summary>>()
  return ({ form, filter, by }) => {
    const key = JSON.stringify([form, filter, by])
    const before = known.get(key)
    if (before) return before
    const asked = callApi(API.summariseResponses, { params: { id: form }, query: { ...filter, by } })
    known.set(key, asked)
    // What is not ready yet, or was refused, is asked for again.
    asked.then(
      found => found.isReady || known.delete(key),
      () => known.delete(key),
    )
    return asked
  }
}
