import { z } from 'zod'
import { Code, Expression, Label, Text } from './fields'
import { LIMITS } from './limits'

/** On what something is done by itself: a response is sent, handed on from a turn, done, corrected, paid, or put into a tray. */
export const DELIVERY_EVENTS = ['sent', 'handedOn', 'done', 'corrected', 'paid', 'tray'] as const

const Address = z.email('an e-mail address is written name@wherry.example').max(200)
/** What goes with a message: the answers as a PDF, the files that the response holds, and its documents as PDF files. */
export const ATTACHED = ['copy', 'files', 'documents'] as const

/** To whom a message goes: some addresses, the address that an answer gives, or the people of a team of the workspace, by its name. */
export const Recipient = z.union([
  z.strictObject({ addresses: z.array(Address).min(1).max(LIMITS.team) }),
  z.strictObject({ answer: Code }),
  z.strictObject({ team: z.string().min(1).max(LIMITS.label) }),
])
/** Where a web hook leads. */
export const HookAddress = z
  .string()
  .max(500)
  .regex(/^https:\/\/[^\s/]+/, 'an address begins with https://')

/**
 * What is done: a message, whose texts may quote answers, with a copy of them below, and more attached; a web hook, which sends JSON, that of the answers as they are
 * stored or a template with quotes; the response is put into a tray; or a link to another form of the workspace goes out, with answers carried over
 * to its hidden questions.
 */
export const DeliveryAct = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('message'),
    to: Recipient,
    subject: Label,
    text: Text,
    copy: z.literal(true).optional(),
    attached: z.array(z.enum(ATTACHED)).min(1).max(ATTACHED.length).optional(),
  }),
  z.strictObject({ do: z.literal('hook'), address: HookAddress, body: Text.optional() }),
  z.strictObject({ do: z.literal('tray'), tray: z.string().min(1).max(80) }),
  z.strictObject({
    do: z.literal('nextForm'),
    form: Code,
    to: Recipient,
    text: Text,
    carry: z.record(Code, Code).optional(),
  }),
])

/** Something that is done by itself: on what (a turn or a tray narrows it down), when, and so many hours after. */
export const Delivery = z.strictObject({
  code: Code,
  title: Label,
  on: z.enum(DELIVERY_EVENTS),
  turn: Code.optional(),
  tray: z.string().min(1).max(80).optional(),
  when: Expression.optional(),
  after: z
    .int()
    .min(1)
    .max(24 * LIMITS.dueDays)
    .optional(),
  act: DeliveryAct,
})
export type Delivery = z.infer<typeof Delivery>
export type DeliveryAct = z.infer<typeof DeliveryAct>
export type Recipient = z.infer<typeof Recipient>
export type DeliveryEvent = (typeof DELIVERY_EVENTS)[number]

/** The texts of a delivery that may quote answers, by where they stand in its act. */
export function deliveryTexts({ act }: Delivery): { key: 'subject' | 'text' | 'body'; text: string }[] {
  switch (act.do) {
    case 'message':
      return [
        { key: 'subject', text: act.subject },
        { key: 'text', text: act.text },
      ]
    case 'nextForm':
      return [{ key: 'text', text: act.text }]
    case 'hook':
      return act.body === undefined ? [] : [{ key: 'body', text: act.body }]
    case 'tray':
      return []
  }
}

/** The answers that a delivery tells besides those that it quotes: all of them, those to questions for files, or none. */
export function toldBesides({ act }: Delivery): 'all' | 'files' | 'none' {
  if (act.do !== 'message') return 'none'
  if (act.copy || act.attached?.includes('copy')) return 'all'
  return act.attached?.includes('files') ? 'files' : 'none'
}

/** Whether a delivery takes the documents of the response along. */
export const attachesDocuments = ({ act }: Delivery): boolean =>
  act.do === 'message' && act.attached?.includes('documents') === true

/** The question that gives the address of a delivery; null where none does. */
export function addressQuestion({ act }: Delivery): string | null {
  if (act.do !== 'message' && act.do !== 'nextForm') return null
  return 'answer' in act.to ? act.to.answer : null
}

/** A delivery with its texts, and the codes that it names apart from them, rewritten. */
export function withDelivery(
  delivery: Delivery,
  { text, code }: { text: (text: string) => string; code: (code: string) => string },
): Delivery {
  const { act } = delivery
  switch (act.do) {
    case 'message':
      return {
        ...delivery,
        act: { ...act, to: toOf(act.to, code), subject: text(act.subject), text: text(act.text) },
      }
    case 'nextForm':
      return {
        ...delivery,
        act: { ...act, to: toOf(act.to, code), text: text(act.text), ...carried(act.carry, code) },
      }
    case 'hook':
      return act.body === undefined ? delivery : { ...delivery, act: { ...act, body: text(act.body) } }
    case 'tray':
      return delivery
  }
}

const toOf = (to: Recipient, code: (code: string) => string): Recipient =>
  'answer' in to ? { answer: code(to.answer) } : to

const carried = (carry: Record<string, string> | undefined, code: (code: string) => string) =>
  carry === undefined
    ? {}
    : { carry: Object.fromEntries(Object.entries(carry).map(([into, from]) => [into, code(from)])) }
