/** Milliseconds after which what was written down is done: the transaction that wrote it is over by then; else the next regular look finds it. */
const PAUSE = 700

let look: (() => Promise<void>) | null = null
let timer: NodeJS.Timeout | undefined

/** Sets what looks for deliveries that are due; null: nothing does, and they wait for the regular look. */
export function lookWith(found: (() => Promise<void>) | null): void {
  look = found
  clearTimeout(timer)
}

/** There is something to be done soon. */
export function soon(): void {
  if (!look) return
  clearTimeout(timer)
  timer = setTimeout(() => void look?.(), PAUSE)
  timer.unref()
}
