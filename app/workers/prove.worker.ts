import type { Form } from '../../core/form/definition'
import { applyEdits, type Edit } from '../../core/form/edits'
import type { Verdict } from '../../core/prove/finding'
import { Memory } from '../../core/prove/goals/memory'
import { proveInSteps } from '../../core/prove/prove'

/** What is to be proved: a whole form, or what edits make of the form that was asked for before. */
export type ProveQuestion = { asked: number; today: string } & (
  { form: Form; edits?: undefined } | { form?: undefined; edits: readonly Edit[] }
)

/** Sent while somebody scrolls: the prover takes its hands off the processor for so many milliseconds. */
export interface ProveRest {
  rest: number
}
export type ProveMessage = ProveQuestion | ProveRest

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
/** The form that was asked for last: edits are made on top of it. */
let form: Form | null = null
let newest = 0
let restUntil = 0

/** Takes a turn behind what waits already; a timer would wait at least 4 ms each time. */
const turns = new MessageChannel()
const next: (() => void)[] = []
turns.port1.onmessage = () => next.shift()?.()
function later(work: () => void) {
  next.push(work)
  turns.port2.postMessage(null)
}

const reply = (answer: ProveAnswer) => postMessage(answer)

addEventListener('message', ({ data }: MessageEvent<ProveMessage>) => {
  if ('rest' in data) restUntil = performance.now() + data.rest
  else answer(data)
})

function answer(question: ProveQuestion) {
  const { asked, today } = question
  newest = asked
  try {
    form = nextForm(question)
    new Proof(asked, form, today).work()
  } catch (error) {
    reply(failure(asked, 0, error))
  }
}

function nextForm(question: ProveQuestion): Form {
  if (question.form) return question.form
  if (!form) throw new Error('Edits came before a form.')
  return applyEdits(form, [...question.edits]).form
}

function failure(asked: number, milliseconds: number, error: unknown): ProveAnswer {
  console.error(error)
  const reason = error instanceof Error ? error.message : String(error)
  return { asked, verdict: null, isWhole: true, milliseconds, error: `The prover failed: ${reason}` }
}

/** The proof of one state of the form, slice by slice, until a newer one is asked for. */
class Proof {
  private readonly begun = performance.now()
  private readonly steps: ReturnType<typeof proveInSteps>
  private told = this.begun + FIRST_AFTER - THEN_AFTER

  constructor(
    private readonly asked: number,
    form: Form,
    today: string,
  ) {
    this.steps = proveInSteps(form, today, memory)
  }

  work = () => {
    if (this.asked !== newest) return // a newer state of the form is asked for
    const rest = restUntil - performance.now()
    if (rest > 0) {
      setTimeout(this.work, rest)
      return
    }
    try {
      if (!this.workForASlice()) later(this.work)
    } catch (error) {
      reply(failure(this.asked, performance.now() - this.begun, error))
    }
  }

  /** True once everything is decided. */
  private workForASlice(): boolean {
    const until = performance.now() + SLICE
    for (let now = performance.now(); now < until; now = performance.now()) {
      const { value, done } = this.steps.next()
      if (done || now - this.told >= THEN_AFTER) {
        this.told = now
        this.tell(value(), done === true)
      }
      if (done) return true
    }
    return false
  }

  private tell(verdict: Verdict, isWhole: boolean) {
    const milliseconds = performance.now() - this.begun
    reply({ asked: this.asked, verdict, isWhole, milliseconds, error: null })
  }
}
