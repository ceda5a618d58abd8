import type { Num } from '../expressions/decimal'
import type { Value } from '../expressions/types'
import { isContext } from '../expressions/values'
import { CURRENCY_MEMBER, currenciesOf } from '../form/currencies'
import type { QuestionOf } from '../form/questions'

/** An amount in one of several currencies, as rules see it: which it is, and the amount in each, blank in the others. */
export const valueInCurrency = (q: QuestionOf<'money'>, currency: string, amount: Num): Value => ({
  [CURRENCY_MEMBER]: currency,
  ...Object.fromEntries(currenciesOf(q).map(c => [c, c === currency ? amount : null])),
})

/** The amount of a value, and its currency. */
export function amountIn(
  value: Value,
  { currency }: QuestionOf<'money'>,
): { amount: Value; currency: string } {
  const chosen = isContext(value) ? value[CURRENCY_MEMBER] : undefined
  if (!isContext(value) || typeof chosen !== 'string') return { amount: value, currency }
  return { amount: value[chosen] ?? null, currency: chosen }
}
