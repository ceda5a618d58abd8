import { saysNotApplicable } from '../../form/notApplicable'
import { NEVER_IN_PLAY, isOutOfPlay } from './neverInPlay'
import { namesIn, type Expr } from '../../expressions/tree'
import { framesOf } from '../../fill/draw'
import type { Filled, Frame } from '../../fill/frame'
import { isQuestion } from '../../fill/steps'
import { ruleId } from '../../form/rules'
import type { PlannedCheck, PlannedSection, Step } from '../../fill/planned'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { StateSpace } from '../goals/stateSpace'
import type { Inquiry } from '../goals/inquiry'
import { type Check, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import type { Literal } from '../solver/literal'
import { example, section, whole } from './exampleForms'
import { namedCheck } from './named'
import { undecidedFinding } from './undecided'

const unmeetable = { code: 'unmeetable-valid', severity: 'fault' } as const
const idle = { code: 'idle-valid', severity: 'risk' } as const
const lengthWith = (rule: string) =>
  example(
    section('boat', [
      whole('length', { min: 2, max: 40, validWhen: [{ rule, message: 'The hoist can’t lift that.' }] }),
    ]),
  )

export const unmeetableValid: Check = {
  ...unmeetable,
  needs: NEVER_IN_PLAY,
  about: 'No answer at all meets a valid-when rule: whoever gets there is always told off.',
  raises: lengthWith('length > 40'),
  spares: lengthWith('length > 12'),
  run: inquiry =>
    lookAtEach(ruledPlaces(inquiry), (ruled): Finding[] => {
      const { place, check } = ruled
      const met = (space: StateSpace) => [-space.encoding.truth(ruled.check.expr).f]
      const decision = inquiry.decide(
        answered('met', inquiry, ruled, met, frame => ruled.check.run(frame.values) !== false),
      )
      const about = { rule: ruleId(place, check.kind, check.index) }
      if (decision.is === 'undecided')
        return [
          {
            ...undecidedFinding(place, `whether any answer meets ${namedCheck(place, check)}`, decision.why),
            ...about,
          },
        ]
      // What can't be answered at all is no matter of its check.
      if (
        decision.is !== 'impossible' ||
        inquiry.decide(
          answered(
            'answered',
            inquiry,
            ruled,
            () => [],
            () => true,
          ),
          { aside: true },
        ).is !== 'possible'
      )
        return []
      inquiry.facts.establish(about.rule)
      return [
        finding(unmeetable, place, `No answer meets ${namedCheck(place, check)}: it always complains.`, {
          ...about,
          conflict: [
            partAt(place, check.kind, check.index),
            ...decision.conflict.filter(c => c.address !== place.address),
          ],
          witness: inquiry.wayTo(place.section),
        }),
      ]
    }),
}

export const idleValid: Check = {
  ...idle,
  needs: NEVER_IN_PLAY,
  about: 'A valid-when rule never complains: every answer that can be given meets it.',
  raises: lengthWith('length > 1'),
  spares: lengthWith('length > 12'),
  run: inquiry =>
    lookAtEach(ruledPlaces(inquiry), (ruled): Finding[] => {
      const { place, check } = ruled
      const decision = inquiry.decide(
        goalOf(
          'complains',
          inquiry,
          ruled,
          space => [space.encoding.truth(check.expr).f, -missing(space, ruled)],
          frame => check.run(frame.values) === false && !isMissing(frame, ruled),
        ),
      )
      const about = { rule: ruleId(place, check.kind, check.index) }
      if (decision.is === 'undecided')
        return [
          {
            ...undecidedFinding(place, `whether ${namedCheck(place, check)} ever complains`, decision.why),
            ...about,
          },
        ]
      if (decision.is !== 'impossible') return []
      return [
        finding(
          idle,
          place,
          `${namedCheck(place, check, true)} never complains: every answer that can be given meets it.`,
          {
            ...about,
            conflict: [
              partAt(place, check.kind, check.index),
              ...decision.conflict.filter(c => c.address !== place.address),
            ],
            witness: inquiry.wayTo(place.section),
          },
        ),
      ]
    }),
}

interface Ruled {
  place: Step['place']
  step: Step | PlannedSection
  check: PlannedCheck & { expr: Expr }
}

function ruledPlaces(inquiry: Inquiry): Ruled[] {
  return inquiry.model.plan.sections
    .flatMap((s): (PlannedSection | Step)[] => [s, ...s.all])
    .filter(step => !isOutOfPlay(inquiry, step))
    .flatMap(step =>
      step.checks.flatMap(check =>
        check.expr ? [{ place: step.place, step, check: { ...check, expr: check.expr } }] : [],
      ),
    )
}

const framesAt = (state: Filled, step: Step | PlannedSection): readonly Frame[] =>
  'routes' in step ? [state] : framesOf(state, step)

/** The literal “the question that a check stands at is missing”: that is told before any check. */
function missing(space: StateSpace, { step, place }: Ruled): Literal {
  const { encoding } = space
  if (!('is' in step) || !isQuestion(step) || step.required === null) return -encoding.yes
  const required = step.required === true ? encoding.yes : space.rule(step.required, place, 'required')
  return encoding.and([required, encoding.variable(place.code).blank])
}

const requiredNames = (step: Step | PlannedSection): readonly string[] => {
  const required = 'is' in step && isQuestion(step) ? step.required : null
  return required !== null && required !== true && required.expr ? namesIn(required.expr) : []
}

const isMissing = (frame: Frame, { step }: Ruled): boolean =>
  'is' in step &&
  isQuestion(step) &&
  frame.required[step.slot] === true &&
  (frame.values[step.slot] ?? null) === null &&
  !saysNotApplicable(frame.given.get(step.slot))

/** The goal that a check turns out some way where it stands in play. */
function goalOf(
  what: string,
  { model }: Inquiry,
  { step, place, check }: Ruled,
  more: (space: StateSpace) => Literal[],
  holds: (frame: Frame) => boolean,
): Goal {
  const inPlay = (space: StateSpace): Literal =>
    'is' in step ? space.inPlay(step) : space.sectionShown(place.section)
  return {
    key: `${what}:${place.address}:${check.kind}:${check.index}`,
    at: place,
    section: place.section,
    names: [
      ...('is' in step ? namesAround(model, step) : []),
      ...('is' in step && isQuestion(step) ? [place.code] : []),
      ...namesIn(check.expr),
      ...requiredNames(step),
    ],
    literals: space => [inPlay(space), ...more(space)],
    isExact: true,
    holds: state => framesAt(state, step).some(frame => frame.inPlay[place.order] === true && holds(frame)),
  }
}

/** The same once everything that the check names and that is asked has an answer, the question that it stands at too. */
function answered(
  what: string,
  inquiry: Inquiry,
  ruled: Ruled,
  more: (space: StateSpace) => Literal[],
  holds: (frame: Frame) => boolean,
): Goal {
  const { place, step, check } = ruled
  const own = 'is' in step && isQuestion(step) && step.value === null ? [place.code] : []
  const names = namesIn(check.expr)
  // What is asked in entries that the check looks into has no answer of its own where the check stands.
  const steps = names
    .flatMap(name => inquiry.model.plan.byCode.get(name) ?? [])
    .filter(s => s.place.entryOf === null || s.place.entryOf === place.entryOf)
  const isAnswered = (frame: Frame) =>
    steps.every(s => frame.inPlay[s.place.order] !== true || (frame.values[s.slot] ?? null) !== null)
  const isOwnAnswered = (frame: Frame) =>
    own.length === 0 || ('slot' in step && frame.values[step.slot] !== null)
  return goalOf(
    what,
    inquiry,
    ruled,
    space => [
      ...own.map(code => -space.encoding.variable(code).blank),
      ...names.flatMap(name => {
        const named = inquiry.model.stepOf(name)
        return named ? [space.encoding.or([-space.encoding.variable(name).blank, -space.inPlay(named)])] : []
      }),
      ...more(space),
    ],
    frame => isOwnAnswered(frame) && isAnswered(frame) && holds(frame),
  )
}
