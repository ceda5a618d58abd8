import { describeResponse } from '../../fill/describeResponse'
import type { Plan } from '../../fill/planned'
import type { Effect } from './effects'
import type { PromiseOutcome } from './keptPromises'

/** What is otherwise, by what may be and by what it is now. */
const SENTENCES: Record<Effect['kind'], { now: (of: Effect) => string; noLonger: (of: Effect) => string }> = {
  asked: {
    now: e =>
      e.isQuestion ? 'is asked of some who were not asked' : 'is shown to some to whom it was not shown',
    noLonger: e =>
      e.isQuestion
        ? 'is no longer asked of some who were asked'
        : 'is no longer shown to some to whom it was shown',
  },
  required: {
    now: () => 'has to be answered by some who could leave it blank or were not asked',
    noLonger: () => 'no longer has to be answered by some',
  },
  offered: {
    now: e => `offers “${e.option ?? ''}” to some to whom it did not`,
    noLonger: e => `no longer offers “${e.option ?? ''}” to some`,
  },
}

/** What a version does otherwise, as a sentence; of what is not decided, what it is about. */
export function sayEffect(effect: Effect): string {
  const { kind, name, is, outcome } = effect
  const { now, noLonger } = SENTENCES[kind]
  if (outcome === 'undecided') return `Whether “${name}” ${ABOUT[kind](effect)} for anybody is not decided.`
  return `“${name}” ${is ? now(effect) : noLonger(effect)}.`
}
const ABOUT: Record<Effect['kind'], (of: Effect) => string> = {
  asked: e => (e.isQuestion ? 'is asked otherwise' : 'is shown otherwise'),
  required: () => 'is required otherwise',
  offered: e => (e.option === null ? 'offers other options' : `offers “${e.option}” otherwise`),
}

/** Answers that show an effect, as they read in the first of some versions that asks for them. */
export function tellAnswers(
  { witness, today }: Pick<Effect, 'witness' | 'today'>,
  versions: readonly Plan[],
): { label: string; text: string }[] {
  if (!witness) return []
  const lines = versions.flatMap(plan => describeResponse(plan, witness, today))
  const told = new Map<string, { label: string; text: string }>()
  for (const { state, type, path, label, text } of lines)
    if (state === 'answered' && type !== 'value' && !told.has(path)) told.set(path, { label, text })
  return [...told.values()]
}

const PROMISE_WORDS: Record<PromiseOutcome['outcome'], string> = {
  kept: 'is still kept',
  broken: 'held, and no longer does',
  untold: 'held; it speaks of what is there no longer',
  undecided: 'held; whether it still does is not decided',
}
/** What becomes of a promise, as a sentence. */
export const sayPromise = ({ text, outcome, isPromised }: PromiseOutcome): string =>
  `The promise “${text}” ${PROMISE_WORDS[outcome]}${outcome === 'kept' && !isPromised ? ', though it is promised no more' : ''}.`
