import type { Form } from '../../form/definition'
import { addressQuestion, type Delivery } from '../../form/deliveries'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import type { ReadRule } from '../model/readRule'
import { askedGoal, neverReached } from './askedAtEnd'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { example, section, whole } from './exampleForms'

const NEVER = { code: 'delivery-never', severity: 'risk' } as const
const ALWAYS = { code: 'delivery-always', severity: 'advice' } as const
const BLANK = { code: 'delivery-address-blank', severity: 'risk' } as const

const told: Delivery = {
  ...{ code: 'tell_crane', title: 'Tell the crane', on: 'done' },
  act: { do: 'tray', tray: 'Crane' },
}
const heavy = (when: string): Form => ({
  ...example(section('boat', [whole('tons', { min: 1, max: 30 })])),
  deliveries: [{ ...told, when }],
})
const confirmed = (required: true | undefined): Form => ({
  ...example(
    section('owner', [{ kind: 'question', type: 'email', code: 'mail', label: 'Your e-mail', required }]),
  ),
  deliveries: [
    {
      ...told,
      act: { do: 'message', to: { answer: 'mail' }, subject: 'Thank you', text: 'We have it.' },
    },
  ],
})

export const deliveryNever: Check = {
  ...NEVER,
  about: 'What is to be done by itself never is: its condition is never true when it is asked.',
  raises: heavy('tons > 40'),
  spares: heavy('tons > 10'),
  run: inquiry => lookAtEach(conditionsOf(inquiry), found => neverDone(inquiry, found)),
}

export const deliveryAlways: Check = {
  ...ALWAYS,
  about: 'What is done by itself has a condition that is always true: it can go.',
  raises: heavy('tons > 0'),
  spares: heavy('tons > 10'),
  run: inquiry => lookAtEach(conditionsOf(inquiry), found => alwaysDone(inquiry, found)),
}

export const deliveryAddressBlank: Check = {
  ...BLANK,
  about: 'A message goes to the address that an answer gives, which may be left blank: then nobody is told.',
  raises: confirmed(undefined),
  spares: confirmed(true),
  run: inquiry => lookAtEach(deliveriesOf(inquiry), found => blankAddress(inquiry, found)),
}

/** A delivery with its rule, and the turn that ends when it is asked; −1: the response is complete. */
interface Asked {
  delivery: Delivery
  index: number
  rule: ReadRule | null
  turn: number
}

/** Deliveries with where they are asked; those that any of several turns sets off are asked at the end. */
const deliveriesOf = ({ form, model }: Inquiry): Asked[] =>
  (form.deliveries ?? []).map((delivery, index) => ({
    delivery,
    index,
    rule: model.rules.find(r => r.kind === 'delivery' && r.index === index) ?? null,
    turn: model.turns.findIndex((t, i) =>
      delivery.on === 'sent' ? i === 0 : isEndOf(delivery, t.turn.code),
    ),
  }))

const isEndOf = ({ on, turn }: Delivery, code: string) => on === 'handedOn' && turn === code

const conditionsOf = (inquiry: Inquiry) => deliveriesOf(inquiry).filter(d => d.rule?.expr)

export const nameOf = ({ title, code }: Delivery) => `“${title || code}”, which is done by itself`

const goalOf = (inquiry: Inquiry, { delivery, index, rule, turn }: Asked, isTrue: boolean): Goal =>
  askedGoal(inquiry, { key: `delivery:${index}:${delivery.on}`, when: delivery.when, rule, turn }, isTrue)

function neverDone(inquiry: Inquiry, asked: Asked): Finding[] {
  const { rule } = asked
  if (!rule) return []
  return neverReached(inquiry, goalOf(inquiry, asked, true), {
    ...{ kind: NEVER, rule, own: [partAt(rule.place, 'delivery', rule.index)] },
    sentence: `${nameOf(asked.delivery)}, never is: its condition is not true in any case.`,
    question: `whether ${nameOf(asked.delivery)} is ever done`,
  })
}

function alwaysDone(inquiry: Inquiry, asked: Asked): Finding[] {
  const { rule } = asked
  if (!rule || inquiry.decide(goalOf(inquiry, asked, false), { aside: true }).is !== 'impossible') return []
  const sentence = `${nameOf(asked.delivery)}, always is: its condition is true in every case.`
  const conflict = [partAt(rule.place, 'delivery', rule.index)]
  return [finding(ALWAYS, null, sentence, { rule: rule.id, conflict })]
}

function blankAddress(inquiry: Inquiry, asked: Asked): Finding[] {
  const { model } = inquiry
  const code = addressQuestion(asked.delivery)
  const question = code === null ? undefined : model.plan.byCode.get(code)
  if (!question || question.place.entryOf || question.place.node.type !== 'email') return []
  const { place, slot } = question
  const fires = goalOf(inquiry, asked, true)
  const goal: Goal = {
    ...fires,
    key: `${fires.key}:blank:${place.code}`,
    at: place,
    names: [...fires.names, place.code],
    literals: space => [...fires.literals(space), space.encoding.variable(place.code).blank],
    holds: state => fires.holds(state) && (state.values[slot] ?? null) === null,
  }
  if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
  const witness = inquiry.witness(goal)
  if (witness === null) return []
  const sentence = `${nameOf(asked.delivery)}, goes to the address under ${quotedName(place)}, which may be blank then: nobody is told.`
  const conflict = [partAt(place, 'delivery', asked.index), partAt(place)]
  return [finding(BLANK, place, sentence, { conflict, witness })]
}
