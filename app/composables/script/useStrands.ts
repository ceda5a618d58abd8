import { threadsOf, type Thread } from '#core/form/threads'
import type { Address } from '#core/form/walk'
import type { Strand } from '~/components/write/strand'

/** Threads drawn side by side, at most. */
const LANES = 4

/** By row: the pieces of thread that run through it. What is as it was stays the same object. */
export function useStrands() {
  const draft = useDraft()
  const threads = computed(() => threadsOf(draft.threaded, LANES))
  const orders = computed(() => new Map(draft.threaded.map(p => [p.address, p.order] as const)))

  function addStrands(thread: Thread, byRow: Map<Address, Strand[]>) {
    const stops = [thread.from, ...thread.to]
    const stopOrders = stops.map(a => orders.value.get(a) ?? 0)
    const [first, last] = [Math.min(...stopOrders), Math.max(...stopOrders)]
    const lit = draft.selected !== null && stops.includes(draft.selected)
    const ends = new Set(thread.to)
    for (const p of draft.threaded.slice(first, last + 1)) {
      const beyond = ends.has(p.address) ? 'end' : 'pass'
      const part = p.address === thread.from ? 'gate' : beyond
      const row = byRow.get(p.address) ?? []
      row.push({ lane: thread.lane, part, above: p.order > first, below: p.order < last, lit })
      byRow.set(p.address, row)
    }
  }
  return computed<ReadonlyMap<Address, Strand[]>>(before => {
    const byRow = new Map<Address, Strand[]>()
    for (const thread of threads.value) addStrands(thread, byRow)
    return new Map([...byRow].map(([address, row]) => [address, keepSame(before?.get(address), row)]))
  })
}

const KEYS = ['lane', 'part', 'above', 'below', 'lit'] as const
/** The strands that were there before, if the new ones are the same. */
function keepSame(before: Strand[] | undefined, now: Strand[]): Strand[] {
  if (before?.length !== now.length) return now
  const isSame = now.every((s, i) => KEYS.every(k => s[k] === before[i]?.[k]))
  return isSame ? before : now
}
