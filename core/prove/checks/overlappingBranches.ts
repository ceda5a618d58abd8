import { NEVER_IN_PLAY } from './neverInPlay'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { sampleAnswer } from '../model/sampleAnswers'
import { branchGroup, gatesOf, pairsOf } from './branches'
import { example, section, whole } from './exampleForms'

const kind = { code: 'overlapping-branches', severity: 'risk' } as const
const ages = (second: string) =>
  example(
    section('crew', [whole('age'), branchGroup('guardian', 'age <= 18'), branchGroup('licence', second)]),
  )

export const overlappingBranches: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: 'Two branches that look like alternatives, since together they cover every answer, can both show.',
  raises: ages('age >= 18'),
  spares: ages('age > 18'),
  run: inquiry =>
    gatesOf(inquiry).flatMap(gate =>
      pairsOf(gate).flatMap(([a, b]): Finding[] => {
        const both = a.holds.flatMap((h, i) => (h && b.holds[i] ? [i] : []))
        const isAlternative =
          a.holds.every((h, i) => h || b.holds[i]) &&
          a.holds.some((h, i) => h && !b.holds[i]) &&
          a.holds.some((h, i) => !h && b.holds[i])
        const [first] = both
        if (first === undefined || !isAlternative) return []
        const { question, classes } = gate
        const answer = classes[first]
        return [
          finding(
            kind,
            b.place,
            `${quotedName(a.place)} and ${quotedName(b.place)} look like alternatives, but the same answer to ${quotedName(question.place)} shows both.`,
            {
              rule: `${b.place.address}:shownWhen`,
              conflict: [partAt(a.place, 'shownWhen'), partAt(b.place, 'shownWhen')],
              witness:
                question.place.entryOf === null && answer !== undefined
                  ? {
                      ...inquiry.wayTo(b.place.section),
                      [question.place.code]: sampleAnswer(question, answer),
                    }
                  : inquiry.wayTo(b.place.section),
            },
          ),
        ]
      }),
    ),
}
