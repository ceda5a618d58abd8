import { listsOf } from '../form/transform'
import { namesIn } from '../expressions/tree'
import type { Form } from '../form/definition'
import { rulesAt } from '../form/rules'
import { listPlaces, type Place } from '../form/walk'
import { ExpressionError, parseCached } from '../expressions/parse'
import type { Finding } from './finding'

/** A risk that somebody answers for, or an advice that somebody does not follow on purpose. `basis`: the state of what it rested on then (`acceptanceBasis`). */
export interface Accepted {
  key: string
  basis: string
  reason: string
  by: string
  at: string
}

/** Words for people: they can change without a rule, a decision or a risk becoming another. */
export const WORDS: ReadonlySet<string> = new Set([
  'label',
  'title',
  'help',
  'placeholder',
  'text',
  'message',
  'heading',
  'messages',
  'remark',
  'mark',
  'items',
  // How it is laid out.
  'columns',
  'span',
  'indent',
  'picture',
])

/** What keeps somebody from going on. */
const ON_THE_WAY: ReadonlySet<string> = new Set(['validWhen', 'bound'])

/** Tells a finding from all others of a form, in every proof of it. */
export const riskKey = (f: Pick<Finding, 'code' | 'address' | 'rule' | 'sentence'>): string =>
  `${f.code} ${f.address ?? f.sentence} ${f.rule ?? ''}`.trim()

/**
 * The state of everything that a finding rests on, as a short text: the thing it speaks of, what stands around it, the routes, and all that
 * their rules name, and so on. Words for people don't count. A finding that speaks of the form as a whole, or of a list, rests on all of it.
 */
export function riskBasis(
  form: Form,
  finding: Pick<Finding, 'address'>,
  places: readonly Place[] = listPlaces(form),
): string {
  const start = places.find(p => p.address === finding.address)
  const taken = start ? closureOf(start, places) : places
  const lists = new Set(taken.flatMap(p => listsOf(p.node)))
  return digestOf([
    taken.map(p => [p.address, p.section, p.groups.map(g => g.address), p.node]),
    form.turns,
    form.parties,
    form.promises?.map(q => q.holds),
    form.lists?.filter(l => !start || lists.has(l.code)).map(l => [l.code, l.columns, l.rows]),
  ])
}

/** A digest of what a part of a definition says, words for people left out. */
export const digestOf = (what: unknown): string =>
  digest(JSON.stringify(what, (key, value: unknown) => (WORDS.has(key) ? undefined : inOrder(value))))

/** A store may keep the keys of a record in another order than they were written in: it is the same record. */
const inOrder = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value

/** A place with all that decides about it, in the order of the form. */
export function closureOf(start: Place, places: readonly Place[]): Place[] {
  const byCode = new Map(places.map(p => [p.code, p]))
  const taken = new Set<Place>()
  const open: Place[] = [start]
  for (let place = open.pop(); place; place = open.pop()) {
    if (taken.has(place)) continue
    taken.add(place)
    const { section } = place
    // Whoever comes to a section has come by the routes and skips of those before it, and got through their checks.
    open.push(
      ...place.groups,
      ...places.filter(
        p =>
          p.section <= section &&
          (p.kind === 'section' || rulesAt(p).some(rule => ON_THE_WAY.has(rule.kind)) || 'skips' in p.node),
      ),
    )
    for (const rule of rulesAt(place)) {
      for (const name of namesRead(rule.text)) open.push(...[byCode.get(name)].filter(p => p !== undefined))
    }
  }
  return places.filter(p => taken.has(p))
}

/** The names in a rule; one that can't be read is a fault, and names nothing. */
function namesRead(text: string): readonly string[] {
  try {
    return namesIn(parseCached(text))
  } catch (error) {
    if (error instanceof ExpressionError) return []
    throw error
  }
}

/** A digest of 64 bits (FNV-1a with two bases, Fowler, Noll and Vo): equal states always give the same, others hardly ever. */
function digest(text: string): string {
  let [a, b] = [0x811c9dc5, 0xcbf29ce4]
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i)
    a = Math.imul(a ^ unit, 0x01000193)
    b = Math.imul(b ^ unit ^ (a >>> 16), 0x01000193)
  }
  return [a, b].map(n => (n >>> 0).toString(16).padStart(8, '0')).join('')
}

/** What somebody accepted of a finding; it stands as long as nothing it rests on has changed since. */
export interface Acceptance {
  accepted: Accepted
  stands: boolean
}

/** The acceptance of a finding, whether it still stands or has fallen away; null where nobody accepted it. */
export function findAcceptance(
  form: Form,
  finding: Finding,
  accepted: readonly Accepted[],
  places?: readonly Place[],
): Acceptance | null {
  const found = finding.severity === 'fault' ? undefined : accepted.find(a => a.key === riskKey(finding))
  if (!found) return null
  // Behind the first word stand the parts, by which it is told what has changed.
  return { accepted: found, stands: found.basis.split(' ', 1).join() === riskBasis(form, finding, places) }
}
