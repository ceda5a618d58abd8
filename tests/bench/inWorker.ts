import { prove } from '../../core/prove/prove'
import type { Form } from '../../core/form/definition'

// Runs in a browser's worker: proves a form several times and sends the milliseconds of each.
addEventListener('message', ({ data }: MessageEvent<{ form: Form, times: number }>) => {
  postMessage(Array.from({ length: data.times }, () => {
    const begun = performance.now()
    prove(data.form, '2026-11-24')
    return performance.now() - begun
  }))
})
