import { standpointAtEnd } from '../form/scope'
import type { Filled } from './frame'
import { quotedText } from './quote'

/** What is said when the response has been sent, and where the browser goes then. */
export interface ClosingMessage {
  title: string
  text: string
  forward: string | null
}

/** What is said where the form says nothing of its own. */
export const PLAIN_CLOSING: ClosingMessage = {
  title: 'Thank you',
  text: 'Your answers have been sent.',
  forward: null,
}

/** The closing of a response: the one that the route taken names, else the first whose condition is true. Quotes in an address are escaped for it. */
export function findClosingMessage(filled: Filled): ClosingMessage {
  const { plan } = filled
  const named =
    filled.closing === null ? undefined : plan.closings.find(c => c.closing.code === filled.closing)
  const found = named ?? plan.closings.find(c => c.when === null || c.when.run(filled.values) === true)
  if (!found) return PLAIN_CLOSING
  const stand = standpointAtEnd(plan.form)
  const { title, text, forward } = found.closing
  return {
    title: title === undefined ? PLAIN_CLOSING.title : quotedText(filled, title, stand),
    text: text === undefined ? PLAIN_CLOSING.text : quotedText(filled, text, stand),
    forward: forward ?? null,
  }
}
