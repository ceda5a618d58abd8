import { namesIn } from '../../expressions/tree'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach } from './check'
import { clausesOf, printedGoal, type Around, type Clause } from './clauses'
import { documentPart, nameOf, withDocument } from './documentTags'

const BOTH = { code: 'clause-both', severity: 'advice' } as const
const NEITHER = { code: 'clause-neither', severity: 'advice' } as const

/** Clauses that follow each other, for examples. */
const clauses = (...sources: string[]) =>
  withDocument(
    sources.flatMap(source => [
      { is: 'when' as const, source, words: `{{#when ${source}}}` },
      { is: 'end' as const, of: 'when' as const, words: '' },
    ]),
  )

export const clauseBoth: Check = {
  ...BOTH,
  about: 'Two clauses of a document that follow each other and ask the same answers can both be printed.',
  raises: clauses('tons < 10', 'tons > 5'),
  spares: clauses('tons < 10', 'tons >= 10'),
  run: inquiry =>
    lookAtEach(alternativesIn(inquiry), group =>
      pairsOf(group).flatMap(([one, other]): Finding[] => {
        const sentence = `${nameOf(one.document)}: the clauses “${one.source}” and “${other.source}” follow each other, and both can be printed.`
        return canBe(inquiry, [isPrinted(one, true), isPrinted(other, true)], one, { kind: BOTH, sentence })
      }),
    ),
}

export const clauseNeither: Check = {
  ...NEITHER,
  about:
    'Of clauses of a document that follow each other and ask the same answers, it can be that none is printed.',
  raises: clauses('tons < 10', 'tons > 10'),
  spares: clauses('tons < 10', 'tons >= 10'),
  run: inquiry =>
    lookAtEach(alternativesIn(inquiry), (group): Finding[] => {
      const [first] = group
      if (!first) return []
      const named = group.map(c => `“${c.source}”`).join(', ')
      const sentence = `${nameOf(first.document)}: of the clauses ${named}, which follow each other, none may be printed.`
      const none = group.map(clause => isPrinted(clause, false))
      return canBe(inquiry, none, first, { kind: NEITHER, sentence })
    }),
}

/** Clauses without an else that follow each other with nothing between, and ask the same answers: two at least. */
function alternativesIn(inquiry: Inquiry): Clause[][] {
  const groups: Clause[][] = []
  for (const clause of clausesOf(inquiry)) {
    const last = groups.at(-1)?.at(-1)
    if (last && isAlternative(last, clause)) groups.at(-1)?.push(clause)
    else groups.push([clause])
  }
  return groups.filter(group => group.length > 1)
}

const isAlternative = (one: Clause, next: Clause) =>
  one.document === next.document &&
  one.end + 1 === next.tag &&
  !one.hasElse &&
  !next.hasElse &&
  askedBy(one) !== '' &&
  askedBy(one) === askedBy(next)
const askedBy = ({ expr }: Clause) => [...new Set(namesIn(expr))].sort().join(' ')

const pairsOf = (group: readonly Clause[]): [Clause, Clause][] =>
  group.flatMap((one, i) => group.slice(i + 1).map((other): [Clause, Clause] => [one, other]))

const isPrinted = ({ expr, source }: Clause, isTrue: boolean): Around => ({ expr, source, isTrue })

function canBe(
  inquiry: Inquiry,
  asked: readonly Around[],
  at: Clause,
  { kind, sentence }: { kind: typeof BOTH | typeof NEITHER; sentence: string },
): Finding[] {
  const goal = printedGoal(inquiry, at, [...at.around, ...asked])
  if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
  const witness = inquiry.witness(goal)
  return witness === null
    ? []
    : [finding(kind, null, sentence, { conflict: documentPart(inquiry, at.index), witness })]
}
