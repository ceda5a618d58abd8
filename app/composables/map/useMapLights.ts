import { END, type MapEdge, type MapGraph, type MapNode } from '#core/map/graph'
import { waysTaken } from '#core/map/ways'
import { turnsTaken } from '#core/parties/turns'

/** What is said of a node: whether the rehearsal's way leads over it, and what the prover found in it. */
export interface MapLight {
  isTaken: boolean
  faults: number
  risks: number
  isUnreachable: boolean
}

/** The rehearsal's way over the map, and what the prover found. */
export function useMapLights(graph: Ref<MapGraph>) {
  const draft = useDraft()
  const rehearsal = useRehearsal()
  const findings = useFindings()
  /** The nodes that the rehearsal's way leads over, in order. */
  const taken = computed(() => {
    const { filled } = rehearsal
    const { nodes } = graph.value
    if (!filled) return []
    if (nodes.some(n => n.kind === 'turn')) return [...turnsTaken(filled).map(code => `turn-${code}`), END]
    const over = filled.path.flatMap(section => nodes.find(n => n.sections.includes(section))?.id ?? [])
    return [...new Set([...over, END])]
  })
  const ways = computed(() => waysTaken(graph.value, taken.value))
  /** By section: how many faults and risks. */
  const found = computed(() => {
    const counts = new Map<number, { faults: number; risks: number }>()
    for (const place of draft.places)
      for (const { severity } of findings.at(place.address)) {
        const at = counts.get(place.section) ?? { faults: 0, risks: 0 }
        if (severity === 'fault') at.faults += 1
        if (severity === 'risk') at.risks += 1
        counts.set(place.section, at)
      }
    return counts
  })
  function of({ id, sections, address }: MapNode): MapLight {
    const said = sections.flatMap(s => found.value.get(s) ?? [])
    return {
      isTaken: id !== END && taken.value.includes(id),
      faults: said.reduce((sum, s) => sum + s.faults, 0),
      risks: said.reduce((sum, s) => sum + s.risks, 0),
      isUnreachable: address !== null && findings.at(address).some(f => f.code === 'unreachable-section'),
    }
  }
  const isTaken = ({ id }: MapEdge): boolean => ways.value.has(id)
  return { of, isTaken }
}
