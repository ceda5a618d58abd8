import { type Asked, constantValue } from './asked'
import { numberFromDouble } from '../../expressions/decimal'
import { valueInCurrency } from '../../fill/amounts'
import { tableOf } from '../../fill/lookedUp'
import { listedTexts, freeText, formedText, EMAIL, PHONE, oneOfTexts } from './textDomains'
import { isPossible } from './sampleAnswers'
import { numberClasses } from './numberClasses'
import { type Domain, type Range, exact, opaque, OPAQUE, EXACT } from './domain'
import {
  dateTimeFromSeconds,
  dayNumber,
  FIRST_DAY,
  instant,
  isoFromDay,
  LAST_DAY,
  timeFromSeconds,
} from '../../expressions/dates'
import type { Value } from '../../expressions/types'
import type { Plan, PlannedQuestion } from '../../fill/planned'
import { LIMITS } from '../../form/limits'
import type { ChoiceType, QuestionOf, QuestionType } from '../../form/questions'
import { optionsOf, WRITE_IN } from '../../form/rows'
import type { TextTest } from './textAutomata'

interface Question<T extends QuestionType> {
  node: QuestionOf<T>
  step: PlannedQuestion
  plan: Plan
  asked: readonly Value[]
  whole: boolean
  texts: readonly TextTest[]
}
type DomainOf<T extends QuestionType> = (question: Question<T>) => Domain

const numberDomain = (
  { asked, step }: Pick<Question<QuestionType>, 'asked' | 'step'>,
  min: number | undefined,
  max: number | undefined,
  places: number | null,
): Domain =>
  ranged(
    numberClasses(asked, min, max, places).filter(c => isPossible(c.value, step)),
    places,
  )

/** An amount in several currencies of which nothing is asked but whether it is there. */
export const someAmount = (node: QuestionOf<'money'>): Value =>
  valueInCurrency(node, node.currency, numberFromDouble(node.min ?? node.max ?? 0) ?? 0)

const ranged = (classes: readonly (Range & { value: Value })[], places: number | null): Domain => ({
  ...exact(
    classes.map(c => c.value),
    false,
  ),
  ranges: classes.map(({ low, high, isPoint }) => ({ low, high, isPoint })),
  places,
})

/** Dates and times as numbers of units. */
function timeDomain(
  { asked, step }: Pick<Question<QuestionType>, 'asked' | 'step'>,
  bounds: readonly (string | undefined)[],
  to: (text: string) => number | null,
  from: (n: number) => string | null,
  common: number,
): Domain {
  const numbers = [...asked, ...bounds]
    .map(v => (typeof v === 'string' ? to(v) : null))
    .filter(n => n !== null)
  const classes = numberClasses(numbers, undefined, undefined, 0, common).map(c => ({
    ...c,
    value: typeof c.value === 'number' ? from(c.value) : null,
  }))
  return ranged(
    classes.filter(c => c.value !== null && isPossible(c.value, step)),
    0,
  )
}

/** Where an open interval leaves the choice, witnesses take a day of this time rather than one of the year 1. */
const COMMON_DAY = 20_000
const DAY_SECONDS = 86_400

const DOMAINS: { readonly [T in QuestionType]: DomainOf<T> } = {
  yesNo: () => exact([true, false], true),
  choice: q => choiceDomain(q),
  choices: q => {
    const domain = choiceDomain(q)
    return { ...domain, singletons: false, many: true }
  },
  text: q => freeText(q, q.node),
  longText: q => freeText(q, { minLength: q.node.minLength, maxLength: q.node.maxLength }),
  email: q => formedText(q, EMAIL),
  phone: q => formedText(q, PHONE),
  url: oneOfTexts(['https://wherry.example', 'https://reach.example']),
  integer: q => numberDomain(q, q.node.min, q.node.max, 0),
  decimal: q => numberDomain(q, q.node.min, q.node.max, q.node.decimals ?? null),
  money: q => (q.node.currencies ? opaque(someAmount(q.node)) : numberDomain(q, q.node.min, q.node.max, 2)),
  scale: q => numberDomain(q, q.node.min, q.node.max, 0),
  date: q =>
    timeDomain(
      q,
      [q.node.min, q.node.max],
      dayNumber,
      n => (n >= FIRST_DAY && n <= LAST_DAY ? isoFromDay(n) : null),
      COMMON_DAY,
    ),
  time: q =>
    timeDomain(
      q,
      [q.node.min && `${q.node.min}:00`.slice(0, 8), q.node.max && `${q.node.max}:00`.slice(0, 8)],
      instant,
      timeFromSeconds,
      36_000,
    ),
  dateTime: q =>
    timeDomain(
      q,
      [q.node.min && `${q.node.min}:00`.slice(0, 19), q.node.max && `${q.node.max}:00`.slice(0, 19)],
      instant,
      dateTimeFromSeconds,
      COMMON_DAY * DAY_SECONDS + 36_000,
    ),
  grid: ({ node }) =>
    node.rows.length === 0 || node.options.length === 0
      ? exact([], false)
      : opaque(Object.fromEntries(node.rows.map(r => [r.code, node.options[0]?.code ?? null]))),
  ranking: ({ node }) => {
    const orders = ordersOf(
      node.options.map(o => o.code),
      Math.min(node.most ?? node.options.length, node.options.length),
    )
    return orders === null ? opaque(node.options.slice(0, node.most).map(o => o.code)) : exact(orders, true)
  },
  file: () => opaque(['sample.pdf']),
  signature: () => exact([true], true),
  value: () => OPAQUE,
  hidden: q => {
    const holds = q.node.holds ?? 'text'
    if (holds === 'yesNo') return exact([true, false], true)
    if (holds === 'number') return numberDomain(q, undefined, undefined, null)
    return holds === 'date'
      ? timeDomain(
          q,
          [],
          dayNumber,
          n => (n >= FIRST_DAY && n <= LAST_DAY ? isoFromDay(n) : null),
          COMMON_DAY,
        )
      : formedText(q, { least: 1, most: LIMITS.label, samples: ['Something'] })
  },
}

