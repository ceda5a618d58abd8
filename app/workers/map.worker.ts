import type { MapGraph } from '../../core/map/graph'
import { layOutMap, type MapLayout } from '../../core/map/layout'

/** A map to be laid out. */
export interface MapQuestion {
  asked: number
  graph: MapGraph
  inLanes: boolean
}
/** The layout, or what went wrong. */
export type MapAnswer = { asked: number } & (
  { layout: MapLayout; error?: undefined } | { layout?: undefined; error: string }
)

addEventListener('message', ({ data: { asked, graph, inLanes } }: MessageEvent<MapQuestion>) => {
  postMessage(answer(asked, graph, inLanes))
})

function answer(asked: number, graph: MapGraph, inLanes: boolean): MapAnswer {
  try {
    return { asked, layout: layOutMap(graph, inLanes) }
  } catch (error) {
    return { asked, error: error instanceof Error ? error.message : String(error) }
  }
}
