import { isOfForm, type RuleKind } from '../../form/rules'
import type { PlannedCheck } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { ConflictPart } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { quotedName } from './check'

/** What a rule is called in a sentence: “the check of “Length””. */
const NOUNS: Record<RuleKind | 'place' | 'limits', string> = {
  shownWhen: 'the rule',
  required: 'what is required',
  validWhen: 'the check',
  bound: 'the limit',
  readOnly: 'the lock',
  default: 'the beginning',
  value: 'the calculation',
  narrowedBy: 'the narrowing',
  option: 'the choices',
  skip: 'the skip',
  route: 'the routes',
  closing: 'the closing',
  handOff: 'the hand-offs',
  promise: 'the promise',
  delivery: 'what is done by itself',
  payment: 'the payment',
  document: 'the document',
  place: 'what is asked',
  limits: 'the limits',
}
/** So many rules are named; more are counted. */
const MOST_NAMED = 2

/** Rules in a sentence, by what they are and where they stand; many are only counted. */
export function namedRules({ model }: Inquiry, parts: readonly ConflictPart[]): string {
  const names = parts.map(part => {
    if (part.kind !== 'closing' && isOfForm(part.kind)) return NOUNS[part.kind]
    const place = model.plan.places.find(p => p.address === part.address)
    return `${NOUNS[part.kind]} of ${place ? quotedName(place) : `“${part.code}”`}`
  })
  const different = [...new Set(names)]
  if (different.length > MOST_NAMED) return `${parts.length} other rules`
  return different.join(' and ')
}

/** A check or limit in a sentence, at its beginning or not: told apart by its number where a place has several. */
export function namedCheck(
  place: Place,
  { kind, index }: Pick<PlannedCheck, 'kind' | 'index'>,
  begins = false,
): string {
  const the = begins ? 'The' : 'the'
  if (kind === 'bound') return `${the} ${index === 0 ? 'least' : 'most'} of ${quotedName(place)}`
  const count = 'validWhen' in place.node ? (place.node.validWhen?.length ?? 0) : 0
  if (count > 1) return `${begins ? 'Check' : 'check'} ${index + 1} of ${quotedName(place)}`
  return `${the} check of ${quotedName(place)}`
}
