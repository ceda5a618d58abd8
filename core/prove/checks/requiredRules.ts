import { NEVER_IN_PLAY, isNeverInPlay, isFolded } from './neverInPlay'
import { namesIn, type Expr } from '../../expressions/tree'
import { framesOf } from '../../fill/draw'
import type { Filled } from '../../fill/fill'
import type { PlannedQuestion, PlannedRule } from '../../fill/planned'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, section, text, whole, yesNo } from './exampleForms'
import { undecidedFinding } from './undecided'

const never = { code: 'never-required', severity: 'risk' } as const
const always = { code: 'always-required', severity: 'advice' } as const

export const neverRequired: Check = {
  ...never,
  needs: NEVER_IN_PLAY,
  about: 'A required-when rule is never true while its question is in play.',
  raises: example(
    section('cover', [
      yesNo('insured'),
      text('insurer', { shownWhen: 'insured = true', required: 'insured = false' }),
    ]),
  ),
  spares: example(
    section('cover', [
      yesNo('insured'),
      whole('length'),
      text('insurer', { shownWhen: 'insured = true', required: 'length > 12' }),
    ]),
  ),
  run: inquiry =>
    lookAtEach(ruled(inquiry), ({ question, required }): Finding[] => {
      const { place } = question
      const goal = asked(inquiry, question, required, true)
      const decision = inquiry.decide(goal)
      const about = { rule: `${place.address}:required` }
      if (decision.is === 'undecided')
        return [
          {
            ...undecidedFinding(place, `whether ${quotedName(place)} is ever required`, decision.why),
            ...about,
          },
        ]
      if (decision.is !== 'impossible') return []
      return [
        finding(
          never,
          place,
          `${quotedName(place)} is never required: its rule is not true in any case in which it is shown.`,
          {
            ...about,
            conflict: decision.conflict.length > 0 ? decision.conflict : [partAt(place, 'required')],
            witness: inquiry.wayTo(place.section),
          },
        ),
      ]
    }),
}

export const alwaysRequired: Check = {
  ...always,
  needs: NEVER_IN_PLAY,
  about: 'A required-when rule is true whenever its question is in play: the question is simply required.',
  raises: example(
    section('cover', [
      yesNo('insured'),
      text('insurer', { shownWhen: 'insured = true', required: 'insured = true' }),
    ]),
  ),
  spares: example(
    section('cover', [
      yesNo('insured'),
      yesNo('racing'),
      text('insurer', { shownWhen: 'insured = true', required: 'racing = true' }),
    ]),
  ),
  run: inquiry =>
    lookAtEach(ruled(inquiry), ({ question, required }): Finding[] => {
      const { place } = question
      const decision = inquiry.decide(asked(inquiry, question, required, false), { aside: true })
      if (decision.is !== 'impossible') return []
      return [
        finding(
          always,
          place,
          `${quotedName(place)} is required whenever it is shown: its rule is always true then.`,
          {
            rule: `${place.address}:required`,
            conflict: decision.conflict.length > 0 ? decision.conflict : [partAt(place, 'required')],
            witness: inquiry.wayTo(place.section),
            mend: {
              words: 'Make it required',
              edits: [{ do: 'change', what: place.address, set: { required: true } }],
            },
          },
        ),
      ]
    }),
}

function ruled(inquiry: Inquiry): { question: PlannedQuestion; required: PlannedRule & { expr: Expr } }[] {
  return inquiry.model.plan.questions.flatMap(question => {
    const { required, place } = question
    if (
      required === null ||
      required === true ||
      !required.expr ||
      isNeverInPlay(inquiry, place.order) ||
      isFolded(inquiry, question)
    )
      return []
    return [{ question, required: { ...required, expr: required.expr } }]
  })
}

/** In play with the rule true; or, once what is required here is answered, with it not true. */
function asked(
  { model }: Inquiry,
  question: PlannedQuestion,
  required: PlannedRule & { expr: Expr },
  wanted: boolean,
): Goal {
  const { order, section: at } = question.place
  const holds = (state: Filled) =>
    framesOf(state, question).some(
      frame => frame.inPlay[order] === true && (required.run(frame.values) === true) === wanted,
    )
  return {
    key: `${wanted ? 'required' : 'not-required'}:${question.place.address}`,
    at: question.place,
    section: at,
    names: [...namesAround(model, question), ...namesIn(required.expr)],
    literals: space => {
      const rule = space.rule(required, question.place, 'required')
      return [space.inPlay(question), wanted ? rule : -rule]
    },
    ...(wanted ? {} : { answered: true as const }),
    isExact: true,
    holds,
  }
}
