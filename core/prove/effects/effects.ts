import { bringPatternEngine } from '../../expressions/patternEngine'
import { seededRandom } from '../../fill/draw'
import { fill, type Filled } from '../../fill/fill'
import { planOf } from '../../fill/plan'
import type { Plan } from '../../fill/planned'
import { drawPlausibleAnswers } from '../../fill/plausible'
import type { Answer, Answers } from '../../form/answers'
import type { Form } from '../../form/definition'
import type { Address } from '../../form/walk'
import { promiseGoal } from '../checks/promiseBroken'
import { Inquiry } from '../goals/inquiry'
import { dayOf } from '../goals/witness'
import { listAspects, tellAspect, type Aspect, type EffectKind } from './aspects'
import { BothVersions } from './bothVersions'
import { printCondition } from './conditions'
import { hasSameCone } from './sameCone'
import { VersionRules } from './versionRules'

// Versions are compared by their patterns, too.
bringPatternEngine()

/**
 * What a version does otherwise than another one with something: ask or show it, require it, offer an option. `same`: for everyone, whatever is
 * answered; `differs`: with the answers of `witness`, on the day `today` (ISO date); else `undecided`. `was` and `is`: what each version does
 * with those answers. `option`: the one that it is about, null where it is about all of a question, or none.
 */
export interface Effect {
  kind: EffectKind
  code: string
  address: Address
  name: string
  isQuestion: boolean
  option: string | null
  outcome: 'same' | 'differs' | 'undecided'
  witness: Answers | null
  today: string
  was: boolean
  is: boolean
}

/** What one comparison is worth: so many are made that a hard one is left undecided sooner than in a proof. */
const EFFORT = 0.03
/** How many likely responses are tried where conditions don’t decide. */
const TRIALS = 60
const WORDS = () => undefined

/**
 * Decides for every question, group and section of two versions whether somebody is asked, has to answer or is offered something otherwise than
 * before: by identity of all that decides it, by proof over all answers, or by an example, which both versions are filled with.
 * @param today ISO date on which the responses are begun
 */
export function decideEffects(before: Form, after: Form, today: string): Effect[] {
  return new Comparison(planOf(before), planOf(after), today).effects()
}

class Comparison {
  private readonly both: BothVersions

  constructor(
    private readonly before: Plan,
    private readonly after: Plan,
    private readonly today: string,
  ) {
    this.both = new BothVersions(before, after)
  }

  effects(): Effect[] {
    const aspects = listAspects(this.before, this.after)
    const found = new Map<Aspect, Effect>()
    for (const aspect of aspects)
      if (hasSameCone(aspect, this.before, this.after)) found.set(aspect, this.effect(aspect, 'same'))
    const open = aspects.filter(a => !found.has(a))
    for (const [aspect, effect] of this.decideTold(open)) found.set(aspect, effect)
    for (const [aspect, effect] of this.tryOut(open.filter(a => !found.has(a)))) found.set(aspect, effect)
    return foldOptions(aspects.map(a => found.get(a) ?? this.effect(a, 'undecided')))
  }

  private effect(aspect: Aspect, outcome: Effect['outcome']): Effect {
    const { kind, code, address, name, isQuestion, option } = aspect
    const { today } = this
    const about = { kind, code, address, name, isQuestion, option: option?.label ?? null }
    return { ...about, outcome, witness: null, today, was: false, is: false }
  }

