import type { Form } from './definition'
import { withDelivery } from './deliveries'
import type { Edit } from './edits'
import type { Place } from './walk'

/** A text of a place that may quote answers: where in its node it stands. `entry`: it speaks from inside an entry of the group itself. */
export interface QuotingText {
  place: Place
  key: string
  index: number
  text: string
  entry: boolean
}

const PLAIN_KEYS = ['label', 'title', 'text', 'help', 'requiredMessage', 'patternMessage'] as const

/** Every text of a place that people read. */
export function textsAnywhere(place: Place): string[] {
  const record: Readonly<Record<string, unknown>> = { ...place.node }
  const texts = PLAIN_KEYS.map(key => record[key])
  if ('validWhen' in place.node) texts.push(...(place.node.validWhen ?? []).map(c => c.message))
  if ('messages' in place.node) texts.push(...Object.values(place.node.messages ?? {}))
  return texts.filter(text => typeof text === 'string')
}

/** Every text of a question that is shown as it stands: quotes do nothing in it. */
export function plainTextsAt({ node }: Place): string[] {
  const texts: unknown[] = []
  if ('unit' in node) texts.push(node.unit)
  if ('writeIn' in node) texts.push(node.writeIn)
  if ('placeholder' in node) texts.push(node.placeholder)
  if ('type' in node && node.type === 'scale') texts.push(node.low, node.middle, node.high)
  if ('notApplicable' in node) texts.push(node.notApplicable)
  if ('table' in node) texts.push(node.table?.message)
  if ('options' in node) texts.push(...(node.options ?? []).map(o => o.label))
  if ('rows' in node) texts.push(...node.rows.map(r => r.label))
  if ('messages' in node) texts.push(...Object.values(node.messages ?? {}))
  return texts.filter(text => typeof text === 'string')
}

/** Every text of a place that may quote answers. */
export function textsAt(place: Place): QuotingText[] {
  const { node } = place
  const texts: QuotingText[] = []
  const add = (key: string, text: string | undefined, index = 0, entry = false) => {
    if (text?.includes('{{')) texts.push({ place, key, index, text, entry })
  }
  const record: Readonly<Record<string, unknown>> = { ...node }
  for (const key of PLAIN_KEYS) {
    const text = record[key]
    if (typeof text === 'string') add(key, text)
  }
  if ('validWhen' in node) node.validWhen?.forEach((c, i) => add('validWhen', c.message, i))
  if (place.kind === 'group') add('heading', place.node.repeat?.heading, 0, true)
  return texts
}

/** The edit that gives such a text other words. */
export function withText({ place, key, index }: QuotingText, text: string): Edit {
  const { node, address } = place
  if (key === 'validWhen' && 'validWhen' in node)
    return {
      do: 'change',
      what: address,
      set: { validWhen: node.validWhen?.map((c, i) => (i === index ? { ...c, message: text } : c)) },
    }
  if (key === 'heading' && place.kind === 'group')
    return { do: 'change', what: address, set: { repeat: { ...place.node.repeat, heading: text } } }
  return { do: 'change', what: address, set: { [key]: text } }
}

/** The deliveries with their texts rewritten, and the codes that they name. */
export const withDeliveryTexts = (
  form: Form,
  rewrite: Parameters<typeof withDelivery>[1],
): Form['deliveries'] => form.deliveries?.map(d => withDelivery(d, rewrite))

/** The payment with its text rewritten, and the code that it names. */
export const withPaymentTexts = (
  { payment }: Form,
  { text, code }: Parameters<typeof withDelivery>[1],
): Form['payment'] => payment && { ...payment, title: text(payment.title), amount: code(payment.amount) }

/** The closings with their texts rewritten. */
export const withClosingTexts = (form: Form, rewrite: (text: string) => string): Form['closings'] =>
  form.closings?.map(c => ({
    ...c,
    ...(c.title === undefined ? {} : { title: rewrite(c.title) }),
    ...(c.text === undefined ? {} : { text: rewrite(c.text) }),
  }))
