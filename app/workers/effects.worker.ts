import { planOf } from '../../core/fill/plan'
import type { Form } from '../../core/form/definition'
import type { Address } from '../../core/form/walk'
import { decideEffects, type Effect } from '../../core/prove/effects/effects'
import { sayEffect, tellAnswers } from '../../core/prove/effects/sayEffect'

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
  { lines: EffectLine[]; same: number; error?: undefined } | { lines?: undefined; error: string }
)

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
    return { asked, lines, same: effects.length - lines.length }
  } catch (error) {
    return { asked, error: error instanceof Error ? error.message : String(error) }
  }
}
