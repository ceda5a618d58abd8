import { z } from 'zod'
import { Letter } from './letters'
import { PaymentOutside } from './payments'

/** How a delivery can stand: waiting for its time or for another try; done; not done, since there was nothing to be done; given up after a day. */
export const RUN_STATES = ['waiting', 'done', 'left', 'given up'] as const
/** How the simulated receiver of web hooks behaves: it takes them, answers with an error, or not at all. */
export const HOOK_MANNERS = ['takes', 'refuses', 'silent'] as const

/** How the simulated payment service behaves: it takes a payment, or refuses it. */
export const PAYMENT_MANNERS = ['takes', 'refuses'] as const

/** Which deliveries of a form: in one state, a page from 1 on. */
export const DeliveryQuery = z.object({
  state: z.union([z.literal(''), z.enum(RUN_STATES)]).default(''),
  page: z.coerce.number().int().min(1).max(1_000_000).default(1),
})
export type DeliveryQuery = z.infer<typeof DeliveryQuery>

/** Something that was to be done by itself for a response. `said`: what came of the last try; `dueAt`: when it is tried next. */
export const DeliveryRun = z.object({
  id: z.string(),
  title: z.string(),
  response: z.string(),
  number: z.int(),
  state: z.enum(RUN_STATES),
  tries: z.int(),
  said: z.string(),
  madeAt: z.string(),
  dueAt: z.string(),
})
export type DeliveryRun = z.infer<typeof DeliveryRun>

/** A page of them; `count`: how many there are in that state, `failing`: how many wait for another try or were given up. `secret`: by what web hooks are signed, for those who may design. */
export const DeliveryRuns = z.object({
  count: z.int(),
  failing: z.int(),
  secret: z.string().nullable(),
  rows: z.array(DeliveryRun),
})

/** The simulated world outside: how it behaves, and what it has got, the newest first. */
export const OutsideWorld = z.object({
  hooks: z.enum(HOOK_MANNERS),
  payments: z.enum(PAYMENT_MANNERS),
  received: z.array(
    z.object({
      at: z.string(),
      address: z.string(),
      signature: z.string(),
      body: z.string(),
      answered: z.int(),
    }),
  ),
  /** Addresses, or what stands after their “@”, at which letters come back. */
  bounces: z.array(z.string()),
  letters: z.array(Letter),
  /** What was to be paid, the last change first. */
  paid: z.array(PaymentOutside),
})
/** How the simulated world outside is to behave. */
export const OutsideManner = z.strictObject({
  hooks: z.enum(HOOK_MANNERS),
  payments: z.enum(PAYMENT_MANNERS),
  bounces: z.array(z.string().trim().min(3).max(200)).max(50),
})
