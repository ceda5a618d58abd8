import { gridSteps } from '../../form/notApplicable'
import { CURRENCY_MEMBER, currenciesOf } from '../../form/currencies'
import type { Question, QuestionOf } from '../../form/questions'

/**
 * Answers that rules look into part by part: the rows of a grid, the amount in each of several currencies. Each part that is asked for is a
 * question of its own.
 */
type Parted = QuestionOf<'grid' | 'money'>

/** Whether an answer has parts. */
export const isParted = (node: Question | undefined): node is Parted =>
  node?.type === 'grid' || (node?.type === 'money' && node.currencies !== undefined)

/** The parts of an answer by name. */
export const partsOf = (node: Parted): readonly string[] =>
  node.type === 'grid' ? node.rows.map(r => r.code) : [CURRENCY_MEMBER, ...currenciesOf(node)]

/** The parts that are looked into where rules ask for some by name; of an amount its currency always, which says where the amount is. */
export function partsAsked(node: Parted, asked: ReadonlySet<string>): readonly string[] {
  const parts = partsOf(node).filter(part => asked.has(part))
  if (node.type === 'grid' || parts.length === 0) return parts
  return [CURRENCY_MEMBER, ...parts.filter(part => part !== CURRENCY_MEMBER)]
}

/** A part as a question of its own; undefined where there is no such part. */
export function questionOfPart(whole: Parted, part: string, code: string): Question | undefined {
  if (!partsOf(whole).includes(part)) return undefined
  const common = { kind: 'question' as const, code, label: whole.label }
  const required = whole.required === undefined ? {} : { required: whole.required }
  if (whole.type === 'grid') return { ...common, ...required, type: 'choice', options: [...gridSteps(whole)] }
  if (part === CURRENCY_MEMBER) {
    const options = currenciesOf(whole).map(c => ({ code: c, label: c }))
    return { ...common, ...required, type: 'choice', options }
  }
  return { ...common, type: 'money', currency: part, min: whole.min, max: whole.max }
}
