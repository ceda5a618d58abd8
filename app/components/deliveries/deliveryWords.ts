import type { Delivery, DeliveryAct, DeliveryEvent, Recipient } from '#core/form/deliveries'

/** On what something is done, as it is chosen. */
export const EVENTS: readonly { value: DeliveryEvent; title: string }[] = [
  { value: 'sent', title: 'a response is sent' },
  { value: 'handedOn', title: 'a turn is handed on' },
  { value: 'done', title: 'a response is done' },
  { value: 'corrected', title: 'a response is corrected' },
  { value: 'tray', title: 'it comes into a tray' },
]

/** What can be done, as it is chosen. */
export const ACTS: readonly { value: DeliveryAct['do']; title: string }[] = [
  { value: 'message', title: 'a message is posted' },
  { value: 'hook', title: 'a web hook is called' },
  { value: 'tray', title: 'it is put into a tray' },
  { value: 'nextForm', title: 'a link to another form is posted' },
]

const START = { message: 'We have your answers.', nextForm: 'There is one more form to fill.' }

/** What a newly chosen act begins with; a recipient is kept. */
export function newAct(
  kind: DeliveryAct['do'],
  before: DeliveryAct | null,
  email: string | null,
): DeliveryAct {
  const first: Recipient = email === null ? NOBODY : { answer: email }
  const to = before && 'to' in before ? before.to : first
  switch (kind) {
    case 'message':
      return { do: 'message', to, subject: 'Thank you', text: START.message }
    case 'hook':
      return { do: 'hook', address: 'https://receiver.example/' }
    case 'tray':
      return { do: 'tray', tray: 'New' }
    case 'nextForm':
      return { do: 'nextForm', form: 'form', to, text: START.nextForm }
  }
}
const NOBODY: Recipient = { addresses: ['office@wherry.example'] }

/** What is done by itself, as a sentence without its condition. */
export function sayDelivery(
  { on, turn, tray, after, act }: Delivery,
  nameOf: (code: string) => string,
  turnOf: (code: string) => string,
): string {
  const happens: Record<DeliveryEvent, string> = {
    sent: 'a response is sent',
    handedOn: turn === undefined ? 'a turn is handed on' : `“${turnOf(turn)}” is handed on`,
    done: 'a response is done',
    corrected: 'a response is corrected',
    paid: 'a response is paid',
    tray: tray === undefined ? 'it comes into a tray' : `it comes into “${tray}”`,
  }
  const later = after === undefined ? '' : `, ${after} ${after === 1 ? 'hour' : 'hours'} after`
  return `When ${happens[on]}${later}: ${sayAct(act, nameOf)}`
}

function sayAct(act: DeliveryAct, nameOf: (code: string) => string): string {
  switch (act.do) {
    case 'message':
      return `“${act.subject}” goes to ${sayRecipient(act.to, nameOf)}`
    case 'hook':
      return `${act.address} is called`
    case 'tray':
      return `it is put into “${act.tray}”`
    case 'nextForm':
      return `a link to “${act.form}” goes to ${sayRecipient(act.to, nameOf)}`
  }
}

function sayRecipient(to: Recipient, nameOf: (code: string) => string): string {
  if ('addresses' in to) return to.addresses.join(', ')
  return 'team' in to ? `the team “${to.team}”` : `the address under “${nameOf(to.answer)}”`
}

/** What can be chosen, and what is chosen though it is not there. */
export function withNamed(
  known: readonly { value: string; title: string }[],
  named: string,
): { value: string; title: string }[] {
  if (known.some(k => k.value.toLowerCase() === named.toLowerCase())) return [...known]
  return [...known, { value: named, title: `${named} (not found)` }]
}
