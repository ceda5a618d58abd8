import type { PlannedGroup, PlannedQuestion } from '../../fill/planned'
import { isQuestion, isRepeating } from '../../fill/steps'
import type { Question } from '../../form/questions'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { isUnanswerable } from '../model/answerable'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, whole } from './exampleForms'

const kind = { code: 'no-answer-fits', severity: 'fault' } as const
const limited = (min: number) =>
  example(
    section('boat', [whole('length', { min, max: 40, required: true })]),
    section('end', [whole('days')]),
  )

export const noAnswerFits: Check = {
  ...kind,
  about:
    'The limits of a question leave no answer: the least is more than the most, no text of the length matches the pattern, more options are to be ticked than there are. Whoever has to answer it can’t go on.',
  raises: limited(60),
  spares: limited(6),
  run: inquiry =>
    inquiry.model.plan.sections
      .flatMap(s => s.all)
      .flatMap((step): Finding[] => {
        if (isQuestion(step)) return ofQuestion(inquiry, step)
        return isRepeating(step) && step.min > step.max ? [ofGroup(inquiry, step)] : []
      }),
}

const NOTHING_TO_CHOOSE = 'there is nothing to choose from'

function ofQuestion(inquiry: Inquiry, question: PlannedQuestion): Finding[] {
  const { place, required } = question
  const domain = inquiry.model.domain(place.code)
  if (question.value !== null || domain.opaque || !isUnanswerable(question, domain)) return []
  const reason = reasonOf(place.node)
  // An empty list has a finding of its own.
  if (reason === NOTHING_TO_CHOOSE) return []
  if (required !== null) inquiry.facts.establish(place.order, [partAt(place, 'required')])
  const outcome =
    required === null ? 'nobody can ever answer it' : 'it has to be answered, so nobody gets past it'
  return [
    finding(
      { ...kind, severity: required === null ? 'risk' : 'fault' },
      place,
      `No answer fits the limits of ${quotedName(place)}: ${reason}; ${outcome}.`,
      {
        conflict: [partAt(place, place.kind === 'question' ? 'limits' : 'place')],
        witness: inquiry.wayTo(place.section),
      },
    ),
  ]
}

function ofGroup(inquiry: Inquiry, { place, min, max }: PlannedGroup): Finding {
  inquiry.facts.establish(place.order, [partAt(place, 'required')])
  const sentence = `${quotedName(place)} needs at least ${min} entries, and at most ${max} fit.`
  return finding(kind, place, sentence, { conflict: [partAt(place)] })
}

/** What of the limits leaves nothing. */
function reasonOf(node: Question): string {
  switch (node.type) {
    case 'choices':
      return `at least ${node.least ?? 1} are to be chosen, which the options don’t allow`
    case 'choice':
    case 'ranking':
    case 'grid':
      return NOTHING_TO_CHOOSE
    case 'date':
      return 'its first day is after its last'
    case 'time':
    case 'dateTime':
      return 'it begins after it ends'
    case 'text':
    case 'longText':
      return reasonOfText(node)
    default:
      return 'nothing lies between its least and its most'
  }
}

function reasonOfText(node: Extract<Question, { type: 'text' | 'longText' }>): string {
  if ((node.minLength ?? 0) > (node.maxLength ?? Infinity))
    return 'it is to have more letters at least than at most'
  return 'no text of the length that is allowed matches its pattern'
}
