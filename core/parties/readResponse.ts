import { sentenceText } from '../expressions/sentence'
import { describeFilled, type ResponseLine } from '../fill/describeResponse'
import { explainShown, type Reason } from '../fill/explain'
import type { Filled } from '../fill/frame'
import { ruleSentence, wordingOf } from '../form/names'
import { RULE_WORDS } from '../form/rules'
import { accessViewOf, mayFill } from './access'
import { turnOf } from './turns'

/** A line of a response as it is read by those who work with it. `isAhead`: nobody whose turn it was could answer it so far; `why`: the rule by which it was not asked, in words, else empty. */
export interface ReadLine extends ResponseLine {
  isAhead: boolean
  why: string
}

/**
 * A response question by question, with what was not reached apart from what was left blank, and what was not asked with its rule.
 * @param handedOff the turns that were taken; of no account in a form without turns
 */
export function readResponse(filled: Filled, handedOff: readonly string[]): ReadLine[] {
  const { form, places } = filled.plan
  const views =
    (form.turns ?? []).length === 0
      ? null
      : handedOff.map(code => accessViewOf(form, places, turnOf(form, code)))
  return describeFilled(filled).map(line => {
    const place = (filled.plan.byCode.get(line.code) ?? filled.plan.groups.get(line.code))?.place
    const isFilled = views === null || (place !== undefined && views.some(view => mayFill(view, place)))
    const isAhead = line.state !== 'answered' && !isFilled && line.type !== 'value' && line.type !== 'hidden'
    const isTold = line.state === 'unasked' && !isAhead && place !== undefined && place.entryOf === null
    return { ...line, isAhead, why: isTold ? whyUnasked(filled, explainShown(filled, filled, place)) : '' }
  })
}

/** The first rule from the outside in that kept something from being asked. */
function whyUnasked({ plan }: Filled, reasons: readonly Reason[]): string {
  const reason = reasons.find(r => r.outcome !== true)
  if (!reason) return ''
  const { place, words } = reason
  if (words !== '' || reason.kind === 'route') return words
  const rule = 'shownWhen' in place.node ? place.node.shownWhen : undefined
  const sentence = rule === undefined ? null : ruleSentence(rule, wordingOf(plan.form, plan.places))
  return sentence ? `${RULE_WORDS.shownWhen} ${sentenceText(sentence)}` : ''
}
