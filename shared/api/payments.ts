import { z } from 'zod'
import { PAYMENT_STATES } from '../../core/form/payment'

/** What is to be paid, or was: a decimal number as text, in a currency, what for, and how it stands. */
const PaymentStands = z.object({
  amount: z.string(),
  currency: z.string(),
  title: z.string(),
  state: z.enum(PAYMENT_STATES),
})

/** What whoever has sent a response is asked to pay. `link`: the path at which it is paid. */
export const PaymentAsked = PaymentStands.extend({ link: z.string() })
export type PaymentAsked = z.infer<typeof PaymentAsked>

/** The same as it stands at the payment service, with the time of its last change. */
export const PaymentOutside = PaymentStands.extend({ at: z.string() })

/** What the page shows at which something is paid: of which form and response it is. */
export const PaymentPage = PaymentStands.extend({ form: z.string(), number: z.int() })

/** What is to be paid in an address. */
export const PaymentId = z.object({ payment: z.uuid() })

/** What those who work with a response do with its payment: it is paid back, or was paid in another way. */
export const PaymentAct = z.strictObject({ do: z.enum(['pay back', 'paid otherwise']) })
export type PaymentAct = z.infer<typeof PaymentAct>