const MOST_ORDERS = 400
/** All orders of so many of the codes; null when they are too many, and none of nothing. */
function ordersOf(codes: readonly string[], length: number): string[][] | null {
  let orders: string[][] = [[]]
  for (let n = 0; n < length; n++) {
    if (orders.length * (codes.length - n) > MOST_ORDERS) return null
    orders = orders.flatMap(order => codes.filter(c => !order.includes(c)).map(c => [...order, c]))
  }
  return length === 0 ? [] : orders
}

/** How many rows of a list are told apart one by one. */
const MOST_WHOLE = 400

function choiceDomain({ node, plan, asked, whole }: Question<ChoiceType>): Domain {
  const codes = [
    ...new Set([...(optionsOf(plan.form, node) ?? []).map(r => r.code), ...(node.writeIn ? [WRITE_IN] : [])]),
  ]
  // Of a long list that is looked through, what conditions ask can't be told by a few classes.
  if (whole && codes.length > MOST_WHOLE) return { ...opaque(codes[0] ?? null), classes: codes.slice(0, 1) }
  const named = new Set(asked)
  const alone = new Set((optionsOf(plan.form, node) ?? []).flatMap(r => (r.alone ? [r.code] : [])))
  const mentioned = codes.filter(code => whole || named.has(code) || alone.has(code))
  const other = codes.find(code => !mentioned.includes(code))
  const classes = other === undefined ? mentioned : [other, ...mentioned]
  // Which classes are on offer is a matter of clauses, see `offers.ts`.
  const sizes = classes.map((_, i) => (i === 0 && other !== undefined ? codes.length - mentioned.length : 1))
  return { ...EXACT, classes, sizes, singletons: classes.length === codes.length && !node.writeIn }
}

/** The domain of a question. */
export function domainOf<T extends QuestionType>(
  node: QuestionOf<T>,
  step: PlannedQuestion,
  plan: Plan,
  asked: Asked,
): Domain {
  const begins = isLockable(step, plan) ? constantDefault(step) : undefined
  const constants = asked.constants.get(node.code) ?? []
  const listed = listedCodes(node, plan)
  const question = {
    node,
    step,
    plan,
    asked: begins === undefined || constants.includes(begins) ? constants : [...constants, begins],
    whole: asked.whole.has(node.code),
    texts: asked.texts.get(node.code) ?? [],
  }
  const domain = listed ? listedTexts(question, listed) : DOMAINS[node.type](question)
  return lockedAs(domain, step, plan)
}

/** The texts that a question takes, where it takes just those of a list. */
function listedCodes(node: PlannedQuestion['place']['node'], { form }: Plan): readonly string[] | null {
  const table = tableOf(node)
  if (table?.takes !== 'these') return null
  const list = form.lists?.find(l => l.code === table.list)
  return list ? list.rows.flatMap(row => (row.retired === true ? [] : [row.code])) : null
}

/** Whether a question may be read-only, by a rule of its own or of what stands around it. */
export const isLockable = (step: PlannedQuestion, plan: Plan): boolean =>
  step.readOnly !== null ||
  (plan.sections[step.place.section]?.readOnly ?? null) !== null ||
  step.place.groups.some(g => g.node.readOnly !== undefined)

/** The answer that a question begins with, where that is written down as it is and can be given. */
export function constantDefault(step: PlannedQuestion): Value | undefined {
  const expr = step.default?.expr
  if (!expr) return undefined
  const value = expr.kind === 'boolean' ? expr.value : constantValue(expr)
  return value !== undefined && isPossible(value, step) ? value : undefined
}

/** A read-only answer is what the question begins with: told where that is nothing, or one that stands there. */
export function lockedAs(domain: Domain, step: PlannedQuestion, plan: Plan): Domain {
  const isTold =
    (step.default === null || (constantDefault(step) !== undefined && !domain.many)) &&
    !(step.offer?.narrow ?? step.offer?.rules)
  const isOpen = step.offer?.onlyOne === true || (!isTold && isLockable(step, plan))
  return isOpen ? { ...domain, open: true, opaque: true, singletons: false } : domain
}
