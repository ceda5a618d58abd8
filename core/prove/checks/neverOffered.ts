import { NEVER_IN_PLAY, isNeverInPlay, isFolded } from './neverInPlay'
import { namesIn } from '../../expressions/tree'
import { framesOf } from '../../fill/draw'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, hull, section, yesNo } from './exampleForms'
import { undecidedFinding } from './undecided'

const kind = { code: 'never-offered', severity: 'risk' } as const
const withRule = (shownWhen: string) =>
  example(
    section('boat', [
      yesNo('racing'),
      hull({
        shownWhen: 'racing = true',
        options: [
          { code: 'wood', label: 'Wood' },
          { code: 'steel', label: 'Steel', shownWhen },
          { code: 'grp', label: 'Glass fibre' },
        ],
      }),
      yesNo('new'),
    ]),
  )

export const neverOffered: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: 'An option’s own rule is never true while its question is in play: it can never be chosen.',
  raises: withRule('racing = false'),
  spares: example(
    section('boat', [
      yesNo('old'),
      yesNo('racing'),
      hull({
        shownWhen: 'racing = true',
        options: [
          { code: 'wood', label: 'Wood' },
          { code: 'steel', label: 'Steel', shownWhen: 'old = true' },
          { code: 'grp', label: 'Glass fibre' },
        ],
      }),
    ]),
  ),
  run: inquiry =>
    inquiry.model.plan.questions.flatMap((question): Finding[] => {
      const { place, offer } = question
      if (!offer?.rules || isNeverInPlay(inquiry, place.order) || isFolded(inquiry, question)) return []
      const rows = [...offer.rows.values()]
      return offer.rules.flatMap((rule, index): Finding[] => {
        const row = rows[index]
        const expr = rule?.expr
        if (!rule || !expr || !row) return []
        const goal: Goal = {
          key: `offered:${place.address}:${row.code}`,
          at: place,
          section: place.section,
          names: [...namesAround(inquiry.model, question), ...namesIn(expr)],
          literals: space => [space.inPlay(question), space.encoding.truth(expr).t],
          isExact: true,
          holds: state =>
            framesOf(state, question).some(
              frame => frame.inPlay[place.order] === true && rule.run(frame.values) === true,
            ),
        }
        const decision = inquiry.decide(goal)
        const about = { rule: `${place.address}:option:${index}`, conflict: [partAt(place, 'option', index)] }
        if (decision.is === 'undecided')
          return [
            { ...undecidedFinding(place, `whether “${row.label}” is ever offered`, decision.why), ...about },
          ]
        return decision.is === 'impossible'
          ? [
              finding(
                kind,
                place,
                `${quotedName(place)} never offers “${row.label}”: its rule is not true in any case in which the question is shown.`,
                { ...about, witness: inquiry.wayTo(place.section) },
              ),
            ]
          : []
      })
    }),
}