  /** Decides what both versions tell by conditions, over all answers. */
  private *decideTold(aspects: readonly Aspect[]): Generator<[Aspect, Effect]> {
    const [was, is] = [new VersionRules(this.before, this.both), new VersionRules(this.after, this.both)]
    const told = aspects.flatMap(aspect => {
      const [one, other] = [tellAspect(aspect, this.before, was), tellAspect(aspect, this.after, is)]
      return one && other ? [{ aspect, one: printCondition(one), other: printCondition(other) }] : []
    })
    const compared = told.filter(t => t.one !== t.other)
    for (const { aspect, one, other } of told) if (one === other) yield [aspect, this.effect(aspect, 'same')]
    const promises = compared.map(({ one, other }, i) => ({
      code: `p${i}`,
      text: `p${i}`,
      holds: sameText(one, other),
    }))
    const inquiry = new Inquiry(this.both.form(promises), this.today)
    for (const [i, { aspect }] of compared.entries()) {
      const goal = promiseGoal(inquiry, i)
      const decision = goal && inquiry.decide(goal, { withoutConflict: true, effort: EFFORT })
      if (decision?.is === 'impossible') yield [aspect, this.effect(aspect, 'same')]
      const witness = goal && decision?.is === 'possible' ? inquiry.witness(goal) : null
      const shown = witness && this.shown(aspect, this.answersOf(witness), dayOf(witness) ?? this.today)
      if (shown) yield [aspect, shown]
    }
  }

  /** An example of the form of both versions, as answers to them. */
  private answersOf(witness: Answers): Answers {
    const own = Object.entries(witness).filter(([code]) => this.both.isAsked(code))
    const blanked = this.both.blankedIn(witness).map((code): [string, Answer] => [code, null])
    return Object.fromEntries([...blanked, ...own])
  }

  /** The effect that some answers show, with as few of them as can be left out; null where they show none. */
  private shown(aspect: Aspect, answers: Answers, today: string): Effect | null {
    const seenWith = (given: Answers) => this.differs(aspect, this.filled(given, today))
    if (!seenWith(answers)) return null
    const witness = withoutNeedless(answers, given => seenWith(given) !== null)
    return { ...this.effect(aspect, 'differs'), ...seenWith(witness), witness, today }
  }

  /** Both versions filled with the same answers. */
  private filled = (given: Answers, today: string): [Filled, Filled] => [
    fill(this.before, given, today),
    fill(this.after, given, today),
  ]

  /** How the two differ in something; null where they don’t. */
  private differs(aspect: Aspect, [before, after]: [Filled, Filled]): { was: boolean; is: boolean } | null {
    const [was, is] = [aspect.seen(before), aspect.seen(after)]
    return was === is ? null : { was, is }
  }

  /** Fills both versions with likely answers to the one and the other. */
  private *tryOut(aspects: readonly Aspect[]): Generator<[Aspect, Effect]> {
    const open = new Set(aspects)
    const next = seededRandom(1)
    for (let i = 0; i < TRIALS && open.size > 0; i++) {
      const plan = i % 2 === 0 ? this.after : this.before
      const answers = drawPlausibleAnswers(plan, {}, this.today, next, WORDS)
      if (!answers) continue
      const filled = this.filled(answers, this.today)
      for (const aspect of open) {
        const shown = this.differs(aspect, filled) && this.shown(aspect, answers, this.today)
        if (!shown) continue
        open.delete(aspect)
        yield [aspect, shown]
      }
    }
  }
}

/** Answers without those that are not needed for something, left out in ever smaller parts, at last one by one. */
function withoutNeedless(answers: Answers, isShown: (given: Answers) => boolean): Answers {
  let kept = Object.entries(answers)
  for (let size = Math.ceil(kept.length / 2); size >= 1; size = size === 1 ? 0 : Math.ceil(size / 2))
    for (let from = kept.length - size; from > -size; from -= size) {
      const fewer = [...kept.slice(0, Math.max(0, from)), ...kept.slice(Math.max(0, from + size))]
      if (isShown(Object.fromEntries(fewer))) kept = fewer
    }
  return Object.fromEntries(kept)
}

/** Options of one question of which it is not decided whether they are offered otherwise are told as one. */
function foldOptions(effects: readonly Effect[]): Effect[] {
  const told = new Set<string>()
  return effects.flatMap((effect): Effect[] => {
    if (effect.kind !== 'offered' || effect.outcome !== 'undecided') return [effect]
    if (told.has(effect.address)) return []
    told.add(effect.address)
    return [{ ...effect, option: null }]
  })
}

/** The condition that two conditions are true together or false together. */
const sameText = (one: string, other: string): string => `if ${one} then ${other} else not(${other})`
