import { NEVER_IN_PLAY, isNeverInPlay, isFolded } from './neverInPlay'
import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import { framesOf } from '../../fill/draw'
import type { Filled } from '../../fill/fill'
import { isQuestion } from '../../fill/steps'
import type { PlannedRule, Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import type { Finding } from '../finding'
import type { StateSpace } from '../goals/stateSpace'
import type { Literal } from '../solver/literal'
import { namedRules } from './named'
import { example, hull, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const always = { code: 'always-shown', severity: 'risk' } as const
const once = { code: 'always-once-answered', severity: 'advice' } as const

export const alwaysShown: Check = {
  ...always,
  needs: NEVER_IN_PLAY,
  about: 'A shown-when rule is true for all answers, so it changes nothing.',
  raises: example(
    section('crew', [hull(), text('remarks', { shownWhen: 'hull in ["wood", "steel", "grp"]' })]),
  ),
  spares: example(section('crew', [hull(), text('remarks', { shownWhen: 'hull in ["wood", "steel"]' })])),
  run: inquiry => lookAtEach(ruledPlaces(inquiry), ruled => strong(inquiry, ruled)),
}

export const alwaysOnceAnswered: Check = {
  ...once,
  needs: [...NEVER_IN_PLAY, 'always-shown'],
  about:
    'A shown-when rule is true for every answer that can be given; only leaving the question blank makes a difference.',
  raises: example(
    section('crew', [
      whole('age', { required: undefined }),
      text('remarks', { shownWhen: 'age < 18 or age >= 18' }),
    ]),
  ),
  spares: example(
    section('crew', [
      whole('age', { required: undefined }),
      text('remarks', { shownWhen: 'age < 18 or age > 18' }),
    ]),
  ),
  run: inquiry =>
    lookAtEach(
      ruledPlaces(inquiry).filter(r => !inquiry.facts.has(['always-shown'], r.place.order)),
      ruled => weak(inquiry, ruled),
    ),
}

interface Ruled {
  place: Place
  shown: PlannedRule & { expr: Expr }
  step: Step | null
}

/** What has a usable shown-when and could be shown. */
function ruledPlaces(inquiry: Inquiry): Ruled[] {
  const { plan } = inquiry.model
  return plan.sections
    .flatMap(s => [
      { place: s.place, shown: s.shown, step: null },
      ...s.all.map(step => ({ place: step.place, shown: step.shown, step })),
    ])
    .flatMap(({ place, shown, step }): Ruled[] => {
      const folded =
        isNeverInPlay(inquiry, place.order) ||
        (step && isFolded(inquiry, step)) ||
        inquiry.model.circular.has(place.code)
      return shown?.expr && !folded ? [{ place, shown: { ...shown, expr: shown.expr }, step }] : []
    })
}

/** The states the rule is asked in: its section is the current one, and what is required there is answered. */
function asked(
  what: string,
  { place, step, shown }: Ruled,
  more: (space: StateSpace, rule: Literal) => Literal[],
  holds: Goal['holds'],
): Goal {
  return {
    key: `${what}:${place.address}`,
    at: place,
    section: place.section,
    reaching: step === null,
    // Who does not see it has a response in which it is left out, too.
    turn: 'any',
    names: namesIn(shown.expr),
    literals: space => [
      step ? space.sectionShown(place.section) : space.reached(place.section),
      ...more(space, space.rule(shown, place, 'shownWhen')),
    ],
    answered: true,
    isExact: true,
    holds,
  }
}

/** Whether the rule is not true in a state, with some questions answered; in a repeating group, in any of its entries. */
const isRefused = ({ step, shown }: Ruled, state: Filled, answered: readonly string[] = []) =>
  (step ? framesOf(state, step) : [state]).some(
    frame =>
      shown.run(frame.values) !== true &&
      answered.every(name => {
        const slot = state.plan.byCode.get(name)?.slot
        return slot === undefined || (frame.values[slot] ?? null) !== null
      }),
  )

function strong(inquiry: Inquiry, ruled: Ruled): Finding[] {
  const { place } = ruled
  const decision = inquiry.decide(
    asked(
      'always',
      ruled,
      (_, rule) => [-rule],
      state => isRefused(ruled, state),
    ),
    { seen: e => e.notShown.has(place.order) },
  )
  if (decision.is === 'undecided')
    return [undecidedFinding(place, `whether ${quotedName(place)} is always shown`, decision.why)]
  if (decision.is !== 'impossible') return []
  inquiry.facts.establish(place.order)
  const others = decision.conflict.filter(p => p.address !== place.address || p.kind !== 'shownWhen')
  return [
    finding(
      always,
      place,
      sentenceOf(ruled, others.length > 0 ? `, because of ${namedRules(inquiry, others)}` : ''),
      {
        rule: `${place.address}:shownWhen`,
        conflict: [partAt(place, 'shownWhen'), ...others],
        witness: inquiry.wayTo(place.section),
        mend: {
          words: 'Take the rule away',
          edits: [{ do: 'change', what: place.address, set: { shownWhen: null } }],
        },
      },
    ),
  ]
}

/** A skip may pass over what its own rule always shows. */
function sentenceOf({ place, step }: Ruled, because: string): string {
  const name = quotedName(place)
  if (step && step.skips.length > 0)
    return `Only skips hide ${name}: its own rule is true whatever is answered${because}.`
  return `${name} is always shown: its rule is true whatever is answered${because}.`
}

function weak(inquiry: Inquiry, ruled: Ruled): Finding[] {
  const { place, shown } = ruled
  const names = namesIn(shown.expr)
  if (names.length === 0 || nodesOf(shown.expr).some(n => n.kind === 'null')) return []
  const answered = (space: StateSpace) => names.map(name => -space.encoding.variable(name).blank)
  const broken = inquiry.decide(
    asked(
      'once',
      ruled,
      (space, rule) => [-rule, ...answered(space)],
      state => isRefused(ruled, state, names),
    ),
    { aside: true, seen: e => e.refused.has(place.order) },
  )
  if (broken.is !== 'impossible') return []
  // When a question it names may not be asked at all, the rule does tell something: whether it was.
  const hidden = inquiry.decide(
    asked(
      'once-hidden',
      ruled,
      space => {
        const steps = names.flatMap(name => inquiry.model.stepOf(name) ?? []).filter(isQuestion)
        return [space.encoding.or(steps.map(s => -space.inPlay(s)))]
      },
      () => true,
    ),
    { aside: true, onlyProof: true },
  )
  if (hidden.is !== 'impossible') return []
  return [
    finding(
      once,
      place,
      `${quotedName(place)} is shown for every answer that can be given; only a blank hides it. If that is meant, say “is answered”.`,
      {
        rule: `${place.address}:shownWhen`,
        conflict: [partAt(place, 'shownWhen')],
        witness: inquiry.wayTo(place.section),
      },
    ),
  ]
}
