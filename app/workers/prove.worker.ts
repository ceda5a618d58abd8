import type { Form } from '../../core/form/definition'
import type { Verdict } from '../../core/prove/finding'
import { Memory } from '../../core/prove/goals/memory'
import { proveInSteps } from '../../core/prove/prove'

export interface ProveQuestion {
  asked: number
  form: Form
  today: string
}
/** Sent while somebody scrolls: the prover takes its hands off the processor for so many milliseconds. */
export interface ProveRest {
  rest: number
}
/** `isWhole`: every check has run; before that, what was found so far. */
export interface ProveAnswer {
  asked: number
  verdict: Verdict | null
  isWhole: boolean
  milliseconds: number
  error: string | null
}

/** What was found so far is told from this time on, and then now and again. */
const FIRST_AFTER = 250
const THEN_AFTER = 400
/** A proof lets newer questions in after so long. */
const SLICE = 10

const memory = new Memory()
/** Takes a turn behind what waits already; a timer would wait at least 4 ms each time. */
const turns = new MessageChannel()
const next: (() => void)[] = []
turns.port1.onmessage = () => next.shift()?.()
function later(work: () => void) {
  next.push(work)
  turns.port2.postMessage(null)
}

let newest = 0
let restUntil = 0
const reply = (answer: ProveAnswer) => postMessage(answer)

addEventListener('message', ({ data }: MessageEvent<ProveQuestion | ProveRest>) => {
  if ('rest' in data) restUntil = performance.now() + data.rest
  else answer(data)
})

function answer(data: ProveQuestion) {
  newest = data.asked
  const begun = performance.now()
  const steps = proveInSteps(data.form, data.today, memory)
  let told = begun + FIRST_AFTER - THEN_AFTER
  const work = () => {
    if (data.asked !== newest) return // a newer state of the form is asked for
    const rest = restUntil - performance.now()
    if (rest > 0) {
      setTimeout(work, rest)
      return
    }
    try {
      const until = performance.now() + SLICE
      for (let now = performance.now(); now < until; now = performance.now()) {
        const { value, done } = steps.next()
        if (done)
          return reply({
            asked: data.asked,
            verdict: value(),
            isWhole: true,
            milliseconds: performance.now() - begun,
            error: null,
          })
        if (now - told < THEN_AFTER) continue
        told = now
        reply({ asked: data.asked, verdict: value(), isWhole: false, milliseconds: now - begun, error: null })
      }
      later(work)
    } catch (error) {
      console.error(error)
      reply({
        asked: data.asked,
        verdict: null,
        isWhole: true,
        milliseconds: performance.now() - begun,
        error: `The prover failed: ${error instanceof Error ? error.message : String(error)}`,
      })
    }
  }
  work()
}
