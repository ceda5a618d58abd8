import type { Finding } from '../finding'
import { sampleAnswer } from '../model/sampleAnswers'
import { branchGroup, gatesOf, type Branch, type Gate } from './branches'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, whole } from './exampleForms'
import { NEVER_IN_PLAY } from './neverInPlay'

const kind = { code: 'answers-between', severity: 'risk' } as const
const ages = (second: string) =>
  example(section('crew', [whole('age'), branchGroup('minor', 'age < 18'), branchGroup('adult', second)]))

export const answersBetween: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'Between the numbers or dates of neighbouring branches some answers belong to none of them, such as exactly 18 between “under 18” and “over 18”.',
  raises: ages('age > 18'),
  spares: ages('age >= 18'),
  run: inquiry =>
    gatesOf(inquiry).flatMap((gate): Finding[] => {
      const { question, classes } = gate
      if (!inquiry.model.domain(question.place.code).ranges) return []
      const branches = siblingsOf(gate)
      const gaps = gapsIn(classes.length, branches)
      const [first] = gaps
      if (first === undefined || branches.length < 2) return []
      const answer = sampleAnswer(question, classes[first] ?? null)
      const told = gaps
        .slice(0, 3)
        .map(i => String(classes[i]))
        .join(', ')
      return [
        finding(
          kind,
          question.place,
          `No branch is for ${told}: ${branches.map(b => quotedName(b.place)).join(', ')} leave out what lies between them.`,
          {
            conflict: branches.map(b => partAt(b.place, b.kind, b.index)),
            witness:
              question.place.entryOf === null
                ? { ...inquiry.wayTo(question.place.section), [question.place.code]: answer }
                : inquiry.wayTo(question.place.section),
          },
        ),
      ]
    }),
}

/** The groups and sections of a gate that take disjoint stretches: alternatives by what is answered. */
function siblingsOf({ branches }: Gate): Branch[] {
  const parts = branches.filter(
    b =>
      b.kind === 'shownWhen' &&
      !b.onBlank &&
      (b.place.kind === 'group' || b.place.kind === 'section') &&
      b.holds.includes(true) &&
      b.holds.includes(false),
  )
  const areApart = parts.every((a, i) =>
    parts.slice(i + 1).every(b => !a.holds.some((h, j) => h && b.holds[j])),
  )
  return areApart ? parts : []
}

/** Classes that belong to no branch, with one that does below them and another above. */
function gapsIn(count: number, branches: readonly Branch[]): number[] {
  const isTaken = Array.from({ length: count }, (_, i) => branches.some(b => b.holds[i]))
  const [from, to] = [isTaken.indexOf(true), isTaken.lastIndexOf(true)]
  return isTaken.flatMap((taken, i) => (!taken && i > from && i < to ? [i] : []))
}
