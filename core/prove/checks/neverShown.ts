import type { ConflictPart, Finding } from '../finding'
import type { Place } from '../../form/walk'
import { isNeverInPlay, isFolded, isRepeated, NEVER_IN_PLAY } from './neverInPlay'
import type { PlannedPlace, PlannedSection, Step } from '../../fill/planned'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, partAt, lookAtEach } from './check'
import { sectionGoal, shownGoal, type Goal } from '../goals/goal'
import { findNearestMiss, type Miss } from './nearestMiss'
import { limitsBehind } from './limits'
import { namedRules } from './named'
import { example, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'never-shown', severity: 'fault' } as const
const outer = { code: 'contradicts-outer', severity: 'fault' } as const

export const neverShown: Check = {
  ...kind,
  needs: ['unreachable-section'],
  about: 'No answers at all bring this section, group, question or note into play.',
  raises: example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18 and age > 65' })])),
  spares: example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18 or age > 65' })])),
  run: inquiry =>
    lookAtEach(
      inquiry.model.plan.sections.flatMap((s): (PlannedSection | Step)[] => [s, ...s.all]),
      thing => ownFindings(inquiry, thing),
    ),
}

const within = (rule: string) =>
  example(
    section('crew', [
      whole('age'),
      {
        kind: 'group',
        code: 'young',
        title: 'For the young',
        shownWhen: 'age < 18',
        items: [text('school'), text('licence', { shownWhen: rule })],
      },
    ]),
  )

export const contradictsOuter: Check = {
  ...outer,
  needs: ['never-shown'],
  about: 'A rule can’t be true where the rules of what stands around it are: the thing can never show there.',
  raises: within('age >= 21'),
  spares: within('age >= 16'),
  run: inquiry => inquiry.facts.leftBy('never-shown'),
}

/** What can't be shown; where a rule around it is the reason, it is left to the other check. */
function ownFindings(inquiry: Inquiry, thing: PlannedSection | Step): Finding[] {
  const found = 'routes' in thing ? sectionFindings(inquiry, thing) : stepFindings(inquiry, thing)
  for (const f of found) if (f.code === outer.code) inquiry.facts.leave(f)
  return found.filter(f => f.code !== outer.code)
}

function sectionFindings(inquiry: Inquiry, { place, shown }: PlannedSection): Finding[] {
  if (!shown?.expr || isNeverInPlay(inquiry, place.order) || isCircular(inquiry, place.code)) return []
  const goal = sectionGoal(inquiry.model, place.section)
  return decided(inquiry, goal, { place }, place.section - 1)
}

function stepFindings(inquiry: Inquiry, step: Step): Finding[] {
  const { place, shown, skips } = step
  if ((!shown?.expr && skips.length === 0) || isFolded(inquiry, step) || isCircular(inquiry, place.code))
    return []
  const goal = shownGoal(inquiry.model, step)
  return decided(inquiry, goal, step, place.section)
}

/** Decides whether something can show; the nearest miss leads to the section `near`. */
function decided(
  inquiry: Inquiry,
  goal: Goal,
  thing: Pick<PlannedPlace, 'place'> | Step,
  near: number,
): Finding[] {
  const { place } = thing
  const decision = inquiry.decide(goal, { seen: e => e.shown.has(place.order) })
  if (decision.is === 'undecided')
    return [undecidedFinding(place, `whether ${quotedName(place)} can ever be shown`, decision.why)]
  if (decision.is !== 'impossible') return []
  const repeated = isRepeated(inquiry, NEVER_IN_PLAY, decision.conflict)
  inquiry.facts.establish(place.order, decision.conflict)
  if (repeated) return []
  const conflict = [...decision.conflict, ...limitsBehind(inquiry, decision.conflict)]
  return [findingOf(inquiry, place, conflict, findNearestMiss(inquiry, thing, near))]
}

/** The finding that something can never be shown, for the rules that make it so. */
function findingOf(inquiry: Inquiry, place: Place, conflict: ConflictPart[], miss: Miss): Finding {
  const rule = place.node.shownWhen === undefined ? null : `${place.address}:shownWhen`
  const others = conflict.filter(p => !(p.address === place.address && p.kind === 'shownWhen'))
  const [first] = others
  if (first && isAround(inquiry, place, others)) {
    const outside = inquiry.model.plan.places.find(p => p.address === first.address)
    const whose = outside ? `, of ${quotedName(outside)}` : ''
    const sentence = `${quotedName(place)} can never be shown: its rule contradicts the one around it${whose}.`
    return finding(outer, place, sentence, { rule, conflict, ...miss })
  }
  const reason = rule === null ? skippedBy(inquiry, others) : reasonIn(inquiry, others)
  return finding(kind, place, `${quotedName(place)} can never be shown: ${reason}.`, {
    rule,
    conflict: conflict.length > 0 ? conflict : [partAt(place, rule === null ? 'place' : 'shownWhen')],
    ...miss,
  })
}

/** Whether rules are all about what stands around a place. */
function isAround({ model }: Inquiry, place: Place, parts: readonly ConflictPart[]): boolean {
  const around = new Set([
    model.plan.sections[place.section]?.place.address,
    ...place.groups.map(group => group.address),
  ])
  return parts.every(p => p.kind === 'shownWhen' && around.has(p.address))
}

function reasonIn(inquiry: Inquiry, others: readonly ConflictPart[]): string {
  if (others.length === 0) return 'no answers make its rule true'
  return `its rule can’t be true together with ${namedRules(inquiry, others)}`
}

/** What passes over something that has no rule of its own. */
function skippedBy(inquiry: Inquiry, parts: readonly ConflictPart[]): string {
  const skips = parts.filter(p => p.kind === 'skip')
  return skips.length > 0
    ? `${namedRules(inquiry, skips)} always passes over it`
    : `it is not asked together with ${namedRules(inquiry, parts)}`
}

const isCircular = (inquiry: Inquiry, code: string) => inquiry.model.circular.has(code)
