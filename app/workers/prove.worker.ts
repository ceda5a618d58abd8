import type { Form } from '../../core/form/definition'
import type { Verdict } from '../../core/prove/finding'
import { Memory } from '../../core/prove/memory'
import { proving } from '../../core/prove/prove'

export interface ProveQuestion { asked: number, form: Form, today: string }
/** `isWhole`: every check has run; before that, what was found so far. */
export interface ProveAnswer { asked: number, verdict: Verdict | null, isWhole: boolean, milliseconds: number, error: string | null }

/** What was found so far is told from this time on, and then now and again. */
const FIRST_AFTER = 250
const THEN_AFTER = 400
/** A proof lets newer questions in after so long. */
const SLICE = 30

const memory = new Memory()
let newest = 0
const reply = (answer: ProveAnswer) => postMessage(answer)

addEventListener('message', ({ data }: MessageEvent<ProveQuestion>) => {
  newest = data.asked
  const begun = performance.now()
  const steps = proving(data.form, data.today, memory)
  let told = begun + FIRST_AFTER - THEN_AFTER
  const work = () => {
    if (data.asked !== newest) return // a newer state of the form is asked for
    try {
      const until = performance.now() + SLICE
      for (let now = performance.now(); now < until; now = performance.now()) {
        const { value, done } = steps.next()
        if (done) return reply({ asked: data.asked, verdict: value(), isWhole: true, milliseconds: performance.now() - begun, error: null })
        if (now - told < THEN_AFTER) continue
        told = now
        reply({ asked: data.asked, verdict: value(), isWhole: false, milliseconds: now - begun, error: null })
      }
      setTimeout(work)
    }
    catch (error) {
      console.error(error)
      reply({ asked: data.asked, verdict: null, isWhole: true, milliseconds: performance.now() - begun, error: `The prover failed: ${error instanceof Error ? error.message : String(error)}` })
    }
  }
  work()
})
