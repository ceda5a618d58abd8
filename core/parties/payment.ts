import { compareNumbers, isNumber, numberText, type Num } from '../expressions/decimal'
import { amountIn } from '../fill/amounts'
import type { Filled } from '../fill/frame'
import type { Plan } from '../fill/planned'
import type { Place } from '../form/walk'
import { deliveredText, holds } from './deliveries'

/** What is to be paid: a decimal number as text, its currency, and what for. */
export interface PaymentDue {
  amount: string
  currency: string
  title: string
}

/** The question or calculation that gives the amount to be paid; null where it gives no money, or stands in a repeating group. */
export function amountPlaceOf({ form, byCode }: Plan): Place | null {
  const place = form.payment ? byCode.get(form.payment.amount)?.place : undefined
  if (!place || place.kind !== 'question' || place.entryOf !== null) return null
  const { node } = place
  return node.type === 'money' || (node.type === 'value' && node.currency !== undefined) ? place : null
}

/** What is to be paid for a response; null where nothing is: it is not asked for, the amount is blank, or not above nothing. */
export function paymentDue(filled: Filled): PaymentDue | null {
  const { plan, values } = filled
  const { payment } = plan.form
  const place = amountPlaceOf(plan)
  if (!payment || !place || !holds(filled, payment)) return null
  const slot = plan.byCode.get(place.code)?.slot
  const value = slot === undefined ? null : (values[slot] ?? null)
  const found = currencyAmount(place, value)
  if (!found || compareNumbers(found.amount, 0) <= 0) return null
  return {
    amount: numberText(found.amount),
    currency: found.currency,
    title: deliveredText(filled, payment.title),
  }
}

function currencyAmount(
  { node }: Place,
  value: Filled['values'][number],
): { amount: Num; currency: string } | null {
  if (!('type' in node)) return null
  if (node.type === 'value')
    return isNumber(value) && node.currency !== undefined ? { amount: value, currency: node.currency } : null
  if (node.type !== 'money') return null
  const { amount, currency } = amountIn(value, node)
  return isNumber(amount) ? { amount, currency } : null
}
