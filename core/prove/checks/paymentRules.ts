import type { Form } from '../../form/definition'
import { standpointAtEnd } from '../../form/scope'
import type { Payment } from '../../form/payment'
import { amountPlaceOf, paymentDue } from '../../parties/payment'
import { namesIn } from '../../expressions/tree'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { askedGoal, neverReached } from './askedAtEnd'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text, whole } from './exampleForms'
import { undecidedFinding } from './undecided'

const AMOUNT = { code: 'payment-no-amount', severity: 'fault' } as const
const NEVER = { code: 'payment-never', severity: 'risk' } as const
const ALWAYS = { code: 'payment-always', severity: 'advice' } as const
const NOTHING = { code: 'payment-of-nothing', severity: 'risk' } as const

const berth = (payment: Partial<Payment>, value = 'nights * 12'): Form => ({
  ...example(
    section('stay', [
      text('boat'),
      whole('nights', { min: 1, max: 30, required: true }),
      { kind: 'question', type: 'value', code: 'fee', label: 'Fee', value, currency: 'EUR' },
    ]),
  ),
  payment: { amount: 'fee', title: 'Berth', ...payment },
})

export const paymentNoAmount: Check = {
  ...AMOUNT,
  about:
    'What is to be paid is no amount of money that the form knows once: no money question, and no calculation with a currency, outside repeating groups.',
  raises: berth({ amount: 'nights' }),
  spares: berth({}),
  run: ({ form: { payment }, model: { plan } }) => {
    if (!payment || amountPlaceOf(plan)) return []
    const sentence = `What is to be paid is the amount “${payment.amount}”, which is no question or calculation of money outside repeating groups.`
    return [finding(AMOUNT, null, sentence, { conflict: ownPart(plan) })]
  },
}

export const paymentNever: Check = {
  ...NEVER,
  about: 'What is to be paid at the end never is: its condition is not true in any case.',
  raises: berth({ when: 'nights > 40' }),
  spares: berth({ when: 'nights > 10' }),
  run: inquiry => {
    const rule = ruleOf(inquiry)
    if (!rule) return []
    return neverReached(inquiry, goalOf(inquiry, true), {
      ...{ kind: NEVER, rule, own: ownPart(inquiry.model.plan) },
      sentence: 'Nothing is ever to be paid: the condition of the payment is not true in any case.',
      question: 'whether anything is ever to be paid',
    })
  },
}

export const paymentAlways: Check = {
  ...ALWAYS,
  about: 'What is to be paid at the end has a condition that is always true: it can go.',
  raises: berth({ when: 'nights > 0' }),
  spares: berth({ when: 'nights > 10' }),
  run: inquiry => {
    const rule = ruleOf(inquiry)
    if (!rule || inquiry.decide(goalOf(inquiry, false), { aside: true }).is !== 'impossible') return []
    const sentence =
      'There is always something to be paid: the condition of the payment is true in every case.'
    return [finding(ALWAYS, null, sentence, { rule: rule.id, conflict: ownPart(inquiry.model.plan) })]
  },
}

export const paymentOfNothing: Check = {
  ...NOTHING,
  about:
    'The amount to be paid may be blank, or not above nothing, when it is asked for: then nobody is asked to pay.',
  raises: berth({}, '(nights - 3) * 12'),
  spares: berth({}),
  run: inquiry => nothingToPay(inquiry),
}

const ownPart = ({ sections }: Inquiry['model']['plan']) => {
  const place = sections.at(-1)?.place
  return place ? [partAt(place, 'payment')] : []
}
const ruleOf = ({ model }: Inquiry) => model.rules.find(r => r.kind === 'payment' && r.expr !== null) ?? null

function goalOf(inquiry: Inquiry, isTrue: boolean): Goal {
  const { payment } = inquiry.form
  return askedGoal(inquiry, { key: 'payment', when: payment?.when, rule: ruleOf(inquiry), turn: -1 }, isTrue)
}

/** Whether the amount can be blank, or not above nothing, where it is asked for; of one in a chosen currency nothing is said. */
function nothingToPay(inquiry: Inquiry): Finding[] {
  const { plan } = inquiry.model
  const place = amountPlaceOf(plan)
  if (!place || hasChosenCurrency(place)) return []
  const { expr } = plan.names.readQuote(`${place.code} > 0`, standpointAtEnd(inquiry.form))
  if (!expr) return []
  const asked = goalOf(inquiry, true)
  const goal: Goal = {
    ...asked,
    key: `${asked.key}:nothing:${place.code}`,
    names: [...asked.names, ...namesIn(expr)],
    literals: space => [...asked.literals(space), -space.encoding.truth(expr).t],
    holds: state => asked.holds(state) && paymentDue(state) === null,
  }
  const decision = inquiry.decide(goal)
  if (decision.is === 'undecided')
    return [undecidedFinding(place, 'whether there is always an amount to be paid', decision.why)]
  const witness = decision.is === 'possible' ? inquiry.witness(goal) : null
  if (witness === null) return []
  const sentence = `${quotedName(place)}, which is to be paid, may be blank or not above nothing: then nobody is asked to pay.`
  return [finding(NOTHING, place, sentence, { conflict: [...ownPart(plan), partAt(place)], witness })]
}

const hasChosenCurrency = ({ node }: Place): boolean => 'currencies' in node && node.currencies !== undefined
