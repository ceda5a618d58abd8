import { answersInPlay, type Filled } from '../fill/fill'
import type { Form } from '../form/definition'
import type { Question } from '../form/questions'
import type { Turn } from '../form/turns'

/** The code of the list of people that a choice is made from; null for all other questions. */
export function peopleListOf(form: Form, node: Question): string | null {
  if (node.type !== 'choice' || !('list' in node)) return null
  const list = form.lists?.find(l => l.code === node.list)
  return list?.people === undefined ? null : list.code
}

/** The teams of the workspace by name: the addresses of their people. */
export type TeamAddresses = ReadonlyMap<string, readonly string[]>

/** What is known about a response when one of its turns is opened. `before`: who had that turn last, of another response. */
export interface AtOpening {
  filled: Filled
  teams: TeamAddresses
  before: readonly string[]
}

/** The e-mail addresses of those who are to act in a turn; none where anyone with the link may, or where nobody is named. */
export function findActors({ by }: Turn, { filled, teams, before }: AtOpening): string[] {
  if (by === 'link') return []
  if ('person' in by) return [by.person]
  if ('answer' in by) return addressNamed(filled, by.answer)
  const all = 'team' in by ? by.team : (teams.get(by.people) ?? [])
  return by.rotate ? nextOf(all, before) : [...all]
}

/** The one whose turn it is, in a round of several: who comes after the one before. */
function nextOf(all: readonly string[], before: readonly string[]): string[] {
  const last = before.length === 1 ? all.indexOf(before[0] ?? '') : -1
  const next = all[(last + 1) % all.length]
  return next === undefined ? [] : [next]
}

/** The address that an answer names: itself, or that of the person who is chosen. */
function addressNamed(filled: Filled, code: string): string[] {
  const { form, byCode } = filled.plan
  const answer = answersInPlay(filled)[code]
  const node = byCode.get(code)?.place.node
  if (typeof answer !== 'string' || !node) return []
  if (node.type === 'email') return [answer]
  const people = peopleListOf(form, node)
  const row = form.lists?.find(l => l.code === people)?.rows.find(r => r.code === answer)
  return typeof row?.email === 'string' ? [row.email] : []
}
