import { print } from '../../expressions/print'
import { replaceParts } from '../../expressions/replace'
import type { Expr } from '../../expressions/tree'
import { parseEntryCode } from '../model/entryCodes'
import type { Decision } from './goal'

/** What would make a part of a rule decidable, by something that stands in it. */
const REWRITES: readonly (readonly [RegExp, string])[] = [
  [/\b(?:upper|lower) case\(/, 'name the spellings that count instead, as in x in ["ab", "AB"]'],
  [/\bsubstring(?: before| after)?\(/, 'ask for that part in a question of its own, or use “starts with”'],
  [/\bstring join\(/, 'ask for the parts one by one instead'],
  [/\bmatches\(/, 'write the pattern without flags, word boundaries or classes by name'],
  [/years and months duration\(/, 'compare the two dates themselves instead of their ages'],
  [/[*/]/, 'give the answers closer limits, or compare them with numbers'],
]

/** That a goal is not decided: the part of the rule that it rests on, and what would make it decidable. */
export function undecidedBy(parts: readonly Expr[]): Decision {
  const [open] = parts
  if (open === undefined) return { is: 'undecided', why: 'its rules find out more than is told apart' }
  const part = asWritten(open)
  const rewrite = REWRITES.find(([pattern]) => pattern.test(part))?.[1]
  const why = `it rests on “${part}”, which is not decided exactly`
  return { is: 'undecided', why: rewrite === undefined ? why : `${why}; ${rewrite}` }
}

/** A part of a rule as it is written in the form, whichever entry it is asked of. */
const asWritten = (expr: Expr): string =>
  print(
    replaceParts(expr, node =>
      node.kind === 'name' ? { ...node, name: parseEntryCode(node.name).base.replace(/#.*$/s, '') } : null,
    ),
  )
