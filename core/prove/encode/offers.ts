import type { Question } from '../../form/questions'
import { print } from '../../expressions/print'
import { parseCached } from '../../expressions/parse'
import { nodesOf, type Expr } from '../../expressions/tree'
import { fill, offeredNow } from '../../fill/fill'
import type { Answer, Answers } from '../../form/answers'
import type { Plan, PlannedQuestion, PlannedOffer } from '../../fill/planned'
import { WRITE_IN, type OfferedRow } from '../../form/rows'
import { cellValue, valueKey } from '../../lists/listIndex'
import { literalOf } from '../../parties/literal'
import type { Value } from '../../expressions/types'

/**
 * When one class of a choice's answers is on offer: for each kind of row in it, the narrowing with the row's cells written in, and the option's
 * own rule. A class is on offer when any of its rows is. Null where that can't be said by conditions over answers.
 */
export function offersOf(
  question: PlannedQuestion,
  classes: readonly Value[],
  value: Value,
): readonly (readonly Expr[])[] | null {
  const { offer, place } = question
  if (!offer || (offer.narrow === null && offer.rules === null) || isWriteIn(value, place.node)) return [[]]
  const codes = [...offer.rows.keys()]
  const kinds = new Map<string, readonly Expr[]>()
  for (const row of rowsOfClass(offer, classes, value)) {
    const own = offer.rules?.[codes.indexOf(row.code)] ?? null
    if (own && !own.expr) continue
    const narrow = offer.narrow === null ? null : withRow(offer.narrow.expr, row)
    if (narrow === undefined) return null
    const parts = [own?.expr ?? null, narrow].filter(e => e !== null)
    kinds.set(parts.map(print).join('\u0001'), parts)
    if (kinds.size > MOST_KINDS) return null
  }
  return [...kinds.values()]
}

const isWriteIn = (value: Value, node: Question): boolean =>
  value === WRITE_IN && 'writeIn' in node && node.writeIn !== undefined

/** The rows that a class stands for; the first class stands for every row that no condition names. */
function rowsOfClass(
  { index }: PlannedOffer,
  classes: readonly Value[],
  value: Value,
): readonly OfferedRow[] {
  const [representative, ...others] = classes
  if (value !== representative) return index.rows.filter(r => r.code === value)
  const named = new Set(others)
  return index.rows.filter(r => !named.has(r.code))
}

/** How many kinds of rows one class may have. */
const MOST_KINDS = 400

/** A narrowing with the cells of one row in it; undefined where the row is used as a whole, or the rule has an error. */
function withRow(expr: Expr | null, row: OfferedRow): Expr | undefined {
  if (expr === null) return undefined
  const text = print(expr)
  const paths = nodesOf(parseCached(text)).filter(
    n => n.kind === 'path' && n.of.kind === 'name' && n.of.name === 'row',
  )
  const whole = nodesOf(parseCached(text)).filter(n => n.kind === 'name' && n.name === 'row').length
  if (whole !== paths.length) return undefined
  const written = [...paths]
    .sort((a, b) => b.from - a.from)
    .reduce(
      (done, path) =>
        path.kind === 'path'
          ? done.slice(0, path.from) + constant(row[path.member]) + done.slice(path.to)
          : done,
      text,
    )
  return parseCached(written)
}

const DATE = /^\d{4}-\d{2}-\d{2}$/
const constant = (cell: unknown): string => {
  const value = cellValue(cell)
  return print(literalOf(value, { kind: typeof value === 'string' && DATE.test(value) ? 'date' : 'unknown' }))
}

/** Answers in which the choice that stands for several rows is one that is on offer there: of the same class, so that no condition tells the difference. */
export function withOffered(
  plan: Plan,
  classesOf: (code: string) => readonly Value[],
  answers: Answers,
  today: string,
): Answers {
  let next = answers
  for (const question of plan.questions) {
    if (question.offer === null || (question.offer.narrow === null && question.offer.rules === null)) continue
    next = withChoiceOffered(plan, question, classesOf(question.place.code), next, today)
  }
  return next
}

function withChoiceOffered(
  plan: Plan,
  question: PlannedQuestion,
  [representative = null, ...others]: readonly Value[],
  answers: Answers,
  today: string,
): Answers {
  const { code } = question.place
  const given = answers[code]
  const isOther = (a: Answer | undefined) => typeof a === 'string' && valueKey(a) === valueKey(representative)
  if (!isOther(given) && !(Array.isArray(given) && given.some(isOther))) return answers
  const offered = offeredNow(fill(plan, answers, today), question)
  const named = new Set<Value>(others)
  const free = [...(offered ?? [])].find(c => !named.has(c))
  if (offered === null || free === undefined || offered.has(String(representative))) return answers
  const chosen = Array.isArray(given) ? given.map((a: Answer) => (isOther(a) ? free : a)) : free
  return { ...answers, [code]: chosen }
}
