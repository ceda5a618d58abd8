import { z } from 'zod'
import { Code, Expression, Label } from './fields'

/**
 * What is to be paid at the end: the amount that an answer or a calculation gives, what for (may quote answers), and when. `completes`: the
 * response counts as done only when it is paid.
 */
export const Payment = z.strictObject({
  amount: Code,
  title: Label,
  when: Expression.optional(),
  completes: z.literal(true).optional(),
})
export type Payment = z.infer<typeof Payment>

/** How a payment stands: asked for; paid; refused by the service that was asked (it can be tried again); paid back. */
export const PAYMENT_STATES = ['open', 'paid', 'refused', 'paid back'] as const
export type PaymentState = (typeof PAYMENT_STATES)[number]
