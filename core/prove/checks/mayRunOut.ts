import type { Answers } from '../../form/answers'
import type { PlannedQuestion } from '../../fill/planned'
import { limitedIn, mapOptions, withoutOffer } from '../../form/places'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { findStuck } from './deadEnd'
import { example, hull, section } from './exampleForms'
import { isFolded, isNeverInPlay, NEVER_IN_PLAY } from './neverInPlay'
import { undecidedFinding } from './undecided'

const kind = { code: 'may-run-out', severity: 'risk' } as const
const withUnlimited = (more: object) =>
  example(
    section('boat', [
      hull({
        options: [
          { code: 'wood', label: 'Wood', places: 2 },
          { code: 'steel', label: 'Steel', ...more },
        ],
      }),
    ]),
  )

export const mayRunOut: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'A required choice has options with a number of places, and all that is left may have run out: whoever comes then can’t go on.',
  raises: withUnlimited({ places: 4 }),
  spares: withUnlimited({}),
  run: inquiry => lookAtEach(inquiry.model.plan.questions, question => runsOut(inquiry, question)),
}

function runsOut(inquiry: Inquiry, question: PlannedQuestion): Finding[] {
  const { place } = question
  if (limitedIn(place.node).length === 0 || question.required === null) return []
  if (isFolded(inquiry, question) || isNeverInPlay(inquiry, place.order)) return []
  const found = findRunOut(inquiry, question)
  if (found === null) return []
  if (typeof found === 'string')
    return [undecidedFinding(place, `whether ${quotedName(place)} has something left to choose`, found)]
  const sentence = `${quotedName(place)} has to be answered, but all that can be chosen may have run out.`
  const limited = limitedIn(place.node).map(o => o.code)
  const conflict = [...(question.offer?.rows.keys() ?? [])].flatMap((code, index) =>
    limited.includes(code) ? [partAt(place, 'option', index)] : [],
  )
  return [
    finding(kind, place, sentence, { conflict: [...conflict, partAt(place, 'required')], witness: found }),
  ]
}

/** Answers by which a question has to be answered and what can’t run out is not enough; null where there are none, or why it is not decided. */
function findRunOut(inquiry: Inquiry, question: PlannedQuestion): Answers | null | string {
  const { node } = question.place
  const least = node.type === 'choices' ? (node.least ?? 1) : 1
  const lasting = (question.offer?.rows.size ?? 0) - limitedIn(node).length
  const writesIn = 'writeIn' in node && node.writeIn !== undefined
  if (lasting < least && !writesIn) return findAsked(inquiry, question)
  return question.place.entryOf === null ? findLeft(inquiry, question) : null
}

/** Answers by which a question has to be answered. */
function findAsked(inquiry: Inquiry, question: PlannedQuestion): Answers | null | string {
  const { code, order, section: at, address } = question.place
  const goal: Goal = {
    key: `may-run-out:${address}`,
    at: question.place,
    section: at,
    names: [code],
    literals: space => [
      space.inPlay(question),
      question.required === true
        ? space.encoding.yes
        : space.rule(question.required, question.place, 'required'),
    ],
    holds: state => state.inPlay[order] === true && state.required[question.slot] === true,
  }
  const decision = inquiry.decide(goal)
  if (decision.is === 'undecided') return decision.why
  return decision.is === 'possible' ? inquiry.witness(goal) : null
}

/** The same where what can’t run out is offered by rules: a dead end of the form without the options that can. */
function findLeft({ form, today }: Inquiry, { place }: PlannedQuestion): Answers | null | string {
  const without = mapOptions(form, (code, option) =>
    code === place.code && option.places !== undefined ? withoutOffer(option) : option,
  )
  const other = new Inquiry(without, today)
  const step = other.model.stepOf(place.code)
  if (!step) return null
  let found = findStuck(other, step)
  // What the evaluator does not agree with is undecided the second time.
  while (!other.confirm()) found = findStuck(other, step)
  return found
}
