import type { Role } from '#shared/api/people'
import type { Power, Right } from '#shared/api/sharing'

/** What a role is called, and what it may do. */
export const ROLE_NAMES: Record<Role, string> = { member: 'Member', maker: 'Maker', admin: 'Admin' }
export const ROLE_ABOUT: Record<Role, string> = {
  member: 'A member works with what is shared with them.',
  maker: 'A maker makes forms and shared lists.',
  admin: 'An admin also keeps people, teams and the record.',
}

/** What a right to a form is called, and what it allows. */
export const RIGHT_NAMES: Record<Right, string> = {
  own: 'Own',
  design: 'Design',
  suggest: 'Suggest',
  release: 'Release',
  responses: 'See responses',
  act: 'Take turns',
}
export const RIGHT_ABOUT: Record<Right, string> = {
  own: 'everything, and sharing and deleting it',
  design: 'write the form, and decide about what is suggested',
  suggest: 'look at it, remark on its rows and propose changes',
  release: 'look at it and release it',
  responses: 'look at it and see its responses and their files',
  act: 'take turns that are open, and nothing else',
}

/** What may be said of what somebody may do with a form, where it is not everything. */
export function sayPowers(powers: readonly Power[]): string {
  if (powers.includes('design')) return ''
  return powers.includes('suggest') ? 'you may suggest' : 'you may look'
}

const BROWSERS: readonly (readonly [string, RegExp])[] = [
  ['Edge', /Edg\//],
  ['Opera', /OPR\//],
  ['Firefox', /Firefox\//],
  ['Chromium', /Chrom(?:e|ium)\//],
  ['Safari', /Safari\//],
]
const SYSTEMS: readonly (readonly [string, RegExp])[] = [
  ['Android', /Android/],
  ['iOS', /iPhone|iPad/],
  ['Windows', /Windows/],
  ['macOS', /Mac OS X/],
  ['Linux', /Linux/],
]
const nameIn = (names: readonly (readonly [string, RegExp])[], agent: string) =>
  names.find(([, sign]) => sign.test(agent))?.[0]

/** A browser as people call it, by what it says that it is. */
export function browserName(agent: string): string {
  const [browser, system] = [nameIn(BROWSERS, agent), nameIn(SYSTEMS, agent)]
  if (browser && system) return `${browser} on ${system}`
  return browser ?? system ?? 'Another program'
}
