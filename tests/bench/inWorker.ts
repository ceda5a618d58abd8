import { applyEdits } from '../../core/form/edits'
import { Memory } from '../../core/prove/goals/memory'
import { prove } from '../../core/prove/prove'
import type { Form } from '../../core/form/definition'

// Runs in a browser's worker: proves a form several times from nothing, then again after edits of one rule each, and sends the milliseconds of each.
addEventListener('message', ({ data }: MessageEvent<{ form: Form; times: number; edits: number }>) => {
  const timed = (form: Form, memory?: Memory) => {
    const begun = performance.now()
    prove(form, '2026-11-24', memory)
    return performance.now() - begun
  }
  const whole = Array.from({ length: data.times }, () => timed(data.form))
  const memory = new Memory()
  let { form } = data
  timed(form, memory)
  const codes = form.sections
    .flatMap(s => s.items)
    .flatMap(i => (i.kind === 'question' ? [i.code] : []))
    .slice(6)
  const edited = Array.from({ length: data.edits }, (_, k) => {
    form = applyEdits(structuredClone(form), [
      {
        do: 'change',
        what: `item/${codes[(k * 37) % codes.length] ?? ''}`,
        set: { shownWhen: `q3 = ${k % 2 === 0}` },
      },
    ]).form
    return timed(form, memory)
  })
  postMessage({ whole, edited })
})
