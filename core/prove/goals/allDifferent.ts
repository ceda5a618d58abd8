import type { Encoding } from '../encode/encoding'
import type { Equality } from '../encode/encoder'
import { valueKey } from '../../lists/listIndex'
import type { Literal } from '../solver/literal'

/** Fewer choices that differ are found by the clauses at once. */
const FEWEST = 3

/** A choice among several of which no two may be alike. */
interface Choice {
  code: string
  blank: Literal
  classes: readonly { key: string; literal: Literal }[]
}

/**
 * Of choices that all differ: a clause that holds always and rules out that more of them share fewer answers (Hall 1935). Which differ, and
 * what each may still be, is what follows from the assumptions.
 * @returns the clause; null where the answers that are left suffice
 */
export function pigeonholeClause(encoding: Encoding, assumptions: readonly Literal[]): Literal[] | null {
  if (encoding.equalities.length < FEWEST) return null
  const choices = choicesOf(encoding)
  const wanted = [
    ...encoding.equalities.map(e => -e.literal),
    ...[...choices.values()].flatMap(c => [-c.blank, ...c.classes.map(({ literal }) => -literal)]),
  ]
  const holding = encoding.solver.consequences(assumptions, wanted)
  if (holding === null) return null
  const differing = encoding.equalities.filter(e => holding.has(-e.literal))
  const together = cliqueOf(differing, choices, holding)
  const crowd = together.length < FEWEST ? null : crowdedIn(together, holding)
  return crowd && clauseOf(crowd, differing, holding)
}

function choicesOf(encoding: Encoding): Map<string, Choice> {
  const choices = new Map<string, Choice>()
  for (const code of encoding.equalities.flatMap(e => e.codes)) {
    const { blank, classes } = encoding.variable(code)
    choices.set(code, {
      code,
      blank,
      classes: classes.map(c => ({ key: valueKey(c.value), literal: c.literal })),
    })
  }
  return choices
}

/** Choices that are answered and all differ, one by one as long as the next differs from all. */
function cliqueOf(
  differing: readonly Equality[],
  choices: ReadonlyMap<string, Choice>,
  holding: ReadonlySet<Literal>,
): Choice[] {
  const pairs = new Set(differing.flatMap(({ codes: [a, b] }) => [`${a} ${b}`, `${b} ${a}`]))
  const together: Choice[] = []
  for (const choice of choices.values())
    if (holding.has(-choice.blank) && together.every(other => pairs.has(`${choice.code} ${other.code}`)))
      together.push(choice)
  return together
}

/** What a choice may still be. */
const leftOf = ({ classes }: Choice, holding: ReadonlySet<Literal>): string[] =>
  classes.filter(c => !holding.has(-c.literal)).map(c => c.key)

/** Choices with fewer answers left than there are choices; null when each can have one of its own (augmenting paths). */
function crowdedIn(choices: readonly Choice[], holding: ReadonlySet<Literal>): Choice[] | null {
  const left = new Map(choices.map(c => [c, leftOf(c, holding)] as const))
  const takenBy = new Map<string, Choice>()
  for (const choice of choices) {
    const seen = new Set<string>()
    const visited = new Set<Choice>()
    const isPlaced = (one: Choice): boolean => {
      visited.add(one)
      for (const key of left.get(one) ?? []) {
        if (seen.has(key)) continue
        seen.add(key)
        const holder = takenBy.get(key)
        if (holder && !isPlaced(holder)) continue
        takenBy.set(key, one)
        return true
      }
      return false
    }
    if (!isPlaced(choice)) return [...visited]
  }
  return null
}

/** One of the crowd is blank, two are alike, or one is something that was ruled out for it. */
function clauseOf(
  crowd: readonly Choice[],
  differing: readonly Equality[],
  holding: ReadonlySet<Literal>,
): Literal[] {
  const codes = new Set(crowd.map(c => c.code))
  const alike = differing.filter(e => e.codes.every(code => codes.has(code))).map(e => e.literal)
  const shared = new Set(crowd.flatMap(c => leftOf(c, holding)))
  const elsewhere = crowd.flatMap(c => c.classes.filter(({ key }) => !shared.has(key)).map(c2 => c2.literal))
  return [...new Set([...crowd.map(c => c.blank), ...alike, ...elsewhere])]
}
