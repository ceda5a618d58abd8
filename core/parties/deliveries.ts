import { BOOLEAN } from '../expressions/types'
import { compile } from '../expressions/compile'
import type { Filled } from '../fill/frame'
import { describeFilled } from '../fill/describeResponse'
import { quotedText, quotedWith } from '../fill/quote'
import type { Delivery, DeliveryEvent, Recipient } from '../form/deliveries'
import type { Form } from '../form/definition'
import type { FormDocument } from '../form/documents'
import { standpointAtEnd } from '../form/scope'

/** Something that has happened to a response: handed on from which turn, or put into which tray. */
export interface Happening {
  event: DeliveryEvent
  turn?: string
  tray?: string
}

/** What is done by itself: what a form does so, and the documents that it makes. */
export type DoneByItself =
  Delivery | (Omit<Delivery, 'act'> & { act: { do: 'document'; document: FormDocument } })

/** Under what the making of a document is known among all that is done by itself: nothing else has such a code. */
export const runOfDocument = ({ code }: Pick<FormDocument, 'code'>): string => `document ${code}`

/** The documents of a form as what is done by itself: before all other, which may rest on them. Those that are signed are made by whoever signs. */
export const documentsMade = (form: Form): DoneByItself[] =>
  (form.documents ?? []).flatMap(document => {
    const { title, on, turn, when } = document
    if (on === 'signed') return []
    return { code: runOfDocument(document), title, on, turn, when, act: { do: 'document', document } }
  })

/** Whether a delivery is meant by what has happened, whatever its condition says. */
export const isOn = (
  { on, turn, tray }: Pick<Delivery, 'on' | 'turn' | 'tray'>,
  happening: Happening,
): boolean =>
  on === happening.event &&
  (turn === undefined || turn === happening.turn) &&
  (tray === undefined || tray === happening.tray)

/** Whether the condition of a delivery or payment holds; unknown does not, nor does what can’t be read. */
export function holds({ plan, values }: Filled, { when }: Pick<Delivery, 'when'>): boolean {
  if (when === undefined) return true
  const { expr } = plan.names.read(when, standpointAtEnd(plan.form), BOOLEAN)
  return expr !== null && compile(expr, plan.environment)(values) === true
}

/** What a form does by itself when something happens to a response, in its order. */
export const deliveriesOn = (filled: Filled, happening: Happening): Delivery[] =>
  (filled.plan.form.deliveries ?? []).filter(d => isOn(d, happening) && holds(filled, d))

/** The addresses that a recipient names in a response; `teams`: those of the people of a team, by its name. */
export function addressesOf(
  { plan, values }: Filled,
  to: Recipient,
  teams: ReadonlyMap<string, readonly string[]>,
): string[] {
  if ('addresses' in to) return to.addresses
  if ('team' in to) return [...(teams.get(to.team) ?? [])]
  const question = plan.byCode.get(to.answer)
  const value = question ? (values[question.slot] ?? null) : null
  return typeof value === 'string' && value.includes('@') ? [value] : []
}

/** A text of a delivery as it reads for a response. */
export const deliveredText = (filled: Filled, text: string): string =>
  quotedText(filled, text, standpointAtEnd(filled.plan.form))

/** The answers of a response, a line each, as they stand below a message. */
export const copyOfAnswers = (filled: Filled): string =>
  describeFilled(filled)
    .filter(line => line.state !== 'unasked' && line.type !== 'hidden')
    .map(line => `${line.label}: ${line.state === 'blank' ? 'left blank' : line.text}`)
    .join('\n')

/** The JSON that a template makes for a response: quotes stand in it as text, so that no answer can break out of its place. */
export const jsonFromTemplate = (filled: Filled, template: string): string =>
  quotedWith(filled, template, standpointAtEnd(filled.plan.form), quote => JSON.stringify(quote).slice(1, -1))
