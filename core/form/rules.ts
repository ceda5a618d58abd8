import type { Form, Turn } from './definition'
import type { Edit } from './edits'
import { outline, type Place } from './walk'

type HandOff = NonNullable<Turn['handOff']>[number]
export type RuleKind =
  | 'shownWhen'
  | 'required'
  | 'validWhen'
  | 'readOnly'
  | 'default'
  | 'value'
  | 'narrowedBy'
  | 'option'
  | 'route'
  | 'closing'
  | 'handOff'
  | 'promise'

/** A rule of a form: its text and where it acts. */
export interface Rule {
  /** Stable within one state of the form: `item/hull:shownWhen`, `item/loa:validWhen:0`, `section/boat:route:1`. */
  id: string
  kind: RuleKind
  place: Place
  /** Which of several checks, options or routes; 0 for the others. */
  index: number
  text: string
}

/** The verb of a rule's sentence: “Shown when …”. */
export const RULE_WORDS: Record<RuleKind, string> = {
  shownWhen: 'Shown when',
  required: 'Required when',
  validWhen: 'Valid when',
  readOnly: 'Read-only when',
  default: 'Begins with',
  value: 'Is',
  narrowedBy: 'Offers rows where',
  option: 'Offered when',
  route: 'Leads on when',
  closing: 'Closes so when',
  handOff: 'Handed off when',
  promise: 'Promises that',
}
/** What a rule's text is: a condition, or an expression that gives a value. */
export const isCondition = (kind: RuleKind): boolean => kind !== 'default' && kind !== 'value'

/** Every rule of a form, in the order of the form. Rules of closings, hand-offs and promises, which may use every question, stand with the last section. */
export function rulesOf(form: Form, places: readonly Place[] = outline(form)): Rule[] {
  const place = places.findLast(p => p.kind === 'section')
  if (!place) return []
  const atEnd = (kind: RuleKind, texts: readonly (string | undefined)[]) =>
    texts.flatMap((text, index): Rule[] =>
      text === undefined ? [] : [{ id: ruleId(place, kind, index), kind, place, index, text }],
    )
  return [
    ...places.flatMap(rulesAt),
    ...atEnd(
      'closing',
      (form.closings ?? []).map(c => c.when),
    ),
    ...atEnd(
      'handOff',
      handOffs(form).map(h => h.when),
    ),
    ...atEnd(
      'promise',
      (form.promises ?? []).map(p => p.holds),
    ),
  ]
}

/** Every hand-off rule of a form, turn by turn: a rule's `index` counts in this list. */
export const handOffs = (form: Form): NonNullable<Turn['handOff']> =>
  (form.turns ?? []).flatMap(t => t.handOff ?? [])

function withHandOff(form: Form, index: number, changed: (handOff: HandOff) => HandOff): Form['turns'] {
  let at = -1
  return form.turns?.map(t =>
    t.handOff ? { ...t, handOff: t.handOff.map(h => ((at += 1) === index ? changed(h) : h)) } : t,
  )
}

/** The rules that stand at one place. */
export function rulesAt(place: Place): Rule[] {
  const rules: Rule[] = []
  const add = (kind: RuleKind, text: string | true | undefined, index = 0) => {
    if (typeof text === 'string') rules.push({ id: ruleId(place, kind, index), kind, place, index, text })
  }
  const { node } = place
  add('shownWhen', node.shownWhen)
  if ('value' in node) add('value', node.value)
  if ('required' in node) add('required', node.required)
  if ('validWhen' in node) node.validWhen?.forEach((check, i) => add('validWhen', check.rule, i))
  if ('readOnly' in node) add('readOnly', node.readOnly)
  if ('default' in node) add('default', node.default)
  if ('narrowedBy' in node) add('narrowedBy', node.narrowedBy)
  if ('options' in node)
    node.options?.forEach((o, i) => {
      if ('shownWhen' in o && typeof o.shownWhen === 'string') add('option', o.shownWhen, i)
    })
  if ('routes' in node) node.routes?.forEach((route, i) => add('route', route.when, i))
  return rules
}

const INDEXED: ReadonlySet<RuleKind> = new Set([
  'validWhen',
  'option',
  'route',
  'closing',
  'handOff',
  'promise',
])
export const ruleId = (place: Place, kind: RuleKind, index = 0): string =>
  INDEXED.has(kind) ? `${place.address}:${kind}:${index}` : `${place.address}:${kind}`

/** The edit that gives a rule another text; null takes the rule away (a check and a route's condition with it). */
export function withRule(
  form: Form,
  rule: Pick<Rule, 'kind' | 'place' | 'index'>,
  text: string | null,
): Edit {
  const {
    place: { node, address },
    kind,
    index,
  } = rule
  const at = <T>(list: readonly T[] | undefined, changed: (item: T) => T) =>
    (list ?? []).map((item, i) => (i === index ? changed(item) : item))
  const without = <T extends object, K extends string>(item: T, key: K): T =>
    Object.fromEntries(Object.entries(item).filter(([k]) => k !== key)) as T
  const put = <T extends object>(item: T, key: string): T =>
    text === null ? without(item, key) : { ...item, [key]: text }
  if (kind === 'closing')
    return { do: 'change', what: 'form', set: { closings: at(form.closings, c => put(c, 'when')) } }
  if (kind === 'handOff')
    return { do: 'change', what: 'form', set: { turns: withHandOff(form, index, h => put(h, 'when')) } }
  if (kind === 'promise') {
    const promises =
      text === null
        ? form.promises?.filter((_, i) => i !== index)
        : at(form.promises, p => ({ ...p, holds: text }))
    return {
      do: 'change',
      what: 'form',
      set: { promises: promises && promises.length > 0 ? promises : null },
    }
  }
  if (kind === 'validWhen' && 'validWhen' in node) {
    const checks =
      text === null
        ? node.validWhen?.filter((_, i) => i !== index)
        : at(node.validWhen, c => ({ ...c, rule: text }))
    return { do: 'change', what: address, set: { validWhen: checks && checks.length > 0 ? checks : null } }
  }
  if (kind === 'option' && 'options' in node)
    return {
      do: 'change',
      what: address,
      set: { options: (node.options ?? []).map((o, i) => (i === index ? put(o, 'shownWhen') : o)) },
    }
  if (kind === 'route' && 'routes' in node)
    return { do: 'change', what: address, set: { routes: at(node.routes, r => put(r, 'when')) } }
  return { do: 'change', what: address, set: { [kind]: text } }
}
