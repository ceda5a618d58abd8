import { boundsOf } from './bounds'
import type { Form } from './definition'
import type { Skip } from './fields'
import { FINISH } from './finish'
import type { Turn } from './turns'
import type { Edit } from './edits'
import { listPlaces, placeName, type Place } from './walk'

type HandOff = NonNullable<Turn['handOff']>[number]
export type RuleKind =
  | 'shownWhen'
  | 'required'
  | 'validWhen'
  | 'bound'
  | 'readOnly'
  | 'default'
  | 'value'
  | 'narrowedBy'
  | 'option'
  | 'skip'
  | 'route'
  | 'closing'
  | 'handOff'
  | 'promise'
  | 'delivery'
  | 'payment'
  | 'document'

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
  bound: 'Fits when',
  readOnly: 'Read-only when',
  default: 'Begins with',
  value: 'Is',
  narrowedBy: 'Offers rows where',
  option: 'Offered when',
  skip: 'Goes on when',
  route: 'Leads on when',
  closing: 'Closes so when',
  handOff: 'Handed off when',
  promise: 'Promises that',
  delivery: 'Done when',
  payment: 'To be paid when',
  document: 'Made when',
}
/** What a rule's text is: a condition, or an expression that gives a value. */
export const isCondition = (kind: RuleKind): boolean => kind !== 'default' && kind !== 'value'

/** Every rule of a form, in the order of the form. Rules of closings, hand-offs, promises, deliveries and the payment, which may use every question, stand with the last section. */
export function rulesOf(form: Form, places: readonly Place[] = listPlaces(form)): Rule[] {
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
    ...atEnd(
      'delivery',
      (form.deliveries ?? []).map(d => d.when),
    ),
    ...atEnd('payment', [form.payment?.when]),
    ...atEnd(
      'document',
      (form.documents ?? []).map(d => d.when),
    ),
  ]
}

/** What leads on from a place: the routes of a section, the skips of a question. */
export function exitsAt({ node }: Place): { kind: 'route' | 'skip'; exits: readonly Skip[] } {
  if ('routes' in node) return { kind: 'route', exits: node.routes ?? [] }
  return { kind: 'skip', exits: 'skips' in node ? (node.skips ?? []) : [] }
}

/** The exits that are always taken: routes and skips without a condition, as rules with an empty text. */
export function plainExits(places: readonly Place[]): Rule[] {
  return places.flatMap(place => {
    const { kind, exits } = exitsAt(place)
    return exits.flatMap((exit, index): Rule[] =>
      exit.when === undefined ? [{ id: ruleId(place, kind, index), kind, place, index, text: '' }] : [],
    )
  })
}

/** Where a route or skip leads, as it is called: the name of what stands there, or the finish. */
export function exitName(places: readonly Place[], { place, index }: Pick<Rule, 'place' | 'index'>): string {
  const { kind, exits } = exitsAt(place)
  const to = exits[index]?.to
  if (to === FINISH) return 'the finish'
  const address = kind === 'route' ? `section/${to}` : to
  const target = places.find(p => p.address === address)
  return target ? placeName(target) : (to ?? '')
}

/** The edit that takes an exit away. */
export function withoutExit({ place, index }: Pick<Rule, 'place' | 'index'>): Edit {
  const { kind, exits } = exitsAt(place)
  const left = exits.toSpliced(index, 1)
  return { do: 'change', what: place.address, set: { [`${kind}s`]: left.length > 0 ? left : null } }
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
  if (place.kind === 'question')
    for (const bound of boundsOf(place.node)) add('bound', bound.rule, bound.index)
  if ('readOnly' in node) add('readOnly', node.readOnly)
  if ('default' in node) add('default', node.default)
  if ('narrowedBy' in node) add('narrowedBy', node.narrowedBy)
  if ('options' in node)
    node.options?.forEach((o, i) => {
      if ('shownWhen' in o && typeof o.shownWhen === 'string') add('option', o.shownWhen, i)
    })
  const { kind, exits } = exitsAt(place)
  exits.forEach((exit, i) => add(kind, exit.when, i))
  return rules
}

