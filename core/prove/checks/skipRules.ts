import { skipTarget, type SkipError } from '../../form/skips'
import type { PlannedSkip } from '../../fill/planned'
import { namesOfSkips } from '../../fill/steps'
import { isTaken } from '../../fill/wayOut'
import { withoutExit } from '../../form/rules'
import type { Skip } from '../../form/fields'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, finding, lookAtEach, partAt } from './check'
import { example, section, text, yesNo } from './exampleForms'
import { isOutOfPlay, NEVER_IN_PLAY } from './neverInPlay'
import { undecidedFinding } from './undecided'

const backward = { code: 'backward-skip', severity: 'fault' } as const
const never = { code: 'never-skips', severity: 'risk' } as const

const skipping = (...skips: Skip[]) =>
  example(
    section('boat', [yesNo('insured', { skips }), text('insurer'), text('days')]),
    section('end', [text('remarks')]),
  )

export const backwardSkip: Check = {
  ...backward,
  about:
    'A skip leads to something that is not there, that stands before its question, or into or out of an entry. Skips only lead forward.',
  raises: skipping({ when: 'insured = false', to: 'item/insured' }),
  spares: skipping({ when: 'insured = false', to: 'item/days' }),
  run: ({ model: { plan } }) =>
    plan.questions.flatMap(({ place }) =>
      ('skips' in place.node ? (place.node.skips ?? []) : []).flatMap((skip, index): Finding[] => {
        const target = skipTarget(plan.places, place, skip)
        if (typeof target !== 'string') return []
        const sentence = `A skip of ${quotedName(place)} leads to ${WRONG[target](skip.to)}.`
        return [
          finding(backward, place, sentence, {
            rule: `${place.address}:skip:${index}`,
            conflict: [partAt(place, 'skip', index)],
            mend: { words: 'Take the skip away', edits: [withoutExit({ place, index })] },
          }),
        ]
      }),
    ),
}

/** What is wrong with where a skip leads. */
const WRONG: Record<SkipError, (to: string) => string> = {
  unknown: to => `“${to}”, which is not there`,
  backward: () => 'itself or to something before it; skips only lead forward',
  'into entries': () => 'a question that is asked once for each entry; lead to its group instead',
  'out of an entry': () => 'something outside of its entry; it can only go on in the same entry',
}

export const neverSkips: Check = {
  ...never,
  needs: NEVER_IN_PLAY,
  about: 'A skip is never taken: its condition is true in no case in which its question is asked.',
  raises: skipping({ when: 'insured = true and insured = false', to: 'finish' }),
  spares: skipping({ when: 'insured = false', to: 'finish' }),
  run: inquiry =>
    lookAtEach(inquiry.model.plan.skips, skip =>
      isOutOfPlay(inquiry, { place: skip.from }) || inquiry.model.circular.has(skip.from.code)
        ? []
        : untakenSkip(inquiry, skip),
    ),
}

function untakenSkip(inquiry: Inquiry, skip: PlannedSkip): Finding[] {
  const { from, index } = skip
  const decision = inquiry.decide({
    key: `skip:${from.address}:${index}`,
    at: from,
    section: from.section,
    names: namesOfSkips([skip]),
    literals: space => [space.skipTaken(skip)],
    isExact: true,
    holds: state => isTaken(skip, state),
  })
  if (decision.is === 'undecided')
    return [
      undecidedFinding(from, `whether skip ${index + 1} of ${quotedName(from)} is ever taken`, decision.why),
    ]
  if (decision.is !== 'impossible') return []
  const isAbove = decision.conflict.some(
    p => p.address === from.address && p.kind === 'skip' && p.index < index,
  )
  const reason = isAbove
    ? 'those above it always come first'
    : 'its condition is not true in any case in which the question is asked'
  return [
    finding(never, from, `Skip ${index + 1} of ${quotedName(from)} is never taken: ${reason}.`, {
      rule: `${from.address}:skip:${index}`,
      conflict: decision.conflict.length > 0 ? decision.conflict : [partAt(from, 'skip', index)],
      witness: inquiry.wayTo(from.section),
      mend: { words: 'Take the skip away', edits: [withoutExit({ place: from, index })] },
    }),
  ]
}
