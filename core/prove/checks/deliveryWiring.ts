import { namesQuoted, placesTold } from '../../documents/seenBy'
import type { Form } from '../../form/definition'
import {
  addressQuestion,
  deliveryTexts,
  attachesDocuments,
  toldBesides,
  type Delivery,
} from '../../form/deliveries'
import { accessViewOf, maySee, mayFill } from '../../parties/access'
import { turnOf } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, quotedName } from './check'
import { nameOf } from './deliveryRules'
import { example, section, text } from './exampleForms'

const ADDRESS = { code: 'delivery-no-address', severity: 'fault' } as const
const TURN = { code: 'delivery-unknown-turn', severity: 'fault' } as const
const LEAK = { code: 'delivery-leak', severity: 'risk' } as const

const boat = section('boat', [
  text('owner'),
  text('berth_note', { officeOnly: true }),
  { kind: 'question', type: 'email', code: 'mail', label: 'Your e-mail', required: true },
])
const thanked = (more: Partial<Extract<Delivery['act'], { do: 'message' }>>, turn?: string): Form => ({
  ...example(boat),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard', office: true },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { boat: 'fills' } },
    { code: 'check', party: 'yard', by: 'link', access: { boat: 'reads', berth_note: 'fills' } },
  ],
  deliveries: [
    {
      ...{ code: 'thanks', title: 'Thank the owner', on: 'handedOn', turn },
      act: { do: 'message', to: { answer: 'mail' }, subject: 'Thank you', text: 'We have it.', ...more },
    },
  ],
})

export const deliveryNoAddress: Check = {
  ...ADDRESS,
  about:
    'A message goes to the address that an answer gives, and there is no such question of an e-mail address.',
  raises: thanked({ to: { answer: 'owner' } }),
  spares: thanked({}),
  run: ({ form, model: { plan } }) =>
    (form.deliveries ?? []).flatMap((delivery, index): Finding[] => {
      const code = addressQuestion(delivery)
      const question = code === null ? undefined : plan.byCode.get(code)
      const isAddress = question?.place.node.type === 'email' && question.place.entryOf === null
      if (code === null || isAddress) return []
      const sentence = `${nameOf(delivery)}, goes to the address under “${code}”, which is no question of an e-mail address.`
      return [finding(ADDRESS, null, sentence, { conflict: conflictAt(plan, index) })]
    }),
}

export const deliveryUnknownTurn: Check = {
  ...TURN,
  about: 'Something is done when a turn is handed on that the form does not have.',
  raises: thanked({}, 'survey'),
  spares: thanked({}, 'ask'),
  run: ({ form, model: { plan } }) =>
    (form.deliveries ?? []).flatMap((delivery, index): Finding[] => {
      if (delivery.turn === undefined || turnOf(form, delivery.turn)) return []
      const sentence = `${nameOf(delivery)}, waits for the turn “${delivery.turn}”, which there is not.`
      return [finding(TURN, null, sentence, { conflict: conflictAt(plan, index) })]
    }),
}

export const deliveryLeak: Check = {
  ...LEAK,
  about: 'A message to whoever gives an address tells an answer that they never see in the form.',
  raises: thanked({ text: 'Our note: {{ berth_note }}' }),
  spares: thanked({ text: 'Dear {{ owner }}' }),
  run: inquiry =>
    (inquiry.form.deliveries ?? []).flatMap((delivery, index) => leaksIn(inquiry, delivery, index)),
}

const conflictAt = ({ sections }: Inquiry['model']['plan'], index: number) => {
  const place = sections.at(-1)?.place
  return place ? [partAt(place, 'delivery', index)] : []
}

/** What a message to an answered address tells that whoever answers there never sees, in no turn of theirs. */
function leaksIn({ form, model: { plan } }: Inquiry, delivery: Delivery, index: number): Finding[] {
  const code = addressQuestion(delivery)
  const address = code === null ? undefined : plan.byCode.get(code)?.place
  if (!address) return []
  const turns = form.turns ?? []
  const views = (turns.length === 0 ? [null] : turns).map(turn => accessViewOf(form, plan.places, turn))
  const theirs = views.filter(view => mayFill(view, address))
  const quoted = deliveryTexts(delivery).flatMap(({ text: said }) => namesQuoted(plan, said))
  const besides = toldBesides(delivery)
  const whole = plan.questions.filter(
    q => besides === 'all' || (besides === 'files' && q.place.node.type === 'file'),
  )
  const inDocuments = attachesDocuments(delivery)
    ? (form.documents ?? []).flatMap(d => placesTold(plan, d))
    : []
  const told = [...quoted, ...whole.map(q => q.place.code), ...inDocuments.map(place => place.code)]
  const hidden = [...new Set(told)].flatMap(name => {
    const place = plan.byCode.get(name)?.place
    return place && theirs.length > 0 && !theirs.some(view => maySee(view, place)) ? [place] : []
  })
  return hidden.map(place => {
    const sentence = `${nameOf(delivery)}, tells ${quotedName(place)} to whoever answers ${quotedName(address)}, who never sees it.`
    return finding(LEAK, place, sentence, { conflict: [partAt(place), ...conflictAt(plan, index)] })
  })
}
