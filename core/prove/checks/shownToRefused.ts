import { namesIn } from '../../expressions/tree'
import type { PlannedSection, Step } from '../../fill/planned'
import type { Finding } from '../finding'
import { shownGoal, type Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { example, section, text, whole } from './exampleForms'
import { NEVER_IN_PLAY, isOutOfPlay } from './neverInPlay'

const kind = { code: 'shown-to-refused', severity: 'risk' } as const
const reported = (rule: string) =>
  example(
    section('accident', [
      whole('day'),
      whole('reported', { validWhen: [{ rule, message: 'It can’t be reported before it happened.' }] }),
      text('why_late', { shownWhen: 'reported > day' }),
    ]),
  )

export const shownToRefused: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'A question or group shows only for answers that a check of the same section refuses: whoever sees it can’t go on. Is the check turned round? (A note may well explain a refusal.)',
  raises: reported('reported < day'),
  spares: reported('reported >= day'),
  run: inquiry =>
    lookAtEach(
      inquiry.model.plan.sections.flatMap(s => s.all.map(step => ({ section: s, step }))),
      one => ofStep(inquiry, one.section, one.step),
    ),
}

function ofStep(inquiry: Inquiry, around: PlannedSection, step: Step): Finding[] {
  const { place, shown } = step
  if (!shown?.expr || place.kind === 'note' || place.entryOf !== null || isOutOfPlay(inquiry, step)) return []
  const named = new Set(namesIn(shown.expr))
  const checked = [around, ...around.all].filter(s =>
    s.checks.some(c => named.has(s.place.code) || (c.expr && namesIn(c.expr).some(name => named.has(name)))),
  )
  if (
    checked.length === 0 ||
    inquiry.decide(completedWith(inquiry, step), { aside: true, onlyProof: true }).is !== 'impossible'
  )
    return []
  const conflict = [
    partAt(place, 'shownWhen'),
    ...checked.map(s => partAt(s.place, s.checks[0]?.kind ?? 'validWhen', s.checks[0]?.index)),
  ]
  const whose = checked.map(s => quotedName(s.place)).join(' or ')
  const sentence = `${quotedName(place)} shows only for answers that the check of ${whose} refuses: whoever sees it can’t go on.`
  return [
    finding(kind, place, sentence, {
      rule: `${place.address}:shownWhen`,
      conflict,
      witness: inquiry.witness(shownGoal(inquiry.model, step)),
    }),
  ]
}

/** The goal that the section is left with the step in play. */
const completedWith = (inquiry: Inquiry, step: Step): Goal => ({
  ...shownGoal(inquiry.model, step),
  key: `completed-with:${step.place.address}`,
  section: step.place.section + 1,
  leaving: true,
})
