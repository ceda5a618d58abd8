import { listSectionGraph, listTurnGraph, type MapEdge, type MapGraph, type MapNode } from '#core/map/graph'
import type { MapLayout } from '#core/map/layout'
import { measureWays } from '#core/map/lengths'
import { collapseRuns } from '#core/map/runs'
import { ruleSentence } from '#core/form/names'
import { turnName } from '#core/parties/turns'
import type { MapAnswer, MapQuestion } from '~/workers/map.worker'

/** Above so many sections straight runs are drawn together, unless somebody wants them apart. */
const MANY = 24
/** Up to so many there is nothing to draw together. */
const FEW = 8
export type MapView = 'sections' | 'turns'

/** The draft as a map: what is in it, where it stands, and what is written there. */
export function useFormMap() {
  const draft = useDraft()
  const view = ref<MapView>('sections')
  const wantsRuns = ref<boolean | null>(null)
  const opened = ref<ReadonlySet<string>>(new Set())
  const sections = computed(() => draft.form?.sections.length ?? 0)
  const isCollapsed = computed({
    get: () => wantsRuns.value ?? sections.value > MANY,
    set: on => {
      wantsRuns.value = on
      opened.value = new Set()
    },
  })
  const bySection = computed<MapGraph>(() =>
    draft.form ? listSectionGraph(draft.form, draft.places) : { nodes: [], edges: [] },
  )
  const whole = computed<MapGraph>(() => {
    const { form } = draft
    if (!form || view.value === 'sections') return bySection.value
    return listTurnGraph(form, turn => turnName(form, turn))
  })
  const graph = computed(() => (isCollapsed.value ? collapseRuns(whole.value, opened.value) : whole.value))
  const inLanes = computed(() => (draft.form?.turns ?? []).length > 1)
  const lengths = computed(() => measureWays(bySection.value, draft.places))
  /** Draws a run's sections one by one. */
  function openRun(node: MapNode) {
    const ids = node.sections.map(n => whole.value.nodes[n]?.id ?? '')
    opened.value = new Set([...opened.value, ...ids])
  }
  const laid = useLayout(graph, inLanes)
  const mayCollapse = computed(() => view.value === 'sections' && sections.value > FEW)
  return {
    view,
    graph,
    whole,
    mayCollapse,
    isCollapsed,
    inLanes,
    lengths,
    openRun,
    ...laid,
    ...useMapWords(graph),
  }
}

/** The layout of a map, made in a worker; the newest map is the one that is waited for. */
function useLayout(graph: Ref<MapGraph>, inLanes: Ref<boolean>) {
  /** The layout with the map that it is of. */
  const drawn = shallowRef<{ graph: MapGraph; layout: MapLayout } | null>(null)
  const refusal = ref('')
  let asked = 0
  const waiting = new Map<number, MapGraph>()
  let worker: Worker | null = null
  function hear({ data }: MessageEvent<MapAnswer>) {
    const of = waiting.get(data.asked)
    waiting.delete(data.asked)
    if (data.asked !== asked || !of) return
    refusal.value = data.error === undefined ? '' : `The map could not be drawn: ${data.error}`
    if (data.layout) drawn.value = { graph: of, layout: data.layout }
  }
  onMounted(() => {
    worker = new Worker(new URL('../../workers/map.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', hear)
    worker.addEventListener(
      'error',
      event => (refusal.value = `The map could not be drawn: ${event.message}`),
    )
    watch([graph, inLanes], ask, { immediate: true })
  })
  onUnmounted(() => worker?.terminate())
  function ask() {
    asked += 1
    waiting.set(asked, graph.value)
    const question: MapQuestion = { asked, graph: toRaw(graph.value), inLanes: inLanes.value }
    worker?.postMessage(question)
  }
  return { drawn, refusal }
}

/** What is written in the map. */
function useMapWords(graph: Ref<MapGraph>) {
  const draft = useDraft()
  function sentence(text: string): string {
    const segments = draft.words ? ruleSentence(text, draft.words) : null
    return segments ? segments.map(s => s.text).join('') : text
  }
  /** Whether a way is the only one from where it begins. */
  const isOnly = (edge: MapEdge) => graph.value.edges.filter(e => e.from === edge.from).length === 1
  /** When a way is taken; empty for the only one. */
  function edgeWords(edge: MapEdge): string {
    const via = edge.via === null ? '' : `after “${edge.via}” `
    if (edge.kind === 'alongside') return 'open at once'
    if (edge.kind === 'over') return 'when it is passed over'
    if (edge.when !== null) return `${via}when ${sentence(edge.when)}`
    if (via !== '') return `${via}always`
    return isOnly(edge) ? '' : 'else'
  }
  function nodeWords(node: MapNode): string {
    if (node.kind === 'end') return ''
    if (node.kind === 'turn') return `fills ${counted(node.sections.length, 'section')}`
    const count = counted(node.questions, 'question')
    return node.rule === null ? count : `${count}, only when ${sentence(node.rule)}`
  }
  return { edgeWords, nodeWords }
}
