import { z } from 'zod'
import { freeCode, takenCodes } from './codes'
import { Item, Section, type Form } from './definition'
import { FINISH } from './finish'
import { ChoiceList } from './choiceLists'
import { LIMITS } from './limits'
import { applyEdit, locate, type Edit } from './edits'
import { namesUsed } from './threads'
import { codesIn, listsIn, recoded } from './transform'
import { listPlaces, type Address, type Place, nodeText } from './walk'

/** What is copied from a form: sections or items, with the lists they use. It travels as JSON, so between forms and windows too. */
export const Clip = z.strictObject({
  tobbinClip: z.literal(1),
  nodes: z
    .array(z.union([Section, Item]))
    .min(1)
    .max(2_000),
  lists: z.array(ChoiceList).max(500),
})
export type Clip = z.infer<typeof Clip>

/** Copies what stands at some addresses; what stands inside another of them goes with that one. */
export function clipOf(form: Form, places: readonly Place[], addresses: readonly Address[]): Clip | null {
  const chosen = places.filter(p => addresses.includes(p.address))
  const outermost = chosen.filter(p => !chosen.some(other => other !== p && isInside(p, other)))
  const nodes = outermost.map(p => p.node)
  if (nodes.length === 0) return null
  const lists = new Set(nodes.flatMap(listsIn))
  return { tobbinClip: 1, nodes, lists: (form.lists ?? []).filter(l => lists.has(l.code)) }
}

const isInside = (place: Place, other: Place) =>
  other.kind === 'section'
    ? place.section === other.section
    : other.kind === 'group' && place.groups.some(g => g.order === other.order)

/** Reads a clip from text; null when it is none. */
export function readClip(text: string): Clip | null {
  if (!text.startsWith('{')) return null
  try {
    const read = Clip.safeParse(JSON.parse(text))
    return read.success ? read.data : null
  } catch {
    return null // some other text
  }
}

/** Where pasted items go: a container and a position in it. */
export interface Spot {
  into: string
  at: number
}
export interface Pasting {
  edits: Edit[]
  addresses: Address[]
  /** What could not be pointed at anything here. */ notes: string[]
}

/**
 * The edits that paste a clip. Codes are kept free of clashes; rules, routes and quotes inside the copy are pointed at the copy, others at
 * the questions of that code in this form; what this form does not have is said.
 */
export function pasteEdits(form: Form, clip: Clip, spot: Spot, sectionAt: number): Pasting {
  const taken = takenCodes(form, 'item')
  const codes = new Map(
    clip.nodes.flatMap(codesIn).map(code => {
      const free = freeCode(code, taken)
      taken.add(free)
      return [code, free] as const
    }),
  )
  const takenSections = takenCodes(form, 'section')
  const sections = new Map<string, string>()
  for (const node of clip.nodes) {
    if ('kind' in node) continue
    const free = freeCode(node.code, takenSections)
    takenSections.add(free)
    sections.set(node.code, free)
  }
  const { lists, edits } = broughtLists(form, clip)
  const nodes = clip.nodes.map(node => {
    const copy = recoded(node, codes, sections, lists)
    return 'kind' in copy ? copy : { ...copy, code: sections.get(node.code) ?? node.code }
  })
  const known = new Set([...takenCodes(form, 'item'), ...codes.values()])
  const notes = nodes.flatMap(node => unknownNames(node, known, new Set([...takenSections])))
  const addresses: Address[] = []
  let [items, tops] = [spot.at, sectionAt]
  for (const node of nodes) {
    edits.push(
      'kind' in node
        ? { do: 'insert', into: spot.into, at: items++, node }
        : { do: 'insert', into: 'sections', at: tops++, node },
    )
    addresses.push(`${'kind' in node ? 'item' : 'section'}/${node.code}`)
  }
  return { edits, addresses, notes: [...new Set(notes)] }
}

/** A list that this form has already is used as it is; another of the same code comes along under a free one. */
function broughtLists(form: Form, clip: Clip): { lists: Map<string, string>; edits: Edit[] } {
  const lists = new Map<string, string>()
  const edits: Edit[] = []
  const own = form.lists ?? []
  const taken = new Set(own.map(l => l.code))
  for (const list of clip.lists) {
    const same = own.find(l => l.code === list.code)
    if (same && JSON.stringify(same) === JSON.stringify(list)) continue
    const code = freeCode(list.code, taken)
    taken.add(code)
    lists.set(list.code, code)
    edits.push({ do: 'insert', into: 'lists', at: own.length + edits.length, node: { ...list, code } })
  }
  return { lists, edits }
}

