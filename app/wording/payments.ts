import { readableNumber } from '#core/fill/describeValue'
import { numberFromText } from '#core/expressions/decimal'
import type { PaymentState } from '#core/form/payment'

/** How a payment stands. */
export const PAYMENT_WORDS: Record<PaymentState, string> = {
  open: 'to be paid',
  paid: 'paid',
  refused: 'refused by the payment service',
  'paid back': 'paid back',
}

/** An amount as people read it: `1 250.00 EUR`. */
export function readableMoney(amount: string, currency: string): string {
  const number = numberFromText(amount)
  return `${number === null ? amount : readableNumber(number, 2)}\u00a0${currency}`
}
