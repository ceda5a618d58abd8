import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import type { Address } from '../../core/form/walk'
import { decideEffects, type Effect } from '../../core/prove/effects/effects'
import { decidePromises, type PromiseOutcome } from '../../core/prove/effects/keptPromises'
import { sayEffect, sayPromise, tellAnswers } from '../../core/prove/effects/sayEffect'

/** Two versions to be compared, on a day. */
export interface EffectsQuestion {
  asked: number
  before: Form
  after: Form
  today: string
}
/** Something that is done otherwise, or of which that is not decided, with answers that show it. */
export interface EffectLine {
  sentence: string
  address: Address
  outcome: Effect['outcome']
  answers: { label: string; text: string }[]
}
/** What is otherwise, and how much is the same for everyone; or what went wrong. */
export type EffectsAnswer = { asked: number } & (
  | { lines: EffectLine[]; promises: PromiseLine[]; same: number; error?: undefined }
  | { lines?: undefined; error: string }
)
/** What becomes of a promise that the earlier one keeps. */
export interface PromiseLine extends Pick<EffectLine, 'sentence' | 'answers'> {
  outcome: PromiseOutcome['outcome']
}

addEventListener('message', ({ data }: MessageEvent<EffectsQuestion>) => postMessage(answer(data)))

function answer({ asked, before, after, today }: EffectsQuestion): EffectsAnswer {
  try {
    const effects = decideEffects(before, after, today)
    const versions = [planOf(after), planOf(before)]
    const others = effects.filter(e => e.outcome !== 'same')
    const lines = others.map((effect): EffectLine => {
      const { address, outcome } = effect
      return { sentence: sayEffect(effect), address, outcome, answers: tellAnswers(effect, versions) }
    })
    const promises = decidePromises(before, after, today).map((kept): PromiseLine => ({
      sentence: sayPromise(kept),
      outcome: kept.outcome,
      answers: tellAnswers(kept, versions),
    }))
    return { asked, lines, promises, same: effects.length - lines.length }
  } catch (error) {
    return { asked, error: error instanceof Error ? error.message : String(error) }
  }
}
