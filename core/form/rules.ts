import type { Form } from './definition'
import { outline, type Place } from './walk'

export type RuleKind = 'shownWhen' | 'required' | 'validWhen' | 'route'

/** A rule of a form: its text and where it acts. */
export interface Rule {
  /** Stable within one state of the form: `item/hull:shownWhen`, `item/loa:validWhen:0`, `section/boat:route:1`. */
  id: string
  kind: RuleKind
  place: Place
  /** Which of several checks or routes; 0 for the others. */
  index: number
  text: string
}

/** The verb of a rule's sentence: “Shown when …”. */
export const RULE_WORDS: Record<RuleKind, string> = { shownWhen: 'Shown when', required: 'Required when', validWhen: 'Valid when', route: 'Leads on when' }

/** Every rule of a form, in the order of the form. */
export function rulesOf(form: Form): Rule[] {
  return outline(form).flatMap(rulesAt)
}

/** The rules that stand at one place. */
export function rulesAt(place: Place): Rule[] {
  const rules: Rule[] = []
  const add = (kind: RuleKind, text: string | undefined, index = 0) => {
    if (text !== undefined) rules.push({ id: ruleId(place, kind, index), kind, place, index, text })
  }
  add('shownWhen', place.node.shownWhen)
  if (place.kind === 'question') {
    if (place.node.required !== true) add('required', place.node.required)
    place.node.validWhen?.forEach((check, i) => add('validWhen', check.rule, i))
  }
  if (place.kind === 'section') place.node.routes?.forEach((route, i) => add('route', route.when, i))
  return rules
}

export const ruleId = (place: Place, kind: RuleKind, index = 0): string =>
  kind === 'validWhen' || kind === 'route' ? `${place.address}:${kind}:${index}` : `${place.address}:${kind}`
