import { listsOf } from '../form/transform'
import type { Form } from '../form/definition'
import { listNames } from '../form/listNames'
import { listPlaces, placeName, type Address, type Place } from '../form/walk'
import { type Accepted, closureOf, digestOf, riskBasis } from './acceptance'
import type { Finding } from './finding'

/** So many places are told apart in what an acceptance keeps; of more, only their sections. */
const MOST_TOLD_APART = 100

/** What a finding rests on besides places and lists, and how it is called. */
const OTHERS = {
  order: 'where things stand',
  turns: 'the turns',
  parties: 'the parties',
  promises: 'the promises',
} as const
const isOther = (name: string): name is keyof typeof OTHERS => name in OTHERS

/**
 * What is kept of a finding when it is accepted: the state of everything that it rests on (`riskBasis`), and behind it, each after a blank,
 * the parts by name with the state of each, so that it can be told later what has changed.
 */
export function acceptanceBasis(
  form: Form,
  finding: Pick<Finding, 'address'>,
  places: readonly Place[] = listPlaces(form),
): string {
  const parts = [...partsOf(form, finding, places)].map(([name, state]) => `${name}=${state}`)
  return [riskBasis(form, finding, places), ...parts].join(' ')
}

/**
 * Why an acceptance fell away, in a sentence: what of all that the finding rests on has changed since, by its name.
 * @param accepted what was kept when it was accepted; where that does not tell parts, the sentence doesn't either
 */
export function sayWhyFallen(
  form: Form,
  finding: Pick<Finding, 'address'>,
  accepted: Pick<Accepted, 'basis'>,
  places: readonly Place[] = listPlaces(form),
): string {
  const before = new Map(
    accepted.basis
      .split(' ')
      .slice(1)
      .map(part => splitLast(part)),
  )
  const now = partsOf(form, finding, places)
  const called = (name: string) => nameOfPart(name, form, places)
  const changed = [...now].filter(([name, state]) => before.has(name) && before.get(name) !== state)
  const more = [...now.keys()].filter(name => !before.has(name))
  const gone = [...before.keys()].filter(name => !now.has(name))
  const told = [
    changed.length > 0 ? `${listNames(changed.map(([name]) => called(name)))} changed` : null,
    more.length > 0 ? `it came to rest on ${listNames(more.map(called))} too` : null,
    gone.length > 0 ? `it ceased to rest on ${listNames(gone.map(called))}` : null,
  ].filter(part => part !== null)
  const what = before.size === 0 || told.length === 0 ? 'something that it rests on changed' : told.join('; ')
  return `Since then ${what}: it has to be looked at again.`
}

const splitLast = (part: string): [string, string] => {
  const at = part.lastIndexOf('=')
  return [part.slice(0, at), part.slice(at + 1)]
}

/** The parts that a finding rests on, each with a digest of its state; words for people don't count. */
function partsOf(
  form: Form,
  finding: Pick<Finding, 'address'>,
  places: readonly Place[],
): Map<string, string> {
  const start = places.find(p => p.address === finding.address)
  const taken = start ? closureOf(start, places) : places
  const parts = new Map<string, string>()
  for (const [name, of] of placesByName(form, taken))
    parts.set(name, digestOf(of.map(p => withoutItems(p.node))))
  const others: Readonly<Record<keyof typeof OTHERS, unknown>> = {
    order: taken.map(p => [p.address, p.section, p.groups.map(g => g.address)]),
    turns: form.turns,
    parties: form.parties,
    promises: form.promises?.map(q => q.holds),
  }
  for (const [name, what] of Object.entries(others)) parts.set(name, digestOf(what ?? null))
  const lists = new Set(taken.flatMap(p => listsOf(p.node)))
  for (const { code, columns, rows } of form.lists ?? [])
    if (!start || lists.has(code)) parts.set(`list/${code}`, digestOf([columns, rows]))
  return parts
}

/** What stands in a section or group is a part of its own. */
const withoutItems = (node: object) => ({ ...node, items: undefined })

/** Places by the name that their part has: their address, or that of their section where there are many. */
function placesByName({ sections }: Form, taken: readonly Place[]): Map<Address, Place[]> {
  const byName = new Map<Address, Place[]>()
  for (const place of taken) {
    const section = sections[place.section]
    const name: Address =
      taken.length > MOST_TOLD_APART && section ? `section/${section.code}` : place.address
    byName.set(name, [...(byName.get(name) ?? []), place])
  }
  return byName
}

function nameOfPart(name: string, form: Form, places: readonly Place[]): string {
  if (isOther(name)) return OTHERS[name]
  const [kind = '', code = ''] = name.split('/')
  if (kind === 'list') return `the list “${form.lists?.find(l => l.code === code)?.title ?? code}”`
  const place = places.find(p => p.address === name)
  return `“${place ? placeName(place) : code}”`
}
