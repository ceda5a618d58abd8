import { applyEdits, type Edit } from '../../core/form/edits'
import { Memory } from '../../core/prove/goals/memory'
import { prove } from '../../core/prove/prove'
import type { Form } from '../../core/form/definition'

/** A form to prove several times from nothing, then after each of some edits. */
interface Work {
  form: Form
  times: number
  edits: Edit[]
}

// Runs in a browser's worker and sends the milliseconds of each proof.
addEventListener('message', ({ data: { form, times, edits } }: MessageEvent<Work>) => {
  const timed = (work: () => void) => {
    const begun = performance.now()
    work()
    return performance.now() - begun
  }
  const whole = Array.from({ length: times }, () => timed(() => prove(form, '2026-11-24')))
  const memory = new Memory()
  prove(form, '2026-11-24', memory)
  let latest = form
  const edited = edits.map(edit =>
    timed(() => {
      latest = applyEdits(latest, [edit]).form
      prove(latest, '2026-11-24', memory)
    }),
  )
  postMessage({ whole, edited })
})