const INDEXED: ReadonlySet<RuleKind> = new Set([
  'validWhen',
  'bound',
  'option',
  'skip',
  'route',
  'closing',
  'handOff',
  'promise',
  'delivery',
  'document',
])
export const ruleId = (place: Place, kind: RuleKind, index = 0): string =>
  INDEXED.has(kind) ? `${place.address}:${kind}:${index}` : `${place.address}:${kind}`

/** The edit that gives a rule another text; null takes the rule away (a check and a route's condition with it). */
export function withRule(
  form: Form,
  rule: Pick<Rule, 'kind' | 'place' | 'index'>,
  text: string | null,
): Edit {
  const { place, kind, index } = rule
  if (isOfForm(kind)) return { do: 'change', what: 'form', set: changedInForm(form, kind, index, text) }
  return { do: 'change', what: place.address, set: changedAtPlace(place, kind, index, text) }
}

const OF_FORM = ['closing', 'handOff', 'promise', 'delivery', 'payment', 'document'] as const
type FormRuleKind = (typeof OF_FORM)[number]
/** Whether a rule is of the form as a whole: it stands with the last section, and decides nothing of what is asked. */
export const isOfForm = (kind: string): kind is FormRuleKind => OF_FORM.some(k => k === kind)

function changedInForm(
  form: Form,
  kind: FormRuleKind,
  index: number,
  text: string | null,
): Record<string, unknown> {
  if (kind === 'closing') return { closings: changedAt(form.closings, index, c => withText(c, 'when', text)) }
  if (kind === 'delivery')
    return { deliveries: changedAt(form.deliveries, index, d => withText(d, 'when', text)) }
  if (kind === 'document')
    return { documents: changedAt(form.documents, index, d => withText(d, 'when', text)) }
  if (kind === 'payment') return { payment: form.payment ? withText(form.payment, 'when', text) : null }
  if (kind === 'handOff') return { turns: withHandOff(form, index, h => withText(h, 'when', text)) }
  return { promises: changedOrGone(form.promises, index, 'holds', text) }
}

function changedAtPlace(
  { node }: Place,
  kind: RuleKind,
  index: number,
  text: string | null,
): Record<string, unknown> {
  if (kind === 'validWhen' && 'validWhen' in node)
    return { validWhen: changedOrGone(node.validWhen, index, 'rule', text) }
  if (kind === 'bound') return changedBound(node, index, text)
  if (kind === 'option' && 'options' in node)
    return { options: changedAt<object>(node.options, index, o => withText(o, 'shownWhen', text)) }
  if (kind === 'skip' && 'skips' in node)
    return { skips: changedAt(node.skips, index, s => withText(s, 'when', text)) }
  if (kind === 'route' && 'routes' in node)
    return { routes: changedAt(node.routes, index, r => withText(r, 'when', text)) }
  return { [kind]: text }
}

/** A limit with the text of its check changed; what is no limit any more becomes a check. */
function changedBound(node: Place['node'], index: number, text: string | null): Record<string, unknown> {
  const key = index === 0 ? 'atLeast' : 'atMost'
  if (text === null) return { [key]: null }
  const sign = index === 0 ? '>=' : '<='
  const before = `${node.code} ${sign} `
  if (text.startsWith(before)) return { [key]: text.slice(before.length).replace(/^\((.*)\)$/s, '$1') }
  const checks = 'validWhen' in node ? (node.validWhen ?? []) : []
  return { [key]: null, validWhen: [...checks, { rule: text, message: '' }] }
}

/** A list with one item changed. */
const changedAt = <T>(items: readonly T[] | undefined, index: number, changed: (item: T) => T): T[] =>
  (items ?? []).map((item, i) => (i === index ? changed(item) : item))

/** A list with the text of one item changed, or without that item; null when none is left. */
function changedOrGone<T extends object>(
  items: readonly T[] | undefined,
  index: number,
  key: string,
  text: string | null,
): readonly T[] | null {
  const changed =
    text === null
      ? (items ?? []).filter((_, i) => i !== index)
      : changedAt(items, index, item => ({ ...item, [key]: text }))
  return changed.length > 0 ? changed : null
}

/** A thing with a text under a key, or without that key. */
function withText<T extends object>(item: T, key: string, text: string | null): T {
  const changed: T & Record<string, unknown> = { ...item, [key]: text }
  if (text === null) Reflect.deleteProperty(changed, key)
  return changed
}
