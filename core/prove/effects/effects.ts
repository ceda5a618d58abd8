import { bringPatternEngine } from '../../expressions/patternEngine'
import { seededRandom } from '../../fill/draw'
import { fill, type Filled } from '../../fill/fill'
import { planOf } from '../../fill/plan'
import type { Plan } from '../../fill/planned'
import { drawPlausibleAnswers } from '../../fill/plausible'
import type { Answer, Answers } from '../../form/answers'
import type { Form } from '../../form/definition'
import type { Address } from '../../form/walk'
import { namesBehind } from '../../parties/handOffNames'
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
 * with those answers; something may be done of some only now and of others no longer, which are two effects. `option`: the one that it is about, null where it is about all of a question, or none.
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
    const found = new Map<Aspect, Effect[]>()
    for (const aspect of aspects)
      if (hasSameCone(aspect, this.before, this.after)) found.set(aspect, [this.effect(aspect, 'same')])
    const open = aspects.filter(a => !found.has(a))
    for (const [aspect, effects] of this.decideTold(open)) found.set(aspect, effects)
    for (const [aspect, effects] of this.tryOut(open.filter(a => !found.has(a)))) found.set(aspect, effects)
    return foldOptions(aspects.flatMap(a => found.get(a) ?? []))
  }

  private effect(aspect: Aspect, outcome: Effect['outcome']): Effect {
    const { kind, code, address, name, isQuestion, option } = aspect
    const { today } = this
    const about = { kind, code, address, name, isQuestion, option: option?.label ?? null }
    return { ...about, outcome, witness: null, today, was: false, is: false }
  }

  /** Decides what both versions tell by conditions, over all answers: whether the new one does something that the old one did not, and the other way round. */
  private *decideTold(aspects: readonly Aspect[]): Generator<[Aspect, Effect[]]> {
    const [was, is] = [new VersionRules(this.before, this.both), new VersionRules(this.after, this.both)]
    const told = aspects.flatMap(aspect => {
      const [one, other] = [tellAspect(aspect, this.before, was), tellAspect(aspect, this.after, is)]
      return one && other ? [{ aspect, one: printCondition(one), other: printCondition(other) }] : []
    })
    const compared = told.filter(t => t.one !== t.other)
    for (const { aspect, one, other } of told)
      if (one === other) yield [aspect, [this.effect(aspect, 'same')]]
    const holds = compared.flatMap(({ one, other }) => [onlyWith(other, one), onlyWith(one, other)])
    const promises = holds.map((text, i) => ({ code: `p${i}`, text: `p${i}`, holds: text }))
    const inquiry = new Inquiry(this.both.form(promises), this.today)
    for (const [i, { aspect }] of compared.entries()) {
      const ways = [true, false].map((gains, k) => this.decideWay(inquiry, 2 * i + k, aspect, gains))
      const otherwise = ways.filter(way => way !== 'never' && way !== 'undecided')
      const isOpen = ways.includes('undecided')
      // What was not decided by conditions is tried out as well.
      if (isOpen && otherwise.length === 0) continue
      const rest = isOpen ? [this.effect(aspect, 'undecided')] : []
      yield [aspect, otherwise.length > 0 ? [...otherwise, ...rest] : [this.effect(aspect, 'same')]]
    }
  }

  /** Whether a promise of the form of both versions is broken, and so a difference of one kind shown. */
  private decideWay(
    inquiry: Inquiry,
    index: number,
    aspect: Aspect,
    gains: boolean,
  ): Effect | 'never' | 'undecided' {
    const goal = promiseGoal(inquiry, index)
    if (!goal || !isReadable(inquiry.model.plan, index)) return 'undecided'
    const decision = inquiry.decide(goal, { withoutConflict: true, effort: EFFORT })
    if (decision.is === 'impossible') return 'never'
    const witness = decision.is === 'possible' ? inquiry.witness(goal) : null
    if (!witness) return 'undecided'
    return this.shown(aspect, this.answersOf(witness), dayOf(witness) ?? this.today, gains) ?? 'undecided'
  }

  /** An example of the form of both versions, as answers to them. */
  private answersOf(witness: Answers): Answers {
    const own = Object.entries(witness).filter(([code]) => this.both.isAsked(code))
    const blanked = this.both.blankedIn(witness).map((code): [string, Answer] => [code, null])
    return Object.fromEntries([...blanked, ...own])
  }

  /** The effect that some answers show, with as few of them as can be left out; null where they don’t. `gains`: that the new version does it. */
  private shown(aspect: Aspect, answers: Answers, today: string, gains: boolean): Effect | null {
    const isShown = (given: Answers) => this.differs(aspect, this.filled(given, today)) === gains
    if (!isShown(answers)) return null
    const witness = withoutNeedless(answers, isShown)
    return { ...this.effect(aspect, 'differs'), was: !gains, is: gains, witness, today }
  }

  /** Both versions filled with the same answers. */
  private filled = (given: Answers, today: string): [Filled, Filled] => [
    fill(this.before, given, today),
    fill(this.after, given, today),
  ]

  /** Whether the new version does something that the old one does not, or (false) the other way round; null where they don’t differ. */
  private differs(aspect: Aspect, [before, after]: [Filled, Filled]): boolean | null {
    const [was, is] = [aspect.seen(before), aspect.seen(after)]
    return was === is ? null : is
  }

  /** Fills both versions with likely answers to the one and the other; what they don't show is not decided. */
  private tryOut(aspects: readonly Aspect[]): Map<Aspect, Effect[]> {
    const found = new Map<Aspect, Effect[]>(aspects.map(aspect => [aspect, []]))
    const next = seededRandom(1)
    for (let i = 0; i < TRIALS; i++) {
      const open = aspects.filter(a => (found.get(a)?.length ?? 0) < 2)
      const plan = i % 2 === 0 ? this.after : this.before
      const answers = open.length === 0 ? null : drawPlausibleAnswers(plan, {}, this.today, next, WORDS)
      if (!answers) continue
      const filled = this.filled(answers, this.today)
      for (const aspect of open) {
        const gains = this.differs(aspect, filled)
        const known = found.get(aspect) ?? []
        if (gains === null || known.some(effect => effect.is === gains)) continue
        const shown = this.shown(aspect, answers, this.today, gains)
        if (shown) found.set(aspect, [...known, shown])
      }
    }
    for (const [aspect, effects] of found)
      if (effects.length < 2) found.set(aspect, [...effects, this.effect(aspect, 'undecided')])
    return found
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

/** Whether all that a promise rests on can be read: a test with a blank in it may be one that the rule language has not. */
function isReadable(plan: Plan, index: number): boolean {
  const expr = plan.promises[index]?.expr
  if (!expr) return false
  return namesBehind(plan, expr).every(code => {
    const question = plan.byCode.get(code)
    return question?.place.node.type !== 'value' || Boolean(question.value?.expr)
  })
}

/** The condition that one is true only where another one is. */
const onlyWith = (one: string, other: string): string => `if ${one} then ${other} else true`
