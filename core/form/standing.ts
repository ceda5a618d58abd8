import { numberFromDouble } from '../expressions/decimal'
import { NUMBER, TEXT, type Context, type ValueType } from '../expressions/types'

/** The standing values by name and member, with their types: what texts may quote without a question. */
const STANDING = {
  form: { title: TEXT, code: TEXT },
  release: { number: NUMBER },
  response: { number: NUMBER, link: TEXT, pay: TEXT },
  party: { name: TEXT },
  team: { name: TEXT },
  workspace: { name: TEXT, address: TEXT },
} as const satisfies Record<string, Record<string, ValueType>>

export type StandingName = keyof typeof STANDING
type Member<N extends StandingName> = keyof (typeof STANDING)[N]
/** What the standing values are for one response; what is left out, or null, is not known there and blank. */
export type Standing = { [N in StandingName]?: { [M in Member<N>]?: string | number | null } }

/** What a standing value says in menus and messages. */
const STANDING_WORDS: { [N in StandingName]: Record<Member<N>, string> } = {
  form: { title: 'the form’s title', code: 'the form’s code' },
  release: { number: 'the number of the release' },
  response: {
    number: 'the number of the response',
    link: 'the link to the response',
    pay: 'the link at which it is paid',
  },
  party: { name: 'the name of the party whose turn it is' },
  team: { name: 'the team whose turn it is' },
  workspace: { name: 'the name of the workspace', address: 'the address of the workspace' },
}

/** The names, in the order of their slots. */
export const STANDING_NAMES = Object.keys(STANDING).filter(isStandingName)

/** Whether a name is that of standing values. A question with that code goes before. */
export function isStandingName(name: string): name is StandingName {
  return Object.hasOwn(STANDING, name)
}

/** The type of a standing name: what its members are. */
export const standingType = (name: StandingName): ValueType => ({
  kind: 'context',
  members: new Map(Object.entries(STANDING[name])),
})

/** Every standing value as it is quoted, `workspace.name`, with what it says. */
export const listStanding = (): { source: string; words: string }[] =>
  STANDING_NAMES.flatMap(name =>
    Object.entries(STANDING_WORDS[name]).map(([member, words]) => ({ source: `${name}.${member}`, words })),
  )

/** Those of the standing values that some text of a form may quote: the others need not be told. */
export function standingQuotedIn(form: object, standing: Standing): Standing {
  return Object.fromEntries([...standingNamesIn(form)].map(name => [name, standing[name] ?? {}]))
}

const QUOTED = new WeakMap<object, ReadonlySet<StandingName>>()
/** The names of standing values that some text of a form may quote. */
export function standingNamesIn(form: object): ReadonlySet<StandingName> {
  const known = QUOTED.get(form)
  if (known) return known
  const text = JSON.stringify(form)
  const isQuoted = (name: string) => new RegExp(`\\{\\{[^}]*\\b${name}\\b`).test(text)
  const found = new Set(STANDING_NAMES.filter(isQuoted))
  QUOTED.set(form, found)
  return found
}

/** The values of one name as expressions read them. */
export function standingContext(standing: Standing, name: StandingName): Context {
  const given: Record<string, string | number | null | undefined> = standing[name] ?? {}
  return Object.fromEntries(Object.keys(STANDING[name]).map(member => [member, asValue(given[member])]))
}

function asValue(value: string | number | null | undefined) {
  if (typeof value === 'number') return numberFromDouble(value)
  return value === undefined || value === '' ? null : value
}
