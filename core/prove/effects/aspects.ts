import type { Filled } from '../../fill/frame'
import type { Plan, PlannedQuestion } from '../../fill/planned'
import { offeredNow } from '../../fill/fill'
import { isQuestion } from '../../fill/steps'
import type { Expr } from '../../expressions/tree'
import { placeName, type Address, type Place } from '../../form/walk'
import { NotTold, type VersionRules } from './versionRules'

/** What may be otherwise in a version: whether something is asked (or a section shown), required, or an option of it offered. */
export type EffectKind = 'asked' | 'required' | 'offered'

/** One thing that may be otherwise, and how each version tells and shows it. */
export interface Aspect {
  kind: EffectKind
  code: string
  address: Address
  name: string
  isQuestion: boolean
  /** The option that it is about, by its code and label. */
  option: { code: string; label: string } | null
  /** The condition under which a version does it. @throws NotTold where it is none over the answers alone */
  told: (plan: Plan, rules: VersionRules) => Expr
  /** Whether it was so in a response. */
  seen: (filled: Filled) => boolean
}

/** Everything that two versions may do otherwise, in the order of the new one; what is gone comes last. */
export function listAspects(before: Plan, after: Plan): Aspect[] {
  const found = new Map<string, Aspect>()
  for (const plan of [after, before])
    for (const place of plan.places)
      for (const aspect of aspectsOf(plan, place, plan === after ? before : after)) {
        const key = `${aspect.kind} ${place.kind === 'section'} ${aspect.code} ${aspect.option?.code ?? ''}`
        if (!found.has(key)) found.set(key, aspect)
      }
  return [...found.values()]
}

function aspectsOf(plan: Plan, place: Place, other: Plan): Aspect[] {
  const isQuestion = place.kind === 'question'
  const about = { code: place.code, address: place.address, name: placeName(place), isQuestion, option: null }
  if (place.kind === 'section') return [sectionAspect(about)]
  const question = plan.byCode.get(place.code)
  if (place.kind === 'note' || place.kind === 'group')
    return place.kind === 'group' ? [askedAspect(about)] : []
  if (!question || question.value || place.node.type === 'hidden') return []
  return [askedAspect(about), requiredAspect(about), ...optionAspects(about, question, other)]
}

type About = Pick<Aspect, 'code' | 'address' | 'name' | 'isQuestion' | 'option'>
const NEVER: Expr = { kind: 'boolean', value: false, from: 0, to: 0 }

function sectionAspect(about: About): Aspect {
  const indexIn = (plan: Plan) => plan.sections.findIndex(s => s.place.code === about.code)
  return {
    ...about,
    kind: 'asked',
    told: (plan, rules) => (indexIn(plan) < 0 ? NEVER : rules.section(indexIn(plan))),
    seen: ({ plan, path }) => path.includes(indexIn(plan)),
  }
}

/** The question or group with a code as a step. */
const stepIn = (plan: Plan, code: string) =>
  plan.byCode.get(code) ?? plan.groups.get(code) ?? plainGroup(plan, code)
const plainGroup = (plan: Plan, code: string) =>
  plan.sections.flatMap(s => s.all).find(s => s.place.code === code && s.place.kind === 'group')

const isInPlay = (filled: Filled, code: string): boolean => {
  const step = stepIn(filled.plan, code)
  return step !== undefined && filled.inPlay[step.place.order] === true
}

const askedAspect = (about: About): Aspect => ({
  ...about,
  kind: 'asked',
  told: (plan, rules) => {
    const step = stepIn(plan, about.code)
    return step ? rules.step(step) : NEVER
  },
  seen: filled => isInPlay(filled, about.code),
})

const requiredAspect = (about: About): Aspect => ({
  ...about,
  kind: 'required',
  told: (plan, rules) => {
    const step = plan.byCode.get(about.code)
    return step ? rules.required(step) : NEVER
  },
  seen: filled => {
    const step = filled.plan.byCode.get(about.code)
    return step !== undefined && isInPlay(filled, about.code) && filled.required[step.slot] === true
  },
})

/** Its options, where some are offered by rules or stand in one version only. */
function optionAspects(about: About, question: PlannedQuestion, other: Plan): Aspect[] {
  const there = other.byCode.get(about.code)
  const [rows, others] = [question.offer?.rows, there?.offer?.rows]
  if (!rows) return []
  const isDecidedByRules = [question, there].some(q => q?.offer?.rules || q?.offer?.narrow)
  const isSame = others?.size === rows.size && [...rows.keys()].every(code => others.has(code))
  if (!there || (isSame && !isDecidedByRules)) return []
  if (rows.size > MOST_OPTIONS) return [wholeOffer(about)]
  return [...rows].map(([code, row]) => optionAspect({ ...about, option: { code, label: row.label } }, code))
}
/** Of longer lists single options are not told. */
const MOST_OPTIONS = 60

/** All that a long list offers: it is the same where all that decides it is, else that is not decided. */
const wholeOffer = (about: About): Aspect => ({
  ...about,
  kind: 'offered',
  told: () => {
    throw new NotTold()
  },
  seen: () => false,
})

const optionAspect = (about: About, code: string): Aspect => ({
  ...about,
  kind: 'offered',
  told: (plan, rules) => {
    const step = plan.byCode.get(about.code)
    return step ? rules.offers(step, code) : NEVER
  },
  seen: filled => {
    const step = filled.plan.byCode.get(about.code)
    if (!step || !isQuestion(step) || !isInPlay(filled, about.code)) return false
    const offered = offeredNow(filled, step)
    return offered ? offered.has(code) : step.offer?.rows.has(code) === true
  },
})

/** What a version says of an aspect; null where that is no condition over the answers alone. */
export function tellAspect(aspect: Aspect, plan: Plan, rules: VersionRules): Expr | null {
  try {
    return aspect.told(plan, rules)
  } catch (error) {
    if (error instanceof NotTold) return null
    throw error
  }
}
