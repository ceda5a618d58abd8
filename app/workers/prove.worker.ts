import type { Form } from '../../core/form/definition'
import type { Verdict } from '../../core/prove/finding'
import { prove } from '../../core/prove/prove'

export interface ProveQuestion { asked: number, form: Form, today: string }
export interface ProveAnswer { asked: number, verdict: Verdict | null, milliseconds: number, error: string | null }

const reply = (answer: ProveAnswer) => postMessage(answer)

addEventListener('message', ({ data }: MessageEvent<ProveQuestion>) => {
  const begun = performance.now()
  try {
    const verdict = prove(data.form, data.today)
    reply({ asked: data.asked, verdict, milliseconds: performance.now() - begun, error: null })
  }
  catch (error) {
    console.error(error)
    reply({ asked: data.asked, verdict: null, milliseconds: performance.now() - begun, error: `The prover failed: ${error instanceof Error ? error.message : String(error)}` })
  }
})