const RULE_KEYS = ['shownWhen', 'required', 'value', 'default', 'atLeast', 'atMost'] as const

/** Names in a copy that mean nothing here, as sentences. */
function unknownNames(
  node: Section | Item,
  known: ReadonlySet<string>,
  sections: ReadonlySet<string>,
): string[] {
  const name = nodeText(node).text
  const names = ruleTexts(node).flatMap(namesUsed)
  const targets = 'routes' in node ? (node.routes?.map(r => r.to) ?? []) : []
  return [
    ...names
      .filter(used => !known.has(used))
      .map(used => `“${name}” names “${used}”, which this form does not have.`),
    ...targets
      .filter(to => to !== FINISH && !sections.has(to))
      .map(to => `“${name}” leads to the section “${to}”, which this form does not have.`),
    ...skipTargets(node)
      .filter(({ kind, code }) => !(kind === 'item' ? known : sections).has(code))
      .map(({ code }) => `“${name}” goes on at “${code}”, which this form does not have.`),
    ...('items' in node ? node.items.flatMap(i => unknownNames(i, known, sections)) : []),
  ]
}

/** Where a question's skips lead, but for the finish. */
const skipTargets = (node: Section | Item): { kind: string; code: string }[] =>
  ('skips' in node ? (node.skips ?? []) : []).flatMap(({ to }) => {
    const [kind = '', code = ''] = to.split('/')
    return to === FINISH ? [] : [{ kind, code }]
  })

/** The texts of a thing's own rules. */
function ruleTexts(node: Section | Item): string[] {
  const single = RULE_KEYS.map(key => (key in node ? Reflect.get(node, key) : undefined))
  const checks = 'validWhen' in node ? (node.validWhen?.map(c => c.rule) ?? []) : []
  const routes = 'routes' in node ? (node.routes?.map(r => r.when) ?? []) : []
  const skips = 'skips' in node ? (node.skips?.map(s => s.when) ?? []) : []
  return [...single, ...checks, ...routes, ...skips].filter(rule => typeof rule === 'string')
}

/** The edits that set a copy right behind each of some things. */
export function duplicateEdits(form: Form, places: readonly Place[], addresses: readonly Address[]): Pasting {
  const clip = clipOf(form, places, addresses)
  const last = places.findLast(p => addresses.includes(p.address))
  if (!clip || !last) return { edits: [], addresses: [], notes: [] }
  const found = locate(form, last.address)
  const titles = new Set(form.sections.map(s => s.title))
  const nodes = clip.nodes.map(n => ('kind' in n ? n : { ...n, title: freeTitle(n.title, titles) }))
  return pasteEdits(
    form,
    { ...clip, nodes },
    { into: found.container === 'sections' ? last.address : found.container, at: found.index + 1 },
    last.section + 1,
  )
}

/** A title of its own for the copy of a section: “Crew (2)”. It is taken then. */
function freeTitle(title: string, taken: Set<string>): string {
  const base = title.replace(/ \(\d{1,4}\)$/, '').slice(0, LIMITS.label - 7)
  let number = 2
  while (taken.has(`${base} (${number})`)) number += 1
  const free = `${base} (${number})`
  taken.add(free)
  return free
}

/** The edits that take out several things; what stands inside another of them goes with that one. */
export function removeEdits(form: Form, places: readonly Place[], addresses: readonly Address[]): Edit[] {
  const chosen = places.filter(p => addresses.includes(p.address))
  const edits: Edit[] = []
  // From the end, so that addresses of equal codes stay right.
  for (const place of chosen
    .filter(p => !chosen.some(other => other !== p && isInside(p, other)))
    .reverse()) {
    const edit: Edit = { do: 'remove', what: place.address }
    form = applyEdit(form, edit).form
    edits.push(edit)
  }
  return edits
}

/** The edits that move several things into a container, one behind the other, in the order of the form. */
export function moveItemsEdits(form: Form, addresses: readonly Address[], spot: Spot): Edit[] {
  const places = listPlaces(form)
  const chosen = places.filter(p => addresses.includes(p.address))
  const edits: Edit[] = []
  let { at } = spot
  for (const place of chosen.filter(p => !chosen.some(other => other !== p && isInside(p, other)))) {
    const own = locate(form, place.address)
    if (own.container === spot.into && own.index < at) at -= 1
    const edit: Edit = { do: 'move', what: place.address, into: spot.into, at }
    form = applyEdit(form, edit).form
    edits.push(edit)
    at += 1
  }
  return edits
}
